// Full circles: a closed boundary that is one keeps its centre and radius, whatever the pixels did to it.
import { type CubicPath, lengthOf, QUARTER_HANDLE } from "../../geometry/index.ts";

/**
 * The circle through closed boundary points (x, y pairs) as four cubics, or null if a point lies farther from it than
 * `tolerance`. Direction follows the points. Fit: I. Kasa, "A circle fitting procedure and its error analysis" (IEEE Trans.
 * Instrumentation and Measurement, 1976), which is unbiased enough on points all round.
 */
export function fitCircle(points: Float64Array, tolerance: number): CubicPath | null {
  const n = points.length / 2;
  if (n < 6) return null;
  let mx = 0;
  let my = 0;
  for (let i = 0; i < n; i++) {
    mx += points[i * 2];
    my += points[i * 2 + 1];
  }
  mx /= n;
  my /= n;
  let uu = 0;
  let uv = 0;
  let vv = 0;
  let uz = 0;
  let vz = 0;
  for (let i = 0; i < n; i++) {
    const u = points[i * 2] - mx;
    const v = points[i * 2 + 1] - my;
    const z = u * u + v * v;
    uu += u * u;
    uv += u * v;
    vv += v * v;
    uz += u * z;
    vz += v * z;
  }
  const determinant = uu * vv - uv * uv;
  if (determinant < 1e-9) return null;
  const cu = (uz * vv - vz * uv) / (2 * determinant);
  const cv = (vz * uu - uz * uv) / (2 * determinant);
  const radius = Math.sqrt(cu * cu + cv * cv + (uu + vv) / n);
  const cx = mx + cu;
  const cy = my + cv;
  let twiceArea = 0;
  for (let i = 0; i < n; i++) {
    const j = (i + 1) % n;
    if (Math.abs(lengthOf(points[i * 2] - cx, points[i * 2 + 1] - cy) - radius) > tolerance) return null;
    twiceArea += points[i * 2] * points[j * 2 + 1] - points[j * 2] * points[i * 2 + 1];
  }
  return circlePath(cx, cy, radius, twiceArea > 0);
}

/** A circle from its rightmost point; clockwise on screen (y down) if `clockwise`. */
export function circlePath(cx: number, cy: number, radius: number, clockwise: boolean): CubicPath {
  const s = clockwise ? 1 : -1;
  const k = QUARTER_HANDLE * radius;
  const r = radius;
  return Float64Array.of(
    cx + r,
    cy,
    cx + r,
    cy + s * k,
    cx + k,
    cy + s * r,
    cx,
    cy + s * r,
    cx - k,
    cy + s * r,
    cx - r,
    cy + s * k,
    cx - r,
    cy,
    cx - r,
    cy - s * k,
    cx - k,
    cy - s * r,
    cx,
    cy - s * r,
    cx + k,
    cy - s * r,
    cx + r,
    cy - s * k,
    cx + r,
    cy,
  );
}
