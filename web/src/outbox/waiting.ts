// Lists and facts as they will be once what waits is sent: shown so at once.
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
  const own = waiting.filter(({ job }) => job === card.id);
  return own.length === 0 ? card : withChanges(card, own);
}

/** Facts with the changes of them that wait, the last one counts. */
export function withChanges<Facts extends object>(
  facts: Facts,
  waiting: readonly { readonly patch: { readonly seen?: unknown } }[],
): Facts {
  return Object.assign({}, facts, ...waiting.map(({ patch: { seen: _, ...change } }) => change));
}
