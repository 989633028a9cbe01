// The stones that a design needs, under the names that they have in it.
import type { Design } from "../process/index.ts";
import { countStones, type StoneCount } from "./count-stones.ts";
import type { StoneSettings } from "./settings.ts";
import type { Stone } from "./stones.ts";

/** What of the design is counted, and told of in files. */
export type CountedDesign = Pick<Design, "spots" | "stock" | "pieces">;

export function countOf(
  { stones }: { readonly stones: readonly Stone[] },
  { spots, stock, pieces }: CountedDesign,
  { shop: { lossPercent, prices } }: StoneSettings,
): StoneCount[] {
  return countStones(stones, { ...{ spotIds: spots.map(({ id }) => id), stock, pieces }, ...{ lossPercent, prices } });
}

/** What a spot's stones are called: by the shelf, or the spot. */
export function stoneName({ spots, stock }: Pick<CountedDesign, "spots" | "stock">, spotId: string): string {
  const taken = stock[spotId];
  if (taken?.kind === "stone") return `${taken.code} ${taken.name}`;
  return spots.find(({ id }) => id === spotId)?.name ?? spotId;
}
