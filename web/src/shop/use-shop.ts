// The shelf and the shop's settings, as the server has them.
import type { ThinLimits } from "@plain-palette/core/checks";
import { processOf } from "@plain-palette/core/processes";
import { shopSettingsSchema } from "@plain-palette/core/shelf";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api } from "../api/client.ts";

/** Until they are there: an empty shelf and the trade's defaults. */
const DEFAULTS = shopSettingsSchema.parse({});

export function useShop() {
  const shelf = useQuery({ queryKey: ["shelf"], queryFn: api.listShelf });
  const settings = useQuery({ queryKey: ["settings"], queryFn: api.readSettings });
  return { shelf: shelf.data ?? [], settings: settings.data ?? DEFAULTS };
}

/** What is too thin to be made here. */
export function useThinLimits(process: string): ThinLimits {
  const { settings } = useShop();
  const { lineMm, gapMm } = processOf(process).thinLimits(settings);
  return useMemo(() => ({ lineMm, gapMm }), [lineMm, gapMm]);
}
