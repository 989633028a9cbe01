// The shelf and the shop's settings, as the server has them.
import { shopSettingsSchema } from "@plain-palette/core/shelf";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api } from "../api/client.ts";

/** Until they are there: an empty shelf and the trade's defaults. */
const DEFAULTS = shopSettingsSchema.parse({});

export function useShop() {
  const shelf = useQuery({ queryKey: ["shelf"], queryFn: api.listShelf });
  const settings = useQuery({ queryKey: ["settings"], queryFn: api.readSettings });
  const shop = settings.data ?? DEFAULTS;
  const { thinnestLineMm: lineMm, thinnestGapMm: gapMm } = shop;
  /** What is too thin to print here. */
  const limits = useMemo(() => ({ lineMm, gapMm }), [lineMm, gapMm]);
  return { shelf: shelf.data ?? [], settings: shop, limits };
}
