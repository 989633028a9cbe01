// Areas that are letters of one word: what is decided on one holds for all, since a word has to look alike.
import { boundsOf } from "../geometry/index.ts";
import type { Area } from "./area.ts";

/**
 * Areas are letters of one word if they lie no farther apart than they are high, and neither is wider, nor higher, than the other
 * by more than these factors: strokes of one face differ by the first, what goes up or down from a line by the second (our own).
 */
const LIKE_WIDTH = 1.6;
const LIKE_HEIGHT = 1.9;

/** Of each area the first of those that hang together with it as letters of a word. */
export function findWords(areas: readonly (Area & { readonly widthMm: number })[]): number[] {
  const boxes = areas.map(({ rings: [ring] }) => boundsOf(ring));
  const height = boxes.map(({ left, top, right, bottom }) => Math.max(right - left, bottom - top));
  const isNear = (a: number, b: number, factor: number) => a < factor * b && b < factor * a;
  const word = areas.map((_, i) => i);
  const firstOf = (i: number): number => {
    let first = i;
    while (word[first] !== first) first = word[first];
    word[i] = first;
    return first;
  };
  for (let i = 0; i < areas.length; i++)
    for (let j = 0; j < i; j++) {
      if (areas[i].spotId !== areas[j].spotId || !isNear(areas[i].widthMm, areas[j].widthMm, LIKE_WIDTH)) continue;
      if (!isNear(height[i], height[j], LIKE_HEIGHT)) continue;
      const [one, other] = [boxes[i], boxes[j]];
      const across = Math.max(one.left, other.left) - Math.min(one.right, other.right);
      const down = Math.max(one.top, other.top) - Math.min(one.bottom, other.bottom);
      if (Math.max(across, down) <= Math.max(height[i], height[j])) word[firstOf(i)] = firstOf(j);
    }
  return word.map((_, i) => firstOf(i));
}
