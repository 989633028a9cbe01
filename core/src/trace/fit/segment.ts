// One cubic through sample points, by least squares with reparametrisation after P. J. Schneider, "An algorithm for
// automatically fitting digitized curves" (Graphics Gems, 1990).
import { lengthOf } from "../../geometry/index.ts";

/** Rounds of fitting, and how many times too far off a curve may be at each: reparametrising gains a factor of two or so. */
const HOPE = [20, 12, 8, 6, 5, 4, 3, 3, 2, 1];

/** A curve as near as this share of the tolerance is taken without further rounds. */
const NEAR_ENOUGH = 0.8;
/** One that is within the tolerance and gained no more than this share of it in its last round is there. */
const SETTLED = 0.02;
/** Rounds of settling. */
const ROUNDS = 6;

/** A direction, or null where the curve may leave as it likes. */
export type Tangent = readonly [number, number] | null;

/** `count` points that a segment is fitted to, x, y pairs from point `first` on, and the parameter of each on the segment. */
export interface Samples {
  readonly points: Float64Array;
  readonly first: number;
  readonly u: Float64Array;
  readonly count: number;
}

/**
 * Finds the control points of `c` (eight numbers, of which the first and last two are given) so that all samples lie within
 * `tolerance`, moving their parameters; false if that cannot be. `start` and `end` point into the segment from its ends.
 */
export function fitSegment(
  samples: Samples,
  start: Tangent,
  end: Tangent,
  tolerance: number,
  c: Float64Array,
): boolean {
  let before = Number.POSITIVE_INFINITY;
  let lastGain = Number.POSITIVE_INFINITY;
  for (let round = 0; round < HOPE.length; round++) {
    if (!solveControls(samples, start, end, c)) return false;
    const off = reparametrise(samples, c);
    if (off > tolerance * HOPE[round]) return false;
    const gain = before - off;
    if (off <= tolerance * (gain < tolerance * SETTLED ? 1 : NEAR_ENOUGH)) return true;
    // Rounds gain less and less, if not always at once.
    if (round > 1 && off - Math.max(gain, lastGain, 0) * (HOPE.length - 1 - round) > tolerance) return false;
    before = off;
    lastGain = gain;
  }
  return true;
}

/** Brings the segment as near to all its samples, by least squares, as a few more rounds do. */
export function settle(samples: Samples, start: Tangent, end: Tangent, c: Float64Array): void {
  for (let round = 0; round < ROUNDS; round++) {
    reparametrise(samples, c);
    if (!solveControls(samples, start, end, c)) return;
  }
  reparametrise(samples, c);
}

/**
 * Least-squares control points. With a tangent given, that control point has one degree of freedom along it; without,
 * two. The unknowns are at most four, so the normal equations are solved directly.
 */
export function solveControls(
  { points, first, u, count }: Samples,
  start: Tangent,
  end: Tangent,
  c: Float64Array,
): boolean {
  const x0 = c[0];
  const y0 = c[1];
  const x3 = c[6];
  const y3 = c[7];
  let s11 = 0;
  let s12 = 0;
  let s22 = 0;
  let bx1 = 0;
  let by1 = 0;
  let bx2 = 0;
  let by2 = 0;
  for (let k = 1, p = (first + 1) * 2; k < count - 1; k++, p += 2) {
    const t = u[k];
    const v = 1 - t;
    const w1 = 3 * v * v * t;
    const w2 = 3 * v * t * t;
    // What remains for the control points, measured from the ends they belong to: the last end's two weights make one.
    const last = t * t * t + w2;
    const rx = points[p] - x0 - last * (x3 - x0);
    const ry = points[p + 1] - y0 - last * (y3 - y0);
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
    const bound = start ?? end;
    const tx = bound ? bound[0] : 0;
    const ty = bound ? bound[1] : 0;
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
    ox1 = start ? a * tx : fx;
    oy1 = start ? a * ty : fy;
    ox2 = start ? fx : a * tx;
    oy2 = start ? fy : a * ty;
  }
  c[2] = x0 + ox1;
  c[3] = y0 + oy1;
  c[4] = x3 + ox2;
  c[5] = y3 + oy2;
  return true;
}

/** Largest distance of a point from the place on the segment that its parameter names. */
export function farthestOff(samples: Samples, c: Float64Array): number {
  return measure(samples, c, false);
}

/** Distance of one point from the segment, near parameter `t`. */
export function offAt(c: Float64Array, x: number, y: number, t: number): number {
  const one = { points: Float64Array.of(0, 0, x, y, 0, 0), first: 0, u: Float64Array.of(0, t, 1), count: 3 };
  for (let round = 0; round < ROUNDS; round++) reparametrise(one, c);
  return farthestOff(one, c);
}

/**
 * One Newton step towards each point's nearest parameter (Schneider 1990), kept within 0..1. Returns how far off the
 * farthest point was before.
 */
export function reparametrise(samples: Samples, c: Float64Array): number {
  return measure(samples, c, true);
}

/** Both of these: the innermost loop of all tracing, with the segment as the three coefficients of each coordinate. */
function measure({ points, first, u, count }: Samples, c: Float64Array, isMoving: boolean): number {
  const x0 = c[0];
  const y0 = c[1];
  const x1 = 3 * (c[2] - x0);
  const y1 = 3 * (c[3] - y0);
  const x2 = 3 * (c[4] - c[2]) - x1;
  const y2 = 3 * (c[5] - c[3]) - y1;
  const x3 = c[6] - x0 - x1 - x2;
  const y3 = c[7] - y0 - y1 - y2;
  let most = 0;
  for (let k = 1, p = (first + 1) * 2; k < count - 1; k++, p += 2) {
    const t = u[k];
    const qx = ((x3 * t + x2) * t + x1) * t + (x0 - points[p]);
    const qy = ((y3 * t + y2) * t + y1) * t + (y0 - points[p + 1]);
    const off = qx * qx + qy * qy;
    if (off > most) most = off;
    if (!isMoving) continue;
    const ux = (3 * x3 * t + 2 * x2) * t + x1;
    const uy = (3 * y3 * t + 2 * y2) * t + y1;
    const slope = ux * ux + uy * uy + qx * (6 * x3 * t + 2 * x2) + qy * (6 * y3 * t + 2 * y2);
    if (Math.abs(slope) < 1e-12) continue;
    const next = t - (qx * ux + qy * uy) / slope;
    u[k] = next > 0 ? Math.min(next, 1) : 0;
  }
  return Math.sqrt(most);
}
