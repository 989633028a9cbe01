// Boundaries that cross after their curves were loosened: found, and made again closer until they do not.
import Flatbush from "flatbush";
import { type CubicPath, flattenPath } from "../geometry/index.ts";

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

/** Polylines that cross, `among` whom at least one is of each pair. */
function crossingAmong(lines: readonly number[][], among: Iterable<number>): Crossings {
  const first: number[] = [];
  let count = 0;
  for (const line of lines) {
    first.push(count);
    count += line.length / 2 - 1;
  }
  const crossing = new Map<number, number[]>();
  const add = (e: number, x: number, y: number) => {
    const places = crossing.get(e);
    if (places) places.push(x, y);
    else crossing.set(e, [x, y]);
  };
  if (count === 0) return crossing;
  const index = new Flatbush(count);
  const edgeOf = new Int32Array(count);
  lines.forEach((line, e) => {
    for (let i = 0; i + 3 < line.length; i += 2) {
      edgeOf[first[e] + i / 2] = e;
      index.add(
        Math.min(line[i], line[i + 2]),
        Math.min(line[i + 1], line[i + 3]),
        Math.max(line[i], line[i + 2]),
        Math.max(line[i + 1], line[i + 3]),
      );
    }
  });
  index.finish();
  for (const e of among) {
    const line = lines[e];
    for (let i = 0; i + 3 < line.length; i += 2) {
      const own = first[e] + i / 2;
      const [ax, ay, bx, by] = [line[i], line[i + 1], line[i + 2], line[i + 3]];
      index.search(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by), (other) => {
        if (other === own) return false;
        const o = edgeOf[other];
        const k = (other - first[o]) * 2;
        if (doCross(ax, ay, bx, by, lines[o][k], lines[o][k + 1], lines[o][k + 2], lines[o][k + 3])) {
          // Steps are short: the middle of one is where it is.
          add(e, (ax + bx) / 2, (ay + by) / 2);
          if (o !== e) add(o, (ax + bx) / 2, (ay + by) / 2);
        }
        return false;
      });
    }
  }
  return crossing;
}

/** Whether two segments cross in a point inside both; segments that share an end do not. */
function doCross(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): boolean {
  const c = sideOf(ax, ay, bx, by, cx, cy);
  const d = sideOf(ax, ay, bx, by, dx, dy);
  if (c * d >= 0) return false;
  return sideOf(cx, cy, dx, dy, ax, ay) * sideOf(cx, cy, dx, dy, bx, by) < 0;
}

function sideOf(px: number, py: number, qx: number, qy: number, x: number, y: number): number {
  return (qx - px) * (y - py) - (qy - py) * (x - px);
}
