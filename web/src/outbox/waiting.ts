// Lists and facts as they will be once what waits is sent: shown so at once.
import type { JobPatch } from "@plain-palette/contract";
import type { ContentOf } from "./letters.ts";

/** Something that is done to a list of the shop's. */
export type Deed<Thing> = { readonly deed: ContentOf<"stock">["deed"]; readonly thing: Thing };

/** A list of the shop's with what is done to it, in order; undefined while there is none. */
export function withWaiting<Thing extends { readonly id: string }>(
  listed: readonly Thing[] | undefined,
  deeds: readonly Deed<Thing>[],
): readonly Thing[] | undefined {
  return deeds.reduce(
    (list, { deed, thing }) =>
      deed === "change"
        ? list?.map((one) => (one.id === thing.id ? thing : one))
        : list?.filter(({ id }) => id !== thing.id).concat(deed === "putAway" ? [] : [thing]),
    listed,
  );
}

/** A job, or a card of one, with the changes of its ticket that wait. */
export function withTicket<Card extends { readonly id: string }>(
  card: Card,
  waiting: readonly ContentOf<"ticket">[],
): Card {
  return waiting
    .filter(({ job }) => job === card.id)
    .reduce((now, { patch: { seen: _, ...change } }: { patch: JobPatch }) => ({ ...now, ...change }), card);
}
