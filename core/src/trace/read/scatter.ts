// How far single points of a boundary scatter about it: compression, grain, little contrast, or a third colour that shows
// between the two. The difference that is taken is blind to lines, to arcs and to a steady change of bend, and the lower
// quartile to corners, beside which half of a letter lies. After P. Eilers' use of differences as a measure of roughness
// (2003); the constants follow from the weights.
import { lengthOf } from "../../geometry/index.ts";

/** The root of the sum of the squared weights 1/4, 1, 3/2, 1, 1/4. */
const WEIGHT = Math.sqrt(2 * (1 / 16 + 1) + 9 / 4);
/** A quarter of normal deviates are nearer to 0 than this. */
const QUARTILE = 0.3186;
/** A boundary may be rough along a part of its length only: it is looked at in stretches of so many points. */
const STRETCH = 48;

/** Fewer points lie beside corners, nearly all of them. */
const LEAST_POINTS = 24;

/** Standard deviation of points (x, y pairs) across their line where it is roughest, px; 0 for too few to say. */
export function scatterOf(points: Float64Array): number {
  const n = points.length / 2;
  if (n < LEAST_POINTS) return 0;
  let most = 0;
  const stretches = Math.max(1, Math.round(n / STRETCH));
  for (let s = 0; s < stretches; s++) {
    const off: number[] = [];
    const end = Math.min(n - 2, Math.floor(((s + 1) * n) / stretches));
    for (let i = Math.max(2, Math.floor((s * n) / stretches)); i < end; i++) {
      const bend = (across(points, i - 1) + across(points, i + 1)) / 2;
      off.push(Math.abs(across(points, i) - bend));
    }
    off.sort((a, b) => a - b);
    if (off.length > 0) most = Math.max(most, off[off.length >> 2] / QUARTILE / WEIGHT);
  }
  return most;
}

/** Signed distance of a point from the chord of its neighbours. */
function across(points: Float64Array, i: number): number {
  const ax = points[i * 2 - 2];
  const ay = points[i * 2 - 1];
  const dx = points[i * 2 + 2] - ax;
  const dy = points[i * 2 + 3] - ay;
  const length = lengthOf(dx, dy);
  if (length === 0) return 0;
  return ((points[i * 2] - ax) * dy - (points[i * 2 + 1] - ay) * dx) / length;
}
