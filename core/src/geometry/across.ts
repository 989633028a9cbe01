// How wide a feature is: measured across it, from a boundary along its normal to the boundary that faces it.
import Flatbush from "flatbush";
import { lengthOf } from "./vector.ts";

/** The boundary that a point itself lies on must not be met: so much of the reach is passed over. */
const SKIP_SHARE = 0.02;

/** So many points of a line in a row are looked round together: each look costs as much as testing dozens of segments. */
const TOGETHER = 8;

/** All segments of some boundaries, for finding what lies across a feature. */
export interface Crossings {
  readonly index: Flatbush | null;
  /** x0 y0 x1 y1 for each. */
  readonly segments: Float64Array;
  /** Of which boundary each is part, by its place in the list. */
  readonly boundaryOf: Int32Array;
}

/** What lies across a feature from each point of a line. */
export interface Across {
  /** How far it is to the next boundary, source pixels; as far as was looked where there is none. */
  readonly distances: Float64Array;
  /** Which boundary that is, by its place in the indexed list; -1 where there is none. */
  readonly met: Int32Array;
}

/** Indexes polylines x, y, ... */
export function indexBoundaries(boundaries: readonly (readonly number[])[]): Crossings {
  let count = 0;
  for (const line of boundaries) count += line.length / 2 - 1;
  const segments = new Float64Array(count * 4);
  const boundaryOf = new Int32Array(count);
  if (count === 0) return { index: null, segments, boundaryOf };
  const index = new Flatbush(count);
  let o = 0;
  for (const [b, line] of boundaries.entries()) {
    for (let i = 0; i + 3 < line.length; i += 2) {
      for (let k = 0; k < 4; k++) segments[o * 4 + k] = line[i + k];
      boundaryOf[o++] = b;
      index.add(
        Math.min(line[i], line[i + 2]),
        Math.min(line[i + 1], line[i + 3]),
        Math.max(line[i], line[i + 2]),
        Math.max(line[i + 1], line[i + 3]),
      );
    }
  }
  index.finish();
  return { index, segments, boundaryOf };
}

/**
 * For every point of a polyline: what lies across on the given side (1: right looking along it, y down; -1: left), at most
 * `reachPx` away. A line that ends where it begins is measured as a ring.
 */
export function measureAcross(line: readonly number[], side: 1 | -1, reachPx: number, crossings: Crossings): Across {
  const n = line.length / 2;
  const closes = line[0] === line[line.length - 2] && line[1] === line[line.length - 1];
  const distances = new Float64Array(n).fill(reachPx);
  const met = new Int32Array(n).fill(-1);
  let near: readonly number[] = [];
  for (let i = 0; i < n; i++) {
    if (i % TOGETHER === 0) near = segmentsNear(line, i, Math.min(n, i + TOGETHER), reachPx, crossings);
    const before = i > 0 ? i - 1 : closes ? n - 2 : 0;
    const after = i < n - 1 ? i + 1 : closes ? 1 : n - 1;
    const dx = line[after * 2] - line[before * 2];
    const dy = line[after * 2 + 1] - line[before * 2 + 1];
    const length = lengthOf(dx, dy);
    if (length === 0) continue;
    const nx = (-dy / length) * side;
    const ny = (dx / length) * side;
    const x = line[i * 2];
    const y = line[i * 2 + 1];
    const segment = firstMet(x, y, nx, ny, reachPx, near, crossings.segments);
    if (segment < 0) continue;
    distances[i] = wayTo(x, y, nx, ny, segment, crossings.segments);
    met[i] = crossings.boundaryOf[segment];
  }
  return { distances, met };
}

/** Segments within reach of points from..to of a line. */
function segmentsNear(
  line: readonly number[],
  from: number,
  to: number,
  reach: number,
  { index }: Crossings,
): readonly number[] {
  if (!index) return [];
  let [left, top, right, bottom] = [line[from * 2], line[from * 2 + 1], line[from * 2], line[from * 2 + 1]];
  for (let i = from + 1; i < to; i++) {
    left = Math.min(left, line[i * 2]);
    right = Math.max(right, line[i * 2]);
    top = Math.min(top, line[i * 2 + 1]);
    bottom = Math.max(bottom, line[i * 2 + 1]);
  }
  return index.search(left - reach, top - reach, right + reach, bottom + reach);
}

/** The first of some segments that a ray from a point meets within `reach`; -1: none. */
function firstMet(
  x: number,
  y: number,
  nx: number,
  ny: number,
  reach: number,
  near: readonly number[],
  segments: Float64Array,
): number {
  const skip = reach * SKIP_SHARE;
  let nearest = reach;
  let segment = -1;
  for (let k = 0; k < near.length; k++) {
    const s = near[k];
    const ax = segments[s * 4];
    const ay = segments[s * 4 + 1];
    const sx = segments[s * 4 + 2] - ax;
    const sy = segments[s * 4 + 3] - ay;
    const cross = nx * sy - ny * sx;
    if (Math.abs(cross) < 1e-12) continue;
    const t = ((ax - x) * sy - (ay - y) * sx) / cross;
    const u = ((ax - x) * ny - (ay - y) * nx) / cross;
    if (t > skip && t < nearest && u >= 0 && u <= 1) {
      nearest = t;
      segment = s;
    }
  }
  return segment;
}

/** How far along a ray a segment is met. */
function wayTo(x: number, y: number, nx: number, ny: number, s: number, segments: Float64Array): number {
  const ax = segments[s * 4];
  const ay = segments[s * 4 + 1];
  const sx = segments[s * 4 + 2] - ax;
  const sy = segments[s * 4 + 3] - ay;
  return ((ax - x) * sy - (ay - y) * sx) / (nx * sy - ny * sx);
}

/** Nothing in a picture changes its width within less, px. */
const LEAST_STEP_PX = 0.25;

/** The polyline with points no farther apart than `stepPx`, or than a quarter of a pixel if that is more. */
export function densify(line: readonly number[], stepPx: number): number[] {
  const step = Math.max(stepPx, LEAST_STEP_PX);
  const out = [line[0], line[1]];
  for (let i = 2; i < line.length; i += 2) {
    const dx = line[i] - line[i - 2];
    const dy = line[i + 1] - line[i - 1];
    const parts = Math.max(1, Math.ceil(lengthOf(dx, dy) / step));
    for (let k = 1; k < parts; k++) out.push(line[i - 2] + (dx * k) / parts, line[i - 1] + (dy * k) / parts);
    out.push(line[i], line[i + 1]);
  }
  return out;
}
