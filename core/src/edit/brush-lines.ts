// A brush along boundaries: what lies under it becomes smooth, or straight; corners stay unless asked otherwise.
import {
  type CubicPath,
  cosineBetween,
  flattenPath,
  lengthOf,
  linePath,
  partOfPath,
  pointAlong,
  segmentCount,
} from "../geometry/index.ts";
import { fitPolyline, type PlanarMap, spotOf } from "../trace/index.ts";
import { changeLines } from "./change-lines.ts";
import { type Edit, type LineChange, LOST } from "./edits.ts";

type BrushEdit = Extract<Edit, { kind: "brush" }>;

/** Boundaries are looked at this many px apart. */
const STEP_PX = 0.5;
/** Turns of more than this are corners (cosine of 28 degrees, as the trace has it). */
const CORNER_COSINE = 0.883;
/** How closely a smoothed line is drawn again, px. */
const FIT_PX = 0.05;

/** The map with what is under the brush smoothed; or why nothing is. */
export function brushLines<M extends PlanarMap>(map: M, edit: BrushEdit): M | string {
  const changes = map.edges.flatMap((edge): LineChange[] => {
    if (edge.isHeld) return [];
    return stretchesUnder(edge.path, edge.start < 0, edit).flatMap(([from, to]) => {
      const was = partOfPath(edge.path, from, to);
      const now = edit.does === "straighten" ? straightened(was) : smoothed(was, edit.strengthPx);
      return now ? [{ was, now, left: spotOf(map, edge.left), right: spotOf(map, edge.right) }] : [];
    });
  });
  return changes.length > 0 ? changeLines(map, changes) : LOST;
}

/** From where to where a path runs under the brush, parted at corners that are kept. */
function stretchesUnder(
  path: CubicPath,
  isRing: boolean,
  { points, radiusPx, keepsCorners }: BrushEdit,
): [number, number][] {
  const segments = segmentCount(path);
  const ats: number[] = [];
  for (let s = 0; s < segments; s++) {
    const o = s * 6;
    const length = lengthOf(path[o + 6] - path[o], path[o + 7] - path[o + 1]);
    const steps = Math.max(2, Math.ceil(length / STEP_PX));
    for (let k = 0; k < steps; k++) ats.push(s + k / steps);
  }
  ats.push(segments);
  const isUnder = ats.map((at) => {
    const [x, y] = pointAlong(path, at);
    return distanceTo(points, x, y) <= radiusPx;
  });
  const runs: [number, number][] = [];
  let first = -1;
  for (let i = 0; i <= ats.length; i++) {
    const isCorner = i < ats.length && keepsCorners && isCornerAt(path, ats[i], isRing);
    if (first >= 0 && (i === ats.length || !isUnder[i] || isCorner)) {
      const last = i < ats.length && isCorner && isUnder[i] ? i : i - 1;
      if (last - first >= 2) runs.push([ats[first], ats[last]]);
      first = -1;
    }
    if (i < ats.length && isUnder[i] && first < 0) first = i;
  }
  return joinOverSeam(runs, path, isRing && !(keepsCorners && isCornerAt(path, 0, true)));
}

/** A run that goes over a ring's first node is one. */
function joinOverSeam(runs: [number, number][], path: CubicPath, isSmooth: boolean): [number, number][] {
  const segments = segmentCount(path);
  const [first, last] = [runs[0], runs.at(-1)];
  if (!isSmooth || !first || !last || first === last || first[0] > 0 || last[1] < segments) return runs;
  return [...runs.slice(1, -1), [last[0], segments + first[1]]];
}

function isCornerAt(path: CubicPath, at: number, isRing: boolean): boolean {
  const segments = segmentCount(path);
  if (at !== Math.floor(at)) return false;
  if ((at === 0 || at === segments) && !isRing) return false;
  const o = at * 6;
  const before = at === 0 ? segments * 6 : o;
  const after = at === segments ? 0 : o;
  const back =
    [2, 4, 6].find((k) => path[before] !== path[before - k] || path[before + 1] !== path[before - k + 1]) ?? 6;
  const on = [2, 4, 6].find((k) => path[after] !== path[after + k] || path[after + 1] !== path[after + k + 1]) ?? 6;
  const cosine = cosineBetween(
    path[before] - path[before - back],
    path[before + 1] - path[before - back + 1],
    path[after + on] - path[after],
    path[after + on + 1] - path[after + 1],
  );
  return cosine < CORNER_COSINE;
}

function distanceTo(points: ArrayLike<number>, x: number, y: number): number {
  let least = points.length < 4 ? lengthOf(points[0] - x, points[1] - y) : Number.POSITIVE_INFINITY;
  for (let i = 0; i + 3 < points.length; i += 2) {
    const [dx, dy] = [points[i + 2] - points[i], points[i + 3] - points[i + 1]];
    const square = dx * dx + dy * dy;
    const share = square === 0 ? 0 : ((x - points[i]) * dx + (y - points[i + 1]) * dy) / square;
    const t = Math.min(1, Math.max(0, share));
    least = Math.min(least, lengthOf(points[i] + t * dx - x, points[i + 1] + t * dy - y));
  }
  return least;
}

function straightened(was: CubicPath): CubicPath {
  return linePath([was[0], was[1], was[was.length - 2], was[was.length - 1]]);
}

/**
 * The stretch with every point the mean of those within `strengthPx` along it, weighted by their distance (a triangle), twice;
 * towards its ends the reach shrinks, so that it goes on where it did.
 */
function smoothed(was: CubicPath, strengthPx: number): CubicPath | null {
  let points = evenly(flattenPath(was, 0.02));
  const n = points.length / 2;
  if (n < 5) return null;
  for (let pass = 0; pass < 2; pass++) points = meanAlong(points, Math.max(1, Math.round(strengthPx / STEP_PX)));
  return fitPolyline(points, FIT_PX);
}

function meanAlong(points: Float64Array, reach: number): Float64Array {
  const n = points.length / 2;
  const out = points.slice();
  for (let i = 1; i < n - 1; i++) {
    const own = Math.min(reach, i, n - 1 - i);
    let [x, y, sum] = [0, 0, 0];
    for (let k = -own; k <= own; k++) {
      const weight = own + 1 - Math.abs(k);
      x += weight * points[(i + k) * 2];
      y += weight * points[(i + k) * 2 + 1];
      sum += weight;
    }
    out[i * 2] = x / sum;
    out[i * 2 + 1] = y / sum;
  }
  return out;
}

/** Points of a line at even distances of about `STEP_PX`, its ends among them. */
function evenly(line: readonly number[]): Float64Array {
  let length = 0;
  for (let i = 2; i < line.length; i += 2) length += lengthOf(line[i] - line[i - 2], line[i + 1] - line[i - 1]);
  const steps = Math.max(1, Math.round(length / STEP_PX));
  const out: number[] = [line[0], line[1]];
  let travelled = 0;
  let next = length / steps;
  for (let i = 2; i < line.length && out.length / 2 < steps; i += 2) {
    const step = lengthOf(line[i] - line[i - 2], line[i + 1] - line[i - 1]);
    for (; next <= travelled + step && out.length / 2 < steps; next += length / steps) {
      const t = step === 0 ? 0 : (next - travelled) / step;
      out.push(line[i - 2] + t * (line[i] - line[i - 2]), line[i - 1] + t * (line[i + 1] - line[i - 1]));
    }
    travelled += step;
  }
  out.push(line[line.length - 2], line[line.length - 1]);
  return Float64Array.from(out);
}
