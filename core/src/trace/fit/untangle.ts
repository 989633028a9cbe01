// Boundaries that cross after their curves were loosened: found, and made again closer until they do not.
import Flatbush from "flatbush";
import { orient2d } from "robust-predicates";
import { type CubicPath, flattenPath } from "../../geometry/index.ts";

/** How closely curves are followed when looking for crossings, px. */
const NEAR_PX = 0.02;

/** Steps of a polyline that are looked at together. */
const STRETCH_STEPS = 8;

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
  const stretches = lines.flatMap((line, e) => cutUp(line, e));
  const crossing = new Map<number, number[]>();
  const add = (e: number, x: number, y: number) => {
    const places = crossing.get(e);
    if (places) places.push(x, y);
    else crossing.set(e, [x, y]);
  };
  if (stretches.length === 0) return crossing;
  const index = new Flatbush(stretches.length);
  for (const { left, top, right, bottom } of stretches) index.add(left, top, right, bottom);
  index.finish();
  const isAmong = new Uint8Array(lines.length);
  for (const e of among) isAmong[e] = 1;
  for (const own of stretches) {
    if (isAmong[own.edge] === 0) continue;
    index.search(own.left, own.top, own.right, own.bottom, (found) => {
      const other = stretches[found];
      forEachCrossing(lines[own.edge], own, lines[other.edge], other, (x, y) => {
        add(own.edge, x, y);
        if (other.edge !== own.edge) add(other.edge, x, y);
      });
      return false;
    });
  }
  return crossing;
}

/** Some of the steps of an edge's polyline in a row, from the one that starts at point `from` (an index of its x) on. */
interface Stretch {
  readonly edge: number;
  readonly from: number;
  readonly to: number;
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

function cutUp(line: readonly number[], edge: number): Stretch[] {
  const out: Stretch[] = [];
  for (let from = 0; from + 2 < line.length; from += STRETCH_STEPS * 2) {
    const to = Math.min(from + STRETCH_STEPS * 2, line.length - 2);
    let [left, top, right, bottom] = [line[from], line[from + 1], line[from], line[from + 1]];
    for (let i = from + 2; i <= to; i += 2) {
      left = Math.min(left, line[i]);
      right = Math.max(right, line[i]);
      top = Math.min(top, line[i + 1]);
      bottom = Math.max(bottom, line[i + 1]);
    }
    out.push({ edge, from, to, left, top, right, bottom });
  }
  return out;
}

/** Tells where two stretches cross. Steps are short: the middle of one is where it is. */
function forEachCrossing(
  line: readonly number[],
  own: Stretch,
  otherLine: readonly number[],
  other: Stretch,
  tell: (x: number, y: number) => void,
): void {
  for (let i = own.from; i < own.to; i += 2) {
    const ax = line[i];
    const ay = line[i + 1];
    const bx = line[i + 2];
    const by = line[i + 3];
    if (Math.max(ax, bx) < other.left || Math.min(ax, bx) > other.right) continue;
    if (Math.max(ay, by) < other.top || Math.min(ay, by) > other.bottom) continue;
    for (let k = other.from; k < other.to; k += 2) {
      const isSame = i === k && line === otherLine;
      if (!isSame && doCross(ax, ay, bx, by, otherLine[k], otherLine[k + 1], otherLine[k + 2], otherLine[k + 3]))
        tell((ax + bx) / 2, (ay + by) / 2);
    }
  }
}

/**
 * Whether two segments cross; those that share an end do not. A point that lies on the other's line counts as on its positive
 * side: so a line that passes through another's point is found at one of the segments that meet there.
 */
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
  if (isPositive(ax, ay, bx, by, cx, cy) === isPositive(ax, ay, bx, by, dx, dy)) return false;
  if (isPositive(cx, cy, dx, dy, ax, ay) === isPositive(cx, cy, dx, dy, bx, by)) return false;
  const isA = (ax === cx && ay === cy) || (ax === dx && ay === dy);
  return !isA && !((bx === cx && by === cy) || (bx === dx && by === dy));
}

/** Exact to the last digit: rounding must not make a crossing, nor hide one. */
function isPositive(px: number, py: number, qx: number, qy: number, x: number, y: number): boolean {
  return orient2d(px, py, qx, qy, x, y) >= 0;
}
