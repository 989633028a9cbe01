// Places along a path, each one number: the segment's number and its parameter, 0 to 1, added. 2.25 is a quarter into the
// third segment. On a straight segment the parameter is the share of its length.
import { pointOn } from "./arcs.ts";
import { type CubicPath, isLine, joinPaths, linePath, segmentCount, subCubic } from "./cubic-path.ts";
import { lengthOf } from "./vector.ts";

/** Where the nearest point of a path lies, and how far away, px. */
export interface Nearest {
  readonly at: number;
  readonly x: number;
  readonly y: number;
  readonly distance: number;
}

/** The point there. Nodes are exact. */
export function pointAlong(path: CubicPath, at: number): readonly [number, number] {
  const s = Math.floor(at);
  const t = at - s;
  const o = s * 6;
  if (t === 0) return [path[o], path[o + 1]];
  if (!isLine(path, s)) return pointOn(path, s, t);
  return [path[o] + t * (path[o + 6] - path[o]), path[o + 1] + t * (path[o + 7] - path[o + 1])];
}

/** How the point of segment `s` moves with the parameter: first derivative. */
export function velocityOn(path: CubicPath, s: number, t: number): readonly [number, number] {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = path.subarray(s * 6, s * 6 + 8);
  if (isLine(path, s)) return [x3 - x0, y3 - y0];
  const u = 1 - t;
  const [a, b, c] = [3 * u * u, 6 * u * t, 3 * t * t];
  return [a * (x1 - x0) + b * (x2 - x1) + c * (x3 - x2), a * (y1 - y0) + b * (y2 - y1) + c * (y3 - y2)];
}

/**
 * The stretch of a path from one place on to another, split by de Casteljau's scheme; of a closed one also across its first
 * node (`to` beyond the last segment, or before `from`). Whole segments keep every digit, straight ones stay straight.
 */
export function partOfPath(path: CubicPath, from: number, to: number): CubicPath {
  const segments = segmentCount(path);
  if (to > segments) return joinPaths([partOfPath(path, from, segments), partOfPath(path, 0, to - segments)]);
  if (to < from) return joinPaths([partOfPath(path, from, segments), partOfPath(path, 0, to)]);
  if (from === 0 && to === segments) return path;
  const parts: CubicPath[] = [];
  for (let s = Math.floor(from); s < to; s++) {
    const [t0, t1] = [Math.max(0, from - s), Math.min(1, to - s)];
    const o = s * 6;
    if (t0 === 0 && t1 === 1) parts.push(path.subarray(o, o + 8));
    else if (isLine(path, s)) parts.push(linePath([...pointAlong(path, s + t0), ...pointAlong(path, s + t1)]));
    else {
      const start = pointAlong(path, s + t0);
      const [x1, y1, x2, y2] = subCubic(path, s, t0, t1);
      parts.push(Float64Array.from([...start, x1, y1, x2, y2, ...pointAlong(path, s + t1)]));
    }
  }
  if (parts.length === 0) parts.push(linePath([...pointAlong(path, from), ...pointAlong(path, from)]));
  return joinPaths(parts);
}

/** The nearest point of one segment to a place: at an end, or where the way to the place is square to the curve. */
export function nearestOnSegment(path: CubicPath, s: number, x: number, y: number): Nearest {
  if (isLine(path, s)) {
    const o = s * 6;
    return nearestAt(path, s, shareAlong(path[o], path[o + 1], path[o + 6], path[o + 7], x, y), x, y);
  }
  const [x0, y0, x1, y1, x2, y2, x3, y3] = path.subarray(s * 6, s * 6 + 8);
  const slope = [0, 0, 0, 0, 0, 0];
  for (const q of [powersOf(x0 - x, x1 - x, x2 - x, x3 - x), powersOf(y0 - y, y1 - y, y2 - y, y3 - y)])
    for (let i = 0; i <= 3; i++) for (let k = 1; k <= 3; k++) slope[i + k - 1] += q[i] * k * q[k];
  let best = nearestAt(path, s, 0, x, y);
  for (const t of [...unitRoots(slope), 1]) {
    const here = nearestAt(path, s, t, x, y);
    if (here.distance < best.distance) best = here;
  }
  return best;
}

/** A cubic of one coordinate as a polynomial, from the constant on. */
function powersOf(a: number, b: number, c: number, d: number): readonly number[] {
  return [a, 3 * (b - a), 3 * (a - 2 * b + c), d - a + 3 * (b - c)];
}

/** Where a polynomial, from the constant on, changes its sign between 0 and 1: between two turns it does so once at most. */
function unitRoots(polynomial: readonly number[]): number[] {
  if (polynomial.length < 2) return [];
  const stops = [0, ...unitRoots(polynomial.slice(1).map((v, k) => v * (k + 1))), 1];
  const roots: number[] = [];
  for (let k = 0; k + 1 < stops.length; k++) {
    let [low, high] = [stops[k], stops[k + 1]];
    const isRising = valueAt(polynomial, low) < 0;
    if (isRising === valueAt(polynomial, high) < 0) continue;
    // Halved until nothing lies between.
    for (let t = (low + high) / 2; t > low && t < high; t = (low + high) / 2) {
      if (valueAt(polynomial, t) < 0 === isRising) low = t;
      else high = t;
    }
    roots.push(high);
  }
  return roots;
}

function valueAt(polynomial: readonly number[], t: number): number {
  let value = 0;
  for (let k = polynomial.length - 1; k >= 0; k--) value = value * t + polynomial[k];
  return value;
}

/** Where on a chord the nearest point to a place lies, 0 to 1. */
function shareAlong(ax: number, ay: number, bx: number, by: number, x: number, y: number): number {
  const [dx, dy] = [bx - ax, by - ay];
  const square = dx * dx + dy * dy;
  return square === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / square));
}

function nearestAt(path: CubicPath, s: number, t: number, x: number, y: number): Nearest {
  const at = s + t;
  const [px, py] = t === 1 ? [path[s * 6 + 6], path[s * 6 + 7]] : pointAlong(path, at);
  return { at, x: px, y: py, distance: lengthOf(px - x, py - y) };
}

/** The nearest point of a whole path; segments whose controls lie farther than the best so far are passed over. */
export function nearestOnPath(
  path: CubicPath,
  x: number,
  y: number,
  within = Number.POSITIVE_INFINITY,
): Nearest | null {
  let best: Nearest | null = null;
  for (let s = 0; s < segmentCount(path); s++) {
    const reach = best ? best.distance : within;
    if (boxDistance(path, s, x, y) > reach) continue;
    const found = nearestOnSegment(path, s, x, y);
    if (found.distance <= reach && (!best || found.distance < best.distance)) best = found;
  }
  return best;
}

/** How far a place is from the box of a segment's controls: the curve is no nearer. */
function boxDistance(path: CubicPath, s: number, x: number, y: number): number {
  const o = s * 6;
  const left = Math.min(path[o], path[o + 2], path[o + 4], path[o + 6]);
  const right = Math.max(path[o], path[o + 2], path[o + 4], path[o + 6]);
  const top = Math.min(path[o + 1], path[o + 3], path[o + 5], path[o + 7]);
  const bottom = Math.max(path[o + 1], path[o + 3], path[o + 5], path[o + 7]);
  return lengthOf(Math.max(0, left - x, x - right), Math.max(0, top - y, y - bottom));
}
