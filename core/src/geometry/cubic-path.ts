// Chains of cubic Bezier segments in one flat array: the only curve the product knows. A straight segment is one whose
// control points lie on its ends, so that "is this a line?" has an exact answer.

import { lengthOf } from "./vector.ts";

/** x0 y0, then six numbers a segment: control 1, control 2, end. Closed when the last point is the first. */
export type CubicPath = Float64Array;

/** Number of segments. */
export function segmentCount(path: CubicPath): number {
  return (path.length - 2) / 6;
}

/** Whether segment `s` was made as a straight line. */
export function isLine(path: CubicPath, s: number): boolean {
  const o = s * 6;
  return (
    path[o] === path[o + 2] && path[o + 1] === path[o + 3] && path[o + 4] === path[o + 6] && path[o + 5] === path[o + 7]
  );
}

/** The same curve travelled the other way; exactly the same numbers, so a shared edge stays shared. */
export function reversePath(path: CubicPath): CubicPath {
  const out = new Float64Array(path.length);
  for (let i = 0; i < path.length; i += 2) {
    out[i] = path[path.length - 2 - i];
    out[i + 1] = path[path.length - 1 - i];
  }
  return out;
}

/** The curve with every point placed anew by an affine map. */
export function mapPath(path: CubicPath, place: (x: number, y: number) => readonly [number, number]): CubicPath {
  const out = new Float64Array(path.length);
  for (let i = 0; i < path.length; i += 2) out.set(place(path[i], path[i + 1]), i);
  return out;
}

/** The curve turned over about the middle of a width; it turns the other way then. */
export function mirrorPath(path: CubicPath, width: number): CubicPath {
  return path.map((v, i) => (i % 2 === 0 ? width - v : v));
}

/** Paths each of which begins where the one before it ends, as one. */
export function joinPaths(parts: readonly CubicPath[]): CubicPath {
  const out = new Float64Array(parts.reduce((sum, part) => sum + part.length - 2, 2));
  out[0] = parts[0][0];
  out[1] = parts[0][1];
  let o = 2;
  for (const part of parts) {
    out.set(part.subarray(2), o);
    o += part.length - 2;
  }
  return out;
}

/** The path with its ends at these points; a straight segment stays straight, handles stay where they are. */
export function withEnds(path: CubicPath, x0: number, y0: number, x1: number, y1: number): CubicPath {
  const n = path.length;
  if (path[0] === x0 && path[1] === y0 && path[n - 2] === x1 && path[n - 1] === y1) return path;
  const out = path.slice();
  if (isLine(path, 0)) out.set([x0, y0], 2);
  if (isLine(path, segmentCount(path) - 1)) out.set([x1, y1], n - 4);
  out.set([x0, y0], 0);
  out.set([x1, y1], n - 2);
  return out;
}

/** The path with its ends moved to these points, and their handles with them. */
export function moveEnds(path: CubicPath, x0: number, y0: number, x1: number, y1: number): CubicPath {
  const n = path.length;
  const out = withEnds(path, x0, y0, x1, y1).slice();
  const move = (handle: number, node: number, x: number, y: number) => {
    out[handle] = path[handle] + x - path[node];
    out[handle + 1] = path[handle + 1] + y - path[node + 1];
  };
  if (!isLine(path, 0)) move(2, 0, x0, y0);
  if (!isLine(path, segmentCount(path) - 1)) move(n - 4, n - 2, x1, y1);
  return out;
}

/** An open path of straight segments through the points x0 y0 x1 y1 ...; one that ends where it begins is closed. */
export function linePath(points: ArrayLike<number>): CubicPath {
  const path = new Float64Array(3 * points.length - 4);
  path.set([points[0], points[1]]);
  for (let i = 2; i < points.length; i += 2) {
    const o = 3 * i - 4;
    path.set([points[i - 2], points[i - 1], points[i], points[i + 1], points[i], points[i + 1]], o);
  }
  return path;
}

/** A closed path of straight segments through the points x0 y0 x1 y1 ... (without a repeated last point). */
export function polygonPath(points: ArrayLike<number>): CubicPath {
  const n = points.length / 2;
  const path = new Float64Array(2 + 6 * n);
  path[0] = points[0];
  path[1] = points[1];
  for (let i = 0; i < n; i++) {
    const o = 2 + i * 6;
    const next = ((i + 1) % n) * 2;
    path[o] = points[i * 2];
    path[o + 1] = points[i * 2 + 1];
    path[o + 2] = path[o + 4] = points[next];
    path[o + 3] = path[o + 5] = points[next + 1];
  }
  return path;
}

/**
 * Into how many equal steps of its parameter segment `s` is cut so that the polyline stays within `tolerance` of it: the
 * second-difference bound of L. Piegl & W. Tiller, The NURBS Book, as used by most flatteners.
 */
export function flattenSteps(path: CubicPath, s: number, tolerance: number): number {
  if (isLine(path, s)) return 1;
  const o = s * 6;
  const [x0, y0, x1, y1, x2, y2, x3, y3] = path.subarray(o, o + 8);
  const bend = Math.max(lengthOf(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2), lengthOf(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3));
  return Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / tolerance)));
}

/**
 * Points of a polyline that stays within `tolerance` of the path, ends included. Halves of a cubic's own reversal give
 * the same points, so flattening a shared edge from either side gives the same polyline.
 */
export function flattenPath(path: CubicPath, tolerance: number): number[] {
  const out: number[] = [path[0], path[1]];
  const segments = segmentCount(path);
  for (let s = 0; s < segments; s++) {
    const o = s * 6;
    const [x0, y0, x1, y1, x2, y2, x3, y3] = path.subarray(o, o + 8);
    const steps = flattenSteps(path, s, tolerance);
    for (let k = 1; k < steps; k++) {
      const t = k / steps;
      const u = (steps - k) / steps;
      const a = u * u * u;
      const b = 3 * u * u * t;
      const c = 3 * t * t * u;
      const d = t * t * t;
      // Summed from both ends inwards: floating-point addition is then the same for the reversed curve.
      out.push(a * x0 + d * x3 + (b * x1 + c * x2), a * y0 + d * y3 + (b * y1 + c * y2));
    }
    out.push(x3, y3);
  }
  return out;
}

/**
 * The part of segment `s` from parameter `from` to `to` (0..1, either way round) as its two controls and its end: the
 * polar form at those parameters (L. Ramshaw, "Blossoms are polar forms", 1989).
 */
export function subCubic(
  path: CubicPath,
  s: number,
  from: number,
  to: number,
): [number, number, number, number, number, number] {
  return [
    blossom(path, s * 6, from, from, to),
    blossom(path, s * 6 + 1, from, from, to),
    blossom(path, s * 6, from, to, to),
    blossom(path, s * 6 + 1, from, to, to),
    blossom(path, s * 6, to, to, to),
    blossom(path, s * 6 + 1, to, to, to),
  ];
}

/** The polar form of one coordinate of a segment, of which the first lies at `o`. */
function blossom(path: CubicPath, o: number, t1: number, t2: number, t3: number): number {
  const a = mix(path[o], path[o + 2], t1);
  const b = mix(path[o + 2], path[o + 4], t1);
  const c = mix(path[o + 4], path[o + 6], t1);
  return mix(mix(a, b, t2), mix(b, c, t2), t3);
}

function mix(a: number, b: number, t: number): number {
  return (1 - t) * a + t * b;
}

/** Signed area enclosed by a closed path, exact for cubics (Green's theorem); positive when it turns clockwise on screen (y down). */
export function pathArea(path: CubicPath): number {
  let twice = 0;
  for (let o = 0; o + 7 < path.length; o += 6) {
    const [x0, y0, x1, y1, x2, y2, x3, y3] = path.subarray(o, o + 8);
    twice +=
      (6 * (x0 * y1 - x1 * y0) +
        3 * (x0 * y2 - x2 * y0) +
        (x0 * y3 - x3 * y0) +
        3 * (x1 * y2 - x2 * y1) +
        3 * (x1 * y3 - x3 * y1) +
        6 * (x2 * y3 - x3 * y2)) /
      10;
  }
  return twice / 2;
}

/** Whether a path ends where it begins. */
export function isClosed(path: CubicPath): boolean {
  return path[0] === path[path.length - 2] && path[1] === path[path.length - 1];
}

/** What draws: a canvas's path, or whatever else takes these. */
export interface Pen {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
}

/** Draws a path with a pen, from its first point to its last. */
export function drawPath(path: CubicPath, pen: Pen): void {
  pen.moveTo(path[0], path[1]);
  const segments = segmentCount(path);
  for (let s = 0; s < segments; s++) {
    const o = s * 6 + 2;
    if (isLine(path, s)) pen.lineTo(path[o + 4], path[o + 5]);
    else pen.bezierCurveTo(path[o], path[o + 1], path[o + 2], path[o + 3], path[o + 4], path[o + 5]);
  }
}

/** All on-curve points of paths, x, y pairs. */
export function nodesOf(paths: readonly CubicPath[]): Float64Array {
  let n = 0;
  for (const path of paths) n += segmentCount(path) + 1;
  const out = new Float64Array(n * 2);
  let o = 0;
  for (const path of paths)
    for (let i = 0; i < path.length; i += 6) {
      out[o++] = path[i];
      out[o++] = path[i + 1];
    }
  return out;
}

/** SVG path data (SVG 2, 9.3) of a path, closed unless it is said to be open; coordinates with `digits` decimals. */
export function pathToSvg(path: CubicPath, digits: number, closes = true): string {
  const n = (v: number) => trimNumber(v, digits);
  let out = `M${n(path[0])} ${n(path[1])}`;
  const segments = segmentCount(path);
  for (let s = 0; s < segments; s++) {
    const o = s * 6 + 2;
    if (isLine(path, s)) {
      if (s < segments - 1 || !closes) out += `L${n(path[o + 4])} ${n(path[o + 5])}`;
    } else
      out += `C${n(path[o])} ${n(path[o + 1])} ${n(path[o + 2])} ${n(path[o + 3])} ${n(path[o + 4])} ${n(path[o + 5])}`;
  }
  return closes ? `${out}Z` : out;
}

/** A number with at most `digits` decimals and no trailing zeros. */
export function trimNumber(value: number, digits: number): string {
  const steps = 10 ** digits;
  // Adding 0 turns -0 into 0.
  return String(Math.round(value * steps) / steps + 0);
}
