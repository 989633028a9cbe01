// Where a noisy boundary really runs at one of its points: a parabola through the points around it, by least squares, as
// far along as they lie on one. After A. Savitzky & M. J. E. Golay, "Smoothing and differentiation of data by simplified
// least squares procedures" (Analytical Chemistry, 1964), with the window as wide as the curve allows.
import { lengthOf } from "../../geometry/index.ts";

/** Numbers of points on either side that are tried. */
const REACHES = [12, 9, 6, 4, 3, 2, 1];

/** A place on the boundary and the direction of travel there. */
export interface Guide {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

/**
 * The boundary at point `i` of points[from..to] (x, y pairs), from as many points on either side as lie
 * within `offPx`, root mean square, of one parabola; null beside an end, where too few points are left.
 */
export function guideAt(points: Float64Array, i: number, from: number, to: number, offPx: number): Guide | null {
  const most = Math.min(i - from, to - i, REACHES[0]);
  const way = new Float64Array(2 * most + 1);
  const p = i * 2;
  for (let k = 1; k <= most; k++) {
    const a = p + k * 2;
    way[most + k] = way[most + k - 1] + lengthOf(points[a] - points[a - 2], points[a + 1] - points[a - 1]);
    const b = p - k * 2;
    way[most - k] = way[most - k + 1] - lengthOf(points[b] - points[b + 2], points[b + 1] - points[b + 3]);
  }
  for (const reach of REACHES) {
    if (reach > most) continue;
    const guide = fitParabola(points, i, reach, way, offPx);
    if (guide) return guide;
  }
  return null;
}

/**
 * A parabola over chord length through points[i - reach .. i + reach], read at the middle one; null if they lie farther off
 * it than `offPx`. `way`: the way from point `i`, which is the middle one, to those around it.
 */
function fitParabola(points: Float64Array, i: number, reach: number, way: Float64Array, offPx: number): Guide | null {
  const n = 2 * reach + 1;
  const o = (way.length >> 1) - reach;
  const middle = i * 2;
  const scale = Math.max(way[o + n - 1], -way[o]);
  if (scale === 0) return null;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let s4 = 0;
  let bx0 = 0;
  let bx1 = 0;
  let bx2 = 0;
  let by0 = 0;
  let by1 = 0;
  let by2 = 0;
  for (let k = 0; k < n; k++) {
    const u = way[o + k] / scale;
    const u2 = u * u;
    const x = points[middle + (k - reach) * 2] - points[middle];
    const y = points[middle + (k - reach) * 2 + 1] - points[middle + 1];
    s1 += u;
    s2 += u2;
    s3 += u2 * u;
    s4 += u2 * u2;
    bx0 += x;
    bx1 += x * u;
    bx2 += x * u2;
    by0 += y;
    by1 += y * u;
    by2 += y * u2;
  }
  // The adjugate of the symmetric matrix [[n, s1, s2], [s1, s2, s3], [s2, s3, s4]].
  const a = s2 * s4 - s3 * s3;
  const b = s2 * s3 - s1 * s4;
  const c = s1 * s3 - s2 * s2;
  const d = n * s4 - s2 * s2;
  const e = s1 * s2 - n * s3;
  const f = n * s2 - s1 * s1;
  const determinant = n * a + s1 * b + s2 * c;
  if (determinant < 1e-9) return null;
  const x0 = (a * bx0 + b * bx1 + c * bx2) / determinant;
  const x1 = (b * bx0 + d * bx1 + e * bx2) / determinant;
  const x2 = (c * bx0 + e * bx1 + f * bx2) / determinant;
  const y0 = (a * by0 + b * by1 + c * by2) / determinant;
  const y1 = (b * by0 + d * by1 + e * by2) / determinant;
  const y2 = (c * by0 + e * by1 + f * by2) / determinant;
  let off2 = 0;
  for (let k = 0; k < n; k++) {
    const u = way[o + k] / scale;
    const x = points[middle + (k - reach) * 2] - points[middle] - (x0 + u * (x1 + u * x2));
    const y = points[middle + (k - reach) * 2 + 1] - points[middle + 1] - (y0 + u * (y1 + u * y2));
    off2 += x * x + y * y;
  }
  const speed = lengthOf(x1, y1);
  if (speed === 0) return null;
  if (Math.sqrt(off2 / n) > offPx) return null;
  return { x: points[middle] + x0, y: points[middle + 1] + y0, dx: x1 / speed, dy: y1 / speed };
}
