// Fewest cubic segments through a run of boundary points. Least squares with reparametrisation after P. J. Schneider,
// "An algorithm for automatically fitting digitized curves" (Graphics Gems, 1990); each segment is made as long as the
// tolerance allows, and free ends (corners, junctions) keep both control points free.

import { lengthOf } from "../geometry/index.ts";

/** One run's fit: six numbers a segment, as in CubicPath without its first point. */
export type FittedSegments = number[];

const ROUNDS = 5;
/** A direction, or null where the curve may leave as it likes. */
type Tangent = readonly [number, number] | null;

/**
 * Fits points[from..to] (x, y pairs; both ends are kept exactly) within `tolerance` pixels.
 * `startTangent` and `endTangent` point into the curve and out of it where the run goes on smoothly.
 */
export function fitRun(
  points: Float64Array,
  from: number,
  to: number,
  tolerance: number,
  startTangent: Tangent,
  endTangent: Tangent,
): FittedSegments {
  const out: FittedSegments = [];
  let start = from;
  let tangent = startTangent;
  while (start < to) {
    const whole = fitOne(points, start, to, tolerance, tangent, endTangent);
    if (whole) {
      out.push(...whole);
      break;
    }
    // Double, then halve the gap: the number of tries is the logarithm of the segment's length.
    let good = start + 1;
    let best = lineBetween(points, start, good);
    let bad = to;
    for (let step = 4; start + step < to; step *= 2) {
      const tried = fitOne(points, start, start + step, tolerance, tangent, tangentAt(points, start + step, from, to));
      if (!tried) {
        bad = start + step;
        break;
      }
      good = start + step;
      best = tried;
    }
    while (bad - good > 1) {
      const middle = (good + bad) >> 1;
      const tried = fitOne(points, start, middle, tolerance, tangent, tangentAt(points, middle, from, to));
      if (tried) {
        good = middle;
        best = tried;
      } else bad = middle;
    }
    out.push(...best);
    const t = tangentAt(points, good, from, to);
    tangent = t && [-t[0], -t[1]];
    start = good;
  }
  return out;
}

/** Direction of travel at a point inside a run, pointing backwards into the segment that ends there. */
export function tangentAt(points: Float64Array, i: number, from: number, to: number): Tangent {
  const a = Math.max(from, i - 3);
  const b = Math.min(to, i + 3);
  const reach = Math.min(i - a, b - i);
  if (reach === 0) return null;
  const dx = points[(i - reach) * 2] - points[(i + reach) * 2];
  const dy = points[(i - reach) * 2 + 1] - points[(i + reach) * 2 + 1];
  const length = lengthOf(dx, dy);
  return length === 0 ? null : [dx / length, dy / length];
}

function lineBetween(points: Float64Array, i: number, j: number): number[] {
  const x0 = points[i * 2];
  const y0 = points[i * 2 + 1];
  const x1 = points[j * 2];
  const y1 = points[j * 2 + 1];
  return [x0, y0, x1, y1, x1, y1];
}

function isStraight(points: Float64Array, i: number, j: number, tolerance: number): boolean {
  const x0 = points[i * 2];
  const y0 = points[i * 2 + 1];
  const dx = points[j * 2] - x0;
  const dy = points[j * 2 + 1] - y0;
  const length = lengthOf(dx, dy);
  for (let k = i + 1; k < j; k++) {
    const u = points[k * 2] - x0;
    const v = points[k * 2 + 1] - y0;
    const distance = length === 0 ? lengthOf(u, v) : Math.abs(u * dy - v * dx) / length;
    if (distance > tolerance) return false;
  }
  return true;
}

/** Whether a straight line may stand here: it must not break a smooth joint. */
function meetsTangents(points: Float64Array, i: number, j: number, start: Tangent, end: Tangent): boolean {
  const dx = points[j * 2] - points[i * 2];
  const dy = points[j * 2 + 1] - points[i * 2 + 1];
  const length = lengthOf(dx, dy);
  if (length === 0) return false;
  const cosine = 0.998;
  if (start && (start[0] * dx + start[1] * dy) / length < cosine) return false;
  return !(end && -(end[0] * dx + end[1] * dy) / length < cosine);
}

/** One segment for points[i..j], or null if none stays within tolerance. */
function fitOne(
  points: Float64Array,
  i: number,
  j: number,
  tolerance: number,
  start: Tangent,
  end: Tangent,
): number[] | null {
  const n = j - i + 1;
  if (n === 2) return lineBetween(points, i, j);
  if (isStraight(points, i, j, tolerance) && (n < 5 || meetsTangents(points, i, j, start, end)))
    return lineBetween(points, i, j);
  if (n === 3 && !start && !end) return null;
  const u = chordParameters(points, i, j);
  const controls = new Float64Array(4);
  for (let round = 0; round < ROUNDS; round++) {
    if (!solveControls(points, i, j, u, start, end, controls)) return null;
    const worst = worstDistance(points, i, j, u, controls);
    if (worst <= tolerance)
      return isSane(points, i, j, controls)
        ? [controls[0], controls[1], controls[2], controls[3], points[j * 2], points[j * 2 + 1]]
        : null;
    // Reparametrising gains a factor of a few, not of ten.
    if (worst > tolerance * 12) return null;
    reparametrise(points, i, j, u, controls);
  }
  return null;
}

function chordParameters(points: Float64Array, i: number, j: number): Float64Array {
  const u = new Float64Array(j - i + 1);
  for (let k = 1; k < u.length; k++) {
    const p = (i + k) * 2;
    u[k] = u[k - 1] + lengthOf(points[p] - points[p - 2], points[p + 1] - points[p - 1]);
  }
  const total = u[u.length - 1] || 1;
  for (let k = 1; k < u.length; k++) u[k] /= total;
  return u;
}

/**
 * Least-squares control points. With a tangent given, that control point has one degree of freedom along it; without,
 * two. The unknowns are at most four, so the normal equations are solved directly.
 */
function solveControls(
  points: Float64Array,
  i: number,
  j: number,
  u: Float64Array,
  start: Tangent,
  end: Tangent,
  controls: Float64Array,
): boolean {
  const x0 = points[i * 2];
  const y0 = points[i * 2 + 1];
  const x3 = points[j * 2];
  const y3 = points[j * 2 + 1];
  let s11 = 0;
  let s12 = 0;
  let s22 = 0;
  let bx1 = 0;
  let by1 = 0;
  let bx2 = 0;
  let by2 = 0;
  for (let k = 1; k < u.length - 1; k++) {
    const t = u[k];
    const v = 1 - t;
    const w1 = 3 * v * v * t;
    const w2 = 3 * v * t * t;
    const w0 = v * v * v;
    const w3 = t * t * t;
    // What remains for the control points, measured from the ends they belong to.
    const rx = points[(i + k) * 2] - (w0 + w1) * x0 - (w2 + w3) * x3;
    const ry = points[(i + k) * 2 + 1] - (w0 + w1) * y0 - (w2 + w3) * y3;
    s11 += w1 * w1;
    s12 += w1 * w2;
    s22 += w2 * w2;
    bx1 += w1 * rx;
    by1 += w1 * ry;
    bx2 += w2 * rx;
    by2 += w2 * ry;
  }
  const chord = lengthOf(x3 - x0, y3 - y0);
  let ox1: number;
  let oy1: number;
  let ox2: number;
  let oy2: number;
  const determinant = s11 * s22 - s12 * s12;
  if (!start && !end) {
    if (determinant < 1e-12) return false;
    ox1 = (bx1 * s22 - bx2 * s12) / determinant;
    oy1 = (by1 * s22 - by2 * s12) / determinant;
    ox2 = (bx2 * s11 - bx1 * s12) / determinant;
    oy2 = (by2 * s11 - by1 * s12) / determinant;
  } else if (start && end) {
    const cross = s12 * (start[0] * end[0] + start[1] * end[1]);
    const b1 = bx1 * start[0] + by1 * start[1];
    const b2 = bx2 * end[0] + by2 * end[1];
    const d = s11 * s22 - cross * cross;
    let alpha = d < 1e-12 ? chord / 3 : (b1 * s22 - b2 * cross) / d;
    let beta = d < 1e-12 ? chord / 3 : (b2 * s11 - b1 * cross) / d;
    // A control point behind its end makes a loop; Schneider's own fallback.
    if (alpha < chord * 1e-3 || beta < chord * 1e-3) alpha = beta = chord / 3;
    ox1 = alpha * start[0];
    oy1 = alpha * start[1];
    ox2 = beta * end[0];
    oy2 = beta * end[1];
  } else {
    // One end bound: its scale `a` and the other end's free offset. Eliminating the free offset leaves one equation.
    const [tx, ty] = start ?? end ?? [0, 0];
    const sBound = start ? s11 : s22;
    const sFree = start ? s22 : s11;
    const bBound = start ? bx1 * tx + by1 * ty : bx2 * tx + by2 * ty;
    const bFreeX = start ? bx2 : bx1;
    const bFreeY = start ? by2 : by1;
    if (sFree < 1e-12) return false;
    const d = sBound - (s12 * s12) / sFree;
    let a = d < 1e-9 ? chord / 3 : (bBound - (s12 * (bFreeX * tx + bFreeY * ty)) / sFree) / d;
    if (a < chord * 1e-3) a = chord / 3;
    const fx = (bFreeX - s12 * a * tx) / sFree;
    const fy = (bFreeY - s12 * a * ty) / sFree;
    [ox1, oy1, ox2, oy2] = start ? [a * tx, a * ty, fx, fy] : [fx, fy, a * tx, a * ty];
  }
  controls[0] = x0 + ox1;
  controls[1] = y0 + oy1;
  controls[2] = x3 + ox2;
  controls[3] = y3 + oy2;
  return true;
}

/** Control points farther out than the run is long make hooks and loops. */
function isSane(points: Float64Array, i: number, j: number, c: Float64Array): boolean {
  let length = 0;
  for (let k = i + 1; k <= j; k++)
    length += lengthOf(points[k * 2] - points[k * 2 - 2], points[k * 2 + 1] - points[k * 2 - 1]);
  const first = lengthOf(c[0] - points[i * 2], c[1] - points[i * 2 + 1]);
  const last = lengthOf(c[2] - points[j * 2], c[3] - points[j * 2 + 1]);
  const between = lengthOf(c[2] - c[0], c[3] - c[1]);
  return first <= length && last <= length && first + last + between <= length * 1.6 + 1;
}

function worstDistance(points: Float64Array, i: number, j: number, u: Float64Array, c: Float64Array): number {
  const x0 = points[i * 2];
  const y0 = points[i * 2 + 1];
  const x3 = points[j * 2];
  const y3 = points[j * 2 + 1];
  let worst = 0;
  for (let k = 1; k < u.length - 1; k++) {
    const t = u[k];
    const v = 1 - t;
    const a = v * v * v;
    const b = 3 * v * v * t;
    const d = 3 * v * t * t;
    const e = t * t * t;
    const dx = a * x0 + b * c[0] + d * c[2] + e * x3 - points[(i + k) * 2];
    const dy = a * y0 + b * c[1] + d * c[3] + e * y3 - points[(i + k) * 2 + 1];
    const distance2 = dx * dx + dy * dy;
    if (distance2 > worst) worst = distance2;
  }
  return Math.sqrt(worst);
}

/** One Newton step towards each point's nearest parameter (Schneider 1990), kept within 0..1. */
function reparametrise(points: Float64Array, i: number, j: number, u: Float64Array, c: Float64Array): void {
  const x0 = points[i * 2];
  const y0 = points[i * 2 + 1];
  const x3 = points[j * 2];
  const y3 = points[j * 2 + 1];
  for (let k = 1; k < u.length - 1; k++) {
    const t = u[k];
    const v = 1 - t;
    const qx = v * v * v * x0 + 3 * v * v * t * c[0] + 3 * v * t * t * c[2] + t * t * t * x3 - points[(i + k) * 2];
    const qy = v * v * v * y0 + 3 * v * v * t * c[1] + 3 * v * t * t * c[3] + t * t * t * y3 - points[(i + k) * 2 + 1];
    const ux = 3 * (v * v * (c[0] - x0) + 2 * v * t * (c[2] - c[0]) + t * t * (x3 - c[2]));
    const uy = 3 * (v * v * (c[1] - y0) + 2 * v * t * (c[3] - c[1]) + t * t * (y3 - c[3]));
    const wx = 6 * (v * (c[2] - 2 * c[0] + x0) + t * (x3 - 2 * c[2] + c[0]));
    const wy = 6 * (v * (c[3] - 2 * c[1] + y0) + t * (y3 - 2 * c[3] + c[1]));
    const slope = ux * ux + uy * uy + qx * wx + qy * wy;
    if (Math.abs(slope) < 1e-12) continue;
    u[k] = Math.min(1, Math.max(0, t - (qx * ux + qy * uy) / slope));
  }
}
