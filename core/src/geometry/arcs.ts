// Curves as lines and arcs of circles, for machines and files that know nothing else.
import { type CubicPath, isLine, segmentCount } from "./cubic-path.ts";
import { lengthOf } from "./vector.ts";

export interface Circle {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** Handle length of a quarter circle of radius 1 as one cubic: 4/3 (sqrt 2 - 1), radial error below 0.03 %. */
export const QUARTER_HANDLE = (4 / 3) * (Math.SQRT2 - 1);

/** How far, of its radius, a circle's four cubics may lie off it: theirs is 0.03 % by nature. */
const CIRCLE_OFF = 1e-3;
/** A curve is halved at most so often. */
const DEEPEST = 10;

/** The circle that a closed path of four cubics stands for, or null. */
export function asCircle(path: CubicPath): Circle | null {
  if (segmentCount(path) !== 4 || path[0] !== path[24] || path[1] !== path[25]) return null;
  const x = (path[0] + path[6] + path[12] + path[18]) / 4;
  const y = (path[1] + path[7] + path[13] + path[19]) / 4;
  const radius = lengthOf(path[0] - x, path[1] - y);
  for (let s = 0; s < 4; s++)
    for (const t of [0, 0.25, 0.5, 0.75]) {
      const [px, py] = pointOn(path, s, t);
      if (Math.abs(lengthOf(px - x, py - y) - radius) > CIRCLE_OFF * radius) return null;
    }
  return { x, y, radius };
}

/** A point of segment `s` at parameter `t` (Bernstein form). */
export function pointOn(path: CubicPath, s: number, t: number): readonly [number, number] {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = path.subarray(s * 6, s * 6 + 8);
  const u = 1 - t;
  const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return [a * x0 + b * x1 + c * x2 + d * x3, a * y0 + b * y1 + c * y2 + d * y3];
}

/**
 * Lines and arcs that stay within `tolerance` of a path: for each of them its start, x and y, and its bulge, the tangent
 * of a quarter of its angle, 0 for a line and positive where it turns from the x axis towards the y axis; then the end, x
 * and y. An arc goes through the ends and the middle of the piece of curve that it stands for.
 */
export function flattenToArcs(path: CubicPath, tolerance: number): number[] {
  const out: number[] = [];
  for (let s = 0; s < segmentCount(path); s++) {
    if (isLine(path, s)) out.push(path[s * 6], path[s * 6 + 1], 0);
    else addArcs(path, s, 0, 1, tolerance, 0, out);
  }
  out.push(path[path.length - 2], path[path.length - 1]);
  return out;
}

function addArcs(
  path: CubicPath,
  s: number,
  from: number,
  to: number,
  tolerance: number,
  depth: number,
  out: number[],
): void {
  const [x0, y0] = pointOn(path, s, from);
  const [x1, y1] = pointOn(path, s, to);
  const middle = (from + to) / 2;
  const bulge = bulgeThrough(x0, y0, pointOn(path, s, middle), x1, y1);
  let isNear = bulge !== null;
  for (const share of [0.125, 0.25, 0.375, 0.625, 0.75, 0.875]) {
    if (bulge === null || !isNear) break;
    isNear = offArc(x0, y0, x1, y1, bulge, pointOn(path, s, from + share * (to - from))) <= tolerance;
  }
  if (isNear || depth === DEEPEST) {
    out.push(x0, y0, bulge ?? 0);
    return;
  }
  addArcs(path, s, from, middle, tolerance, depth + 1, out);
  addArcs(path, s, middle, to, tolerance, depth + 1, out);
}

/** Bulge of the arc from one point through a second to a third; null where it would be more than a half turn. */
function bulgeThrough(
  x0: number,
  y0: number,
  [px, py]: readonly [number, number],
  x1: number,
  y1: number,
): number | null {
  // The angle at the middle point, seen from the ends, is half a turn less half the arc's angle.
  const [ax, ay, bx, by] = [px - x0, py - y0, x1 - px, y1 - py];
  const cross = ax * by - ay * bx;
  const dot = ax * bx + ay * by;
  const length = lengthOf(cross, dot);
  if (length === 0 || dot < 0) return length === 0 ? 0 : null;
  // Half of the arc's angle has this sine and cosine; its half's tangent is the bulge.
  return cross / (length + dot);
}

/** Distance of a point from an arc's circle, or from the line. */
function offArc(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  bulge: number,
  [px, py]: readonly [number, number],
): number {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const chord = lengthOf(dx, dy);
  if (chord === 0) return lengthOf(px - x0, py - y0);
  if (Math.abs(bulge) < 1e-9) return Math.abs((px - x0) * dy - (py - y0) * dx) / chord;
  const h = (chord * (1 - bulge * bulge)) / (4 * bulge);
  const cx = (x0 + x1) / 2 - (h * dy) / chord;
  const cy = (y0 + y1) / 2 + (h * dx) / chord;
  const radius = (chord * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
  return Math.abs(lengthOf(px - cx, py - cy) - radius);
}
