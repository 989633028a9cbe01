// Gaps between stones that lie beside each other: too near, even, or too wide.
import Flatbush from "flatbush";
import { lengthOf } from "../geometry/index.ts";
import { diameterOf } from "../trade/index.ts";
import type { Gaps, Stone } from "./stones.ts";

export const GAP_KINDS = ["near", "even", "wide"] as const;
export type GapKind = (typeof GAP_KINDS)[number];

/** Between two stones, by their numbers. */
export interface StoneGap {
  readonly one: number;
  readonly other: number;
  readonly gapMm: number;
  readonly kind: GapKind;
}

/** A gap is even up to so many times what is wanted (our own, by eye). */
const WIDE = 1.4;
/** Stones that are farther apart than so much of their width are no neighbours. */
const APART_SHARE = 0.75;
/** So many of the nearest are looked at: two in a row, six in a fill. */
const NEIGHBOURS = 7;
/** What numbers lose on the way, mm. */
const NOUGHT_MM = 1e-5;

/** Every gap once. Of stones in a row those count between it and the next on both sides, not what lies beyond. */
export function measureGaps(stones: readonly Stone[], { gapMm, leastMm }: Gaps): StoneGap[] {
  if (stones.length === 0) return [];
  const index = new Flatbush(stones.length);
  for (const { x, y } of stones) index.add(x, y, x, y);
  index.finish();
  return stones.flatMap((stone, one) => {
    const radius = diameterOf(stone.size) / 2;
    return index.neighbors(stone.x, stone.y, NEIGHBOURS).flatMap((other): StoneGap[] => {
      if (other <= one) return [];
      const { x, y, size } = stones[other];
      const own = lengthOf(x - stone.x, y - stone.y) - radius - diameterOf(size) / 2;
      if (own > APART_SHARE * Math.min(2 * radius, diameterOf(size))) return [];
      const kind = own < leastMm - NOUGHT_MM ? "near" : own <= WIDE * gapMm ? "even" : "wide";
      return [{ one, other, gapMm: own, kind }];
    });
  });
}
