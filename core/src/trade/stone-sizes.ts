// Stones by size: what they are called, and how wide they are.

/** Stone sizes with their diameters, mm (from memory of suppliers' tables). */
const SIZES = {
  SS6: 2,
  SS8: 2.4,
  SS10: 2.8,
  SS12: 3.1,
  SS16: 3.9,
  SS20: 4.7,
  SS30: 6.4,
  SS34: 7.2,
} as const;

export type StoneSize = keyof typeof SIZES;
/** From the smallest to the largest. */
export const STONE_SIZES = Object.keys(SIZES) as readonly StoneSize[];

export function diameterOf(size: StoneSize): number {
  return SIZES[size];
}
