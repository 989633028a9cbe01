// How many stones of a colour there are on the shelf, by size.
import { STONE_SIZES, type StoneSize } from "../trade/index.ts";
import { z } from "../zod/index.ts";

/** More than any shop keeps. */
export const MOST_STONES = 10_000_000;

const pieces = z.number().int().min(0).max(MOST_STONES).nullable().default(null);

/** Pieces of each size; null where it is not kept. */
export const keptStonesSchema = z.object(
  Object.fromEntries(STONE_SIZES.map((size) => [size, pieces])) as Record<StoneSize, typeof pieces>,
);
export type KeptStones = z.infer<typeof keptStonesSchema>;

/** What is kept by cells of a table whose columns are called by the sizes; null where nothing is said. */
export function readKeptStones(cellOf: (word: string) => string | undefined): Record<StoneSize, number | null> | null {
  const kept = STONE_SIZES.map((size) => {
    const cell = cellOf(size)?.trim() ?? "";
    return [size, cell === "" ? null : Number(cell)] as const;
  });
  return kept.some(([, pieces]) => pieces !== null)
    ? (Object.fromEntries(kept) as Record<StoneSize, number | null>)
    : null;
}
