// The shelf and the shop's settings, as they are here: what waits for the server counts already.
import { type ShopStock, seenOf } from "@plain-palette/contract";
import type { ThinLimits } from "@plain-palette/core/checks";
import { processOf } from "@plain-palette/core/processes";
import { type ShopSettings, type ShopSettingsPatch, shopSettingsSchema } from "@plain-palette/core/shelf";
import { type UseQueryResult, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api } from "../api/client.ts";
import { type ContentOf, threadOf } from "../outbox/letters.ts";
import { shopOutbox } from "../outbox/shop-outbox.ts";
import { useWaiting } from "../outbox/use-letters.ts";
import { type Deed, withChanges, withWaiting } from "../outbox/waiting.ts";

/** Until they are there: an empty shelf and the trade's defaults. */
const DEFAULTS = shopSettingsSchema.parse({});
const EMPTY: readonly ShopStock[] = [];

export function useShop() {
  return { shelf: useShelf().data ?? EMPTY, settings: useSettings().data ?? DEFAULTS };
}

export function useSettings() {
  // Only what is used is taken out: a screen is drawn again for nothing else.
  const { data, isPending, isError, error } = useQuery({ queryKey: ["settings"], queryFn: api.readSettings });
  const waiting = useWaiting("settings");
  const settings = useMemo(() => data && withChanges(data, waiting), [data, waiting]);
  return { data: settings, isPending, isError, error };
}

/** What is typed on is sent once a short quiet is over. */
const QUIET_MS = 250;

export function changeSettings(settings: ShopSettings, part: ShopSettingsPatch): void {
  const patch = seenOf<ShopSettings, ShopSettingsPatch>(settings, part);
  const last = shopOutbox.lettersOf("settings").at(-1);
  if (last && last.content.kind === "settings" && shopOutbox.isOpen(last) && !last.held)
    shopOutbox.amend(last.id, { kind: "settings", patch: joined(last.content.patch, patch) }, QUIET_MS);
  else shopOutbox.post("Shop settings", { kind: "settings", patch }, QUIET_MS);
}

type Patch = ContentOf<"settings">["patch"];

/** Two changes as one: each setting from what it was before the first of them. */
function joined(first: Patch, second: Patch): Patch {
  return { ...first, ...second, seen: { ...second.seen, ...first.seen } };
}

export function useShelf() {
  return useListed(useQuery({ queryKey: ["shelf"], queryFn: api.listShelf }), useWaiting("stock"));
}

export function usePlacements() {
  return useListed(useQuery({ queryKey: ["placements"], queryFn: api.listPlacements }), useWaiting("placement"));
}

/** A list of the shop's with what waits to be done to it. */
function useListed<Thing extends { readonly id: string }>(
  query: UseQueryResult<Thing[]>,
  waiting: readonly Deed<Thing>[],
) {
  const { data, isPending, isError, error } = query;
  const listed = useMemo(() => withWaiting(data, waiting), [data, waiting]);
  return { data: listed, isPending, isError, error };
}

/** Does something to a list of the shop's. What is changed again before it is sent is sent once. */
export function doToListed(content: ContentOf<"stock"> | ContentOf<"placement">): void {
  const { deed, thing } = content;
  const last = shopOutbox.lettersOf(threadOf(content)).at(-1);
  const wasChanged = last && !last.held && "deed" in last.content && last.content.deed === "change";
  if (deed === "change" && wasChanged && shopOutbox.isOpen(last)) shopOutbox.amend(last.id, content, QUIET_MS);
  else shopOutbox.post(`"${thing.name}"`, content, deed === "change" ? QUIET_MS : 0);
}

/** What is too thin to be made here. */
export function useThinLimits(process: string): ThinLimits {
  const { settings } = useShop();
  const { lineMm, gapMm } = processOf(process).thinLimits(settings);
  return useMemo(() => ({ lineMm, gapMm }), [lineMm, gapMm]);
}
