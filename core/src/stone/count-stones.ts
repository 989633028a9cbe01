// What a client pays for: stones by spot and size, how many to have at hand, what they cost, and whether the shelf has them.
import type { StockReference } from "../shelf/index.ts";
import { STONE_SIZES, type StoneSize } from "../trade/index.ts";
import type { Stone } from "./stones.ts";

export interface StoneCount {
  readonly spotId: string;
  readonly size: StoneSize;
  /** On one piece. */
  readonly count: number;
  /** For all pieces, with what is lost on the way. */
  readonly needed: number;
  /** Of those that are needed, in the shop's currency; null: no price is known. */
  readonly price: number | null;
  /** On the shelf; null: nobody says, or it is not kept in this size. */
  readonly kept: number | null;
  /** Whether the shelf keeps this size of these stones; true if nothing was taken from it. */
  readonly isKept: boolean;
}

export interface CountFacts {
  /** In the order in which they are counted. */
  readonly spotIds: readonly string[];
  readonly stock: Readonly<Record<string, StockReference>>;
  readonly pieces: number;
  readonly lossPercent: number;
  /** Of a hundred, size by size: SS6 0.9, SS10 1.1. */
  readonly prices: string;
}

/** Counts by spot, and by size, the smallest first. */
export function countStones(
  stones: readonly Stone[],
  { spotIds, stock, pieces, lossPercent, prices }: CountFacts,
): StoneCount[] {
  const counts = new Map<string, number>();
  for (const { spotId, size } of stones) {
    const key = `${spotId} ${size}`;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const priceOf = readPrices(prices);
  return spotIds.flatMap((spotId) =>
    STONE_SIZES.flatMap((size): StoneCount[] => {
      const count = counts.get(`${spotId} ${size}`);
      if (count === undefined) return [];
      const needed = Math.ceil(count * pieces * (1 + lossPercent / 100) - 1e-9);
      const hundred = priceOf.get(size);
      const shelf = stock[spotId]?.stones;
      return [
        {
          ...{ spotId, size, count, needed },
          price: hundred === undefined ? null : (needed * hundred) / 100,
          kept: shelf?.[size] ?? null,
          isKept: !shelf || shelf[size] !== null,
        },
      ];
    }),
  );
}

/** Prices as a shop writes them down. */
function readPrices(text: string): ReadonlyMap<string, number> {
  const pairs = text.split(",").map((one) => one.trim().split(/\s+/));
  return new Map(pairs.flatMap(([size, price]) => (size && price ? [[size, Number(price)] as const] : [])));
}
