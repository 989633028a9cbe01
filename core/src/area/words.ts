// Areas that are letters of one word, and the insides of letters: a word has to look alike.
import { boundsOf, flattenPath } from "../geometry/index.ts";
import type { PlanarMap } from "../trace/index.ts";
import type { Area } from "./area.ts";

/**
 * Areas are letters of one word if they lie no farther apart than they are high, and neither is wider, nor higher, than the other
 * by more than these factors: strokes of one face differ by the first, what goes up or down from a line by the second (our own).
 */
const LIKE_WIDTH = 1.6;
const LIKE_HEIGHT = 1.9;

/**
 * Of each area the first of those that hang together with it as letters of a word. `likeWidth` is by how much strokes may differ
 * where their width decides little.
 */
export function findWords(
  areas: readonly (Area & { readonly widthMm: number })[],
  likeWidth: number = LIKE_WIDTH,
): number[] {
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
      if (areas[i].spotId !== areas[j].spotId || !isNear(areas[i].widthMm, areas[j].widthMm, likeWidth)) continue;
      if (!isNear(height[i], height[j], LIKE_HEIGHT)) continue;
      const [one, other] = [boxes[i], boxes[j]];
      const across = Math.max(one.left, other.left) - Math.min(one.right, other.right);
      const down = Math.max(one.top, other.top) - Math.min(one.bottom, other.bottom);
      if (Math.max(across, down) <= Math.max(height[i], height[j])) word[firstOf(i)] = firstOf(j);
    }
  return word.map((_, i) => firstOf(i));
}

/** What lies inside something less high than so many times itself is the inside of a letter, and no letter (our own). */
const COUNTER = 4;

/** Tells of an area `highMm` high which face it may be the inside of, as of a letter: its only neighbour, if not much higher; else -1. */
export function makeLetterAround(
  { edges, faces }: Pick<PlanarMap, "edges" | "faces">,
  mmPerPx: number,
): (face: number, highMm: number) => number {
  const beside = new Map<number, Set<number>>();
  const put = (face: number, other: number) => beside.set(face, (beside.get(face) ?? new Set()).add(other));
  for (const { left, right } of edges) {
    put(left, right);
    put(right, left);
  }
  return (face, highMm) => {
    const [around, ...others] = beside.get(face) ?? [];
    const path = faces[around]?.paths[0];
    if (!path || others.length > 0) return -1;
    const { top, bottom } = boundsOf(flattenPath(path, 1));
    return (bottom - top) * mmPerPx < COUNTER * highMm ? around : -1;
  };
}
