// Which spots of a job a motif's spots are.
import { ciede2000, parseHex, type Rgb, rgbToLab } from "../colour/index.ts";
import type { StockReference } from "../shelf/index.ts";
import type { MotifSpot } from "./motif.ts";

/** A spot of the job as far as it is compared. */
export interface JobSpot {
  readonly id: string;
  readonly rgb: Rgb;
  readonly stock: StockReference | null;
}

/** Two colours that differ by less are one ink, CIEDE2000 (our own: near what a screen tells apart side by side). */
const SAME_INK = 4;

/**
 * For each of the motif's spots the job's that is made with the same stock, or else is nearest in colour; null where none is
 * near enough. No spot of the job is taken for two.
 */
export function matchSpots(
  wanted: readonly Pick<MotifSpot, "hex" | "stock">[],
  there: readonly JobSpot[],
): (string | null)[] {
  const taken = new Set<string>();
  const take = (id: string | undefined) => {
    if (id !== undefined) taken.add(id);
    return id ?? null;
  };
  const byStock = wanted.map(({ stock }) =>
    take(there.find((spot) => !taken.has(spot.id) && isSame(stock, spot.stock))?.id),
  );
  return wanted.map(({ hex }, k) => {
    if (byStock[k] !== null) return byStock[k];
    const lab = rgbToLab(parseHex(hex));
    const near = there
      .filter(({ id }) => !taken.has(id))
      .map(({ id, rgb }) => ({ id, difference: ciede2000(lab, rgbToLab(rgb)) }))
      .filter(({ difference }) => difference < SAME_INK)
      .sort((a, b) => a.difference - b.difference);
    return take(near[0]?.id);
  });
}

function isSame(one: StockReference | null, other: StockReference | null): boolean {
  return one !== null && other !== null && one.kind === other.kind && one.code === other.code;
}
