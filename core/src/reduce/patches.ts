// Patches that compression makes of one flat: some of it comes out a shade apart, with a ragged edge that no artist draws.
// Our own method.
import { ciede2000, type Lab } from "../colour/index.ts";
import { MAX_FOUND } from "./palette.ts";

/** Up to this CIEDE2000 two colours may be shades of one flat; of the same lightness, where only chroma was lost, farther. */
const NEAR = 4;
const NEAR_IN_CHROMA = 10;
const SAME_LIGHTNESS = 3;
/** Sides between the two for each pixel of the smaller, from which they are ragged: patches have a quarter or more, drawn areas of a hundred pixels across a hundredth (measured). */
const RAGGED = 0.1;
const RAGGED_IN_CHROMA = 0.15;

/** A colour that is only patches of another. */
export interface Patch {
  readonly patch: number;
  readonly whole: number;
}

/** Colours that are patches of a larger one, smallest first. Linear in pixels. */
export function findPatches(
  labels: Uint8Array,
  width: number,
  height: number,
  labs: readonly Lab[],
  areas: Uint32Array,
): Patch[] {
  const sides = countSides(labels, width, height);
  const patches: Patch[] = [];
  for (let a = 0; a < labs.length; a++)
    for (let b = a + 1; b < labs.length; b++) {
      const count = sides[a * MAX_FOUND + b] + sides[b * MAX_FOUND + a];
      if (count === 0) continue;
      const apart = ciede2000(labs[a], labs[b]);
      const ragged = count / Math.min(areas[a], areas[b]);
      const isChroma = Math.abs(labs[a][0] - labs[b][0]) <= SAME_LIGHTNESS && apart <= NEAR_IN_CHROMA;
      if ((apart <= NEAR && ragged >= RAGGED) || (isChroma && ragged >= RAGGED_IN_CHROMA))
        patches.push(areas[a] < areas[b] ? { patch: a, whole: b } : { patch: b, whole: a });
    }
  return patches.sort((s, t) => areas[s.patch] - areas[t.patch]);
}

/** Pixel sides between every two labels: right of the first and below it. */
function countSides(labels: Uint8Array, width: number, height: number): Uint32Array {
  const sides = new Uint32Array(MAX_FOUND * MAX_FOUND);
  for (let y = 0; y < height; y++)
    for (let x = 0, p = y * width; x < width; x++, p++) {
      const own = labels[p];
      if (own >= MAX_FOUND) continue;
      const right = x + 1 < width ? labels[p + 1] : own;
      const below = y + 1 < height ? labels[p + width] : own;
      if (right !== own && right < MAX_FOUND) sides[own * MAX_FOUND + right]++;
      if (below !== own && below < MAX_FOUND) sides[own * MAX_FOUND + below]++;
    }
  return sides;
}
