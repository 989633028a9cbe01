// What a client pays for: stones by spot and size, and how many to have at hand.
import { STONE_SIZES, type StoneSize } from "./sizes.ts";
import type { Stone } from "./stones.ts";

export interface StoneCount {
  readonly spotId: string;
  readonly size: StoneSize;
  readonly count: number;
  /** With what is lost on the way. */
  readonly needed: number;
}

/** Counts by spot, in the order of `spotIds`, and by size, the smallest first; `lossShare` more are needed, 0..1. */
export function countStones(stones: readonly Stone[], spotIds: readonly string[], lossShare: number): StoneCount[] {
  return spotIds.flatMap((spotId) =>
    STONE_SIZES.flatMap((size): StoneCount[] => {
      const count = stones.filter((stone) => stone.spotId === spotId && stone.size === size).length;
      return count > 0 ? [{ spotId, size, count, needed: Math.ceil(count * (1 + lossShare) - 1e-9) }] : [];
    }),
  );
}
