// Arcs of circles between two corners or junctions.
import { lengthOf } from "../../geometry/index.ts";

/** Fewer points make no arc. */
const LEAST_ARC = 8;
/** An arc flatter than this, by its half chord, is left to the curve's fit: its circle would say nothing. */
const LEAST_SAGITTA = 0.08;

/**
 * The arc of a circle through points[from..to], ends exactly, as segments without the first point; null if a point lies
 * farther from it than `tolerance` or it turns by more than a half. The circle is the one of least algebraic distance
 * among those through both ends.
 */
export function fitArc(points: Float64Array, from: number, to: number, tolerance: number): number[] | null {
  const [x0, y0, x1, y1] = [points[from * 2], points[from * 2 + 1], points[to * 2], points[to * 2 + 1]];
  const half = lengthOf(x1 - x0, y1 - y0) / 2;
  if (half < 1 || to - from < LEAST_ARC) return null;
  const nx = -(y1 - y0) / (2 * half);
  const ny = (x1 - x0) / (2 * half);
  const mx = (x0 + x1) / 2;
  const my = (y0 + y1) / 2;
  let top = 0;
  let bottom = 0;
  for (let i = from + 1; i < to; i++) {
    const u = points[i * 2] - mx;
    const v = points[i * 2 + 1] - my;
    const across = u * nx + v * ny;
    top += (u * u + v * v - half * half) * across;
    bottom += 2 * across * across;
  }
  if (bottom < 1e-6) return null;
  const h = top / bottom;
  const cx = mx + h * nx;
  const cy = my + h * ny;
  const radius = lengthOf(half, h);
  let side = 0;
  for (let i = from + 1; i < to; i++) {
    const u = points[i * 2] - cx;
    const v = points[i * 2 + 1] - cy;
    if (Math.abs(lengthOf(u, v) - radius) > tolerance) return null;
    side += (points[i * 2] - mx) * nx + (points[i * 2 + 1] - my) * ny;
  }
  // The points lie on the short way round if their side of the chord is the one away from the centre.
  const sagitta = radius - Math.abs(h);
  if (side * h > 0 || sagitta < LEAST_SAGITTA * half) return null;
  return arcSegments(x0, y0, x1, y1, cx, cy, radius, side > 0 ? -1 : 1);
}

/** One cubic for up to a right angle, two for up to a half turn. */
function arcSegments(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  cx: number,
  cy: number,
  radius: number,
  turn: number,
): number[] {
  const [ux, uy, vx, vy] = [(x0 - cx) / radius, (y0 - cy) / radius, (x1 - cx) / radius, (y1 - cy) / radius];
  const cosine = ux * vx + uy * vy;
  if (cosine < -0.02) {
    const length = lengthOf(x1 - x0, y1 - y0);
    // The middle of the arc lies across the chord, on the side the way bends to.
    const wx = (turn * (y1 - y0)) / length;
    const wy = (-turn * (x1 - x0)) / length;
    const [px, py] = [cx + wx * radius, cy + wy * radius];
    return [...arcSegments(x0, y0, px, py, cx, cy, radius, turn), ...arcSegments(px, py, x1, y1, cx, cy, radius, turn)];
  }
  // Handle length 4/3 tan(angle / 4) (L. Piegl & W. Tiller, The NURBS Book, on arcs as polynomials).
  const halfCosine = Math.sqrt((1 + cosine) / 2);
  const k = (4 / 3) * Math.sqrt((1 - halfCosine) / (1 + halfCosine)) * radius;
  return [x0 - turn * k * uy, y0 + turn * k * ux, x1 + turn * k * vy, y1 - turn * k * vx, x1, y1];
}
