// Outlines that abut share stretches of their boundaries to the last digit: each is laid once, for both.
import { type CubicPath, reversePath, segmentCount } from "../geometry/index.ts";

/** An outline that a stretch belongs to, by its number: 1 where it runs the same way, -1 against it. */
export interface OutlineSide {
  readonly outline: number;
  readonly way: 1 | -1;
}

/** A path with the outlines on its sides. */
export interface Stretch {
  readonly path: CubicPath;
  readonly isHeld: boolean;
  readonly sides: readonly OutlineSide[];
}

/** A closed path of an outline, which it names by its number. */
export interface Ring {
  readonly path: CubicPath;
  readonly outline: number;
  readonly isHeld: boolean;
}

/** A segment of one of the paths, told by its numbers, whichever way it runs. */
interface Part {
  readonly key: string;
  readonly way: 1 | -1;
}

/**
 * Closed paths of outlines as stretches that are there once: whole paths where nothing is shared, else cut wherever the
 * outlines on their sides change. Only what has the very same numbers is shared.
 */
export function shareStretches(rings: readonly Ring[]): Stretch[] {
  const parts = rings.map(({ path }) => partsOf(path));
  const sides = new Map<string, OutlineSide[]>();
  rings.forEach(({ outline }, r) => {
    for (const { key, way } of parts[r]) {
      const list = sides.get(key);
      if (list) list.push({ outline, way });
      else sides.set(key, [{ outline, way }]);
    }
  });
  /** What is on the sides of a segment, seen along its path; the one before the first is the last. */
  const signOf = (own: readonly Part[], s: number) => {
    const part = own[(s + own.length) % own.length];
    return relativeTo(part, sides.get(part.key) ?? [])
      .map(({ outline, way }) => `${outline} ${way}`)
      .sort()
      .join();
  };
  /** Where what is on the sides changes on any of the paths, all that run through there are cut. */
  const ends = new Set<string>();
  rings.forEach(({ path }, r) => {
    for (let s = 0; s < parts[r].length; s++)
      if (signOf(parts[r], s) !== signOf(parts[r], s - 1)) ends.add(nodeKey(path, s));
  });
  const seen = new Set<string>();
  return rings.flatMap(({ path, outline, isHeld }, r): Stretch[] => {
    const own = parts[r];
    if (own.every(({ key }) => sides.get(key)?.length === 1)) return [{ path, isHeld, sides: [{ outline, way: 1 }] }];
    const cuts = own.flatMap((_, s) => (ends.has(nodeKey(path, s)) ? [s] : []));
    return runsBetween(cuts, own.length).flatMap(({ from, length }) => {
      const first = own[from];
      if (seen.has(first.key)) return [];
      const run = Array.from({ length }, (_, k) => (from + k) % own.length);
      for (const s of run) seen.add(own[s].key);
      return [{ path: partsTogether(path, run), isHeld, sides: relativeTo(first, sides.get(first.key) ?? []) }];
    });
  });
}

function partsOf(path: CubicPath): Part[] {
  return Array.from({ length: segmentCount(path) }, (_, s) => {
    const part = path.subarray(s * 6, s * 6 + 8);
    const [there, back] = [part.join(" "), reversePath(part).join(" ")];
    return there <= back ? { key: there, way: 1 } : { key: back, way: -1 };
  });
}

function nodeKey(path: CubicPath, s: number): string {
  return `${path[s * 6]} ${path[s * 6 + 1]}`;
}

/** Segments from cut to cut of a ring; all of it where there is none. */
function runsBetween(cuts: readonly number[], count: number): { from: number; length: number }[] {
  if (cuts.length === 0) return [{ from: 0, length: count }];
  return cuts.map((from, k) => {
    const to = k + 1 < cuts.length ? cuts[k + 1] : cuts[0] + count;
    return { from, length: to - from };
  });
}

function partsTogether(path: CubicPath, run: readonly number[]): CubicPath {
  const out = [...path.subarray(run[0] * 6, run[0] * 6 + 2)];
  for (const s of run) out.push(...path.subarray(s * 6 + 2, s * 6 + 8));
  return Float64Array.from(out);
}

function relativeTo({ way: own }: Part, sides: readonly OutlineSide[]): OutlineSide[] {
  return sides.map(({ outline, way }) => ({ outline, way: way === own ? 1 : -1 }));
}
