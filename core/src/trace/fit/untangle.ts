// Boundaries that cross after their curves were loosened: found, and made again closer until they do not.
import { type CubicPath, eachLineCrossing, flattenPath } from "../../geometry/index.ts";

/** How closely curves are followed when looking for crossings, px. */
const NEAR_PX = 0.02;

interface Edge {
  path: CubicPath;
}

/** For every edge that crosses another one or itself: where, x, y pairs. */
export type Crossings = ReadonlyMap<number, readonly number[]>;

/**
 * Finds edges that cross another, or themselves, and has them made again: `remake` gets them and the time, from 1, replaces
 * paths in place, and returns the numbers of all whose path it replaced. Ends when nothing crosses, nothing was replaced, or
 * after `times`.
 */
export function untangle(
  edges: readonly Edge[],
  times: number,
  remake: (crossing: Crossings, time: number) => Iterable<number>,
): void {
  const lines = edges.map(({ path }) => flattenPath(path, NEAR_PX));
  let changed: Iterable<number> = edges.keys();
  for (let time = 1; time <= times; time++) {
    const crossing = crossingAmong(lines, changed);
    if (crossing.size === 0) return;
    changed = remake(crossing, time);
    for (const e of changed) lines[e] = flattenPath(edges[e].path, NEAR_PX);
  }
}

/** The edges that cross another one or themselves. */
export function findCrossing(edges: readonly Edge[]): Crossings {
  return crossingAmong(
    edges.map(({ path }) => flattenPath(path, NEAR_PX)),
    edges.keys(),
  );
}

/** Polylines that cross, `among` whom at least one is of each pair. Steps are short: the middle of one is where it is. */
function crossingAmong(lines: readonly number[][], among: Iterable<number>): Crossings {
  const crossing = new Map<number, number[]>();
  const add = (e: number, x: number, y: number) => {
    const places = crossing.get(e);
    if (places) places.push(x, y);
    else crossing.set(e, [x, y]);
  };
  eachLineCrossing(lines, among, (a, i, b) => {
    const [x, y] = [(lines[a][i] + lines[a][i + 2]) / 2, (lines[a][i + 1] + lines[a][i + 3]) / 2];
    add(a, x, y);
    if (a !== b) add(b, x, y);
  });
  return crossing;
}
