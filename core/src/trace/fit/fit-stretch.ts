// A stretch of boundary points between two corners, junctions or the seam of a loop: straight parts first, curves between them.

import { flattenPath, lengthAlong, lengthOf, linePath } from "../../geometry/index.ts";
import { type FittedSegments, fitCurve, lineBetween, type Stretch } from "./fit-curve.ts";
import { settle, solveControls, type Tangent } from "./segment.ts";
import { findStraights, type Straight, stretchStraight } from "./straights.ts";

/** How far the points of a straight part lie off it, root mean square, as a share of the tolerance. */
const STRAIGHT_SHARE = 0.35;
/** Of a tolerance larger than this, px, no more counts: the flanks of any wave would be straight. */
const MOST_STRAIGHT_PX = 0.3;
/** The same share where a straight part goes on to a junction, which stays where it is and is never quite on its line. */
const TO_END_SHARE = 0.5;
/** A straight part of no more points, between curves, may be an inflection, or a step of a renderer's. */
const SHORT_POINTS = 24;
/** It is one, if fewer segments without it run as near to it as this share of the tolerance. */
const ALONG_SHARE = 0.5;
/** How closely a curve is followed there. */
const FLAT_PX = 0.02;

/**
 * Fits points[from..to] (x, y pairs; both ends are kept exactly) within `tolerance` pixels, with as few segments as that
 * allows and, with that many, as near as can be. Straight parts come first.
 * `startTangent` and `endTangent` point into the curve and out of it where the run goes on smoothly.
 */
export function fitStretch(
  points: Float64Array,
  from: number,
  to: number,
  tolerance: number,
  startTangent: Tangent,
  endTangent: Tangent,
): FittedSegments {
  const whole: Stretch = { points, from, to, startTangent, endTangent };
  const straights = straightParts(whole, tolerance);
  const isDoubtful = (part: Straight) => part.to - part.from <= SHORT_POINTS && part.from > from && part.to < to;
  const sure = straights.filter((part) => !isDoubtful(part));
  const fit = (stretch: Stretch) => fitCurve(stretch, tolerance);
  return fitAround(whole, sure, (stretch) => {
    const doubtful = straights.filter((part) => isDoubtful(part) && part.from >= stretch.from && part.to <= stretch.to);
    if (doubtful.length === 0) return fit(stretch);
    const broken = fitAround(stretch, doubtful, fit);
    const curve = fit(stretch);
    return curve.length < broken.length && doubtful.every((part) => staysOn(part, stretch, curve, tolerance))
      ? curve
      : broken;
  });
}

/** Whether a curve runs along a straight part of its stretch; what lies far from that is another part of the curve. */
function staysOn(part: Straight, { points, from }: Stretch, segments: FittedSegments, tolerance: number): boolean {
  const along = (px: number, py: number) => (px - part.x) * part.dx + (py - part.y) * part.dy;
  const start = along(points[part.from * 2], points[part.from * 2 + 1]);
  const end = along(points[part.to * 2], points[part.to * 2 + 1]);
  const flat = flattenPath(Float64Array.of(points[from * 2], points[from * 2 + 1], ...segments), FLAT_PX);
  for (let i = 0; i < flat.length; i += 2) {
    const a = along(flat[i], flat[i + 1]);
    const off = Math.abs((flat[i] - part.x) * part.dy - (flat[i + 1] - part.y) * part.dx);
    if (a > start && a < end && off > ALONG_SHARE * tolerance && off < 2 * tolerance) return false;
  }
  return true;
}

/** The straight parts of a stretch, up to its free ends where these are not far off them. */
function straightParts(
  { points, from, to, startTangent, endTangent }: Stretch,
  tolerance: number,
): readonly Straight[] {
  const straights = findStraights(points, from, to, Math.min(tolerance, MOST_STRAIGHT_PX) * STRAIGHT_SHARE);
  const lengthen = (k: number, a: number, b: number) => {
    straights[k] = stretchStraight(points, straights[k], a, b, tolerance * TO_END_SHARE, tolerance) ?? straights[k];
  };
  const last = straights.length - 1;
  if (last >= 0 && !startTangent) lengthen(0, from, straights[0].to);
  if (last >= 0 && !endTangent) lengthen(last, straights[last].from, to);
  return straights;
}

/** Straight parts as lines, and what `fit` makes of the stretches between. */
function fitAround(
  whole: Stretch,
  straights: readonly Straight[],
  fit: (stretch: Stretch) => FittedSegments,
): FittedSegments {
  if (straights.length === 0) return fit(whole);
  const { from, to } = whole;
  const points = whole.points.slice();
  for (const straight of straights) {
    if (straight.from > from) pullOnto(points, straight.from, straight);
    if (straight.to < to) pullOnto(points, straight.to, straight);
  }
  const out: FittedSegments = [];
  let at = from;
  let startTangent = whole.startTangent;
  for (const { from: a, to: b, dx, dy } of straights) {
    if (a > at) out.push(...fit({ points, from: at, to: a, startTangent, endTangent: [-dx, -dy] }));
    out.push(...lineBetween([points[a * 2], points[a * 2 + 1]], [points[b * 2], points[b * 2 + 1]]));
    at = b;
    startTangent = [dx, dy];
  }
  if (at < to) out.push(...fit({ points, from: at, to, startTangent, endTangent: whole.endTangent }));
  return out;
}

function pullOnto(points: Float64Array, i: number, { x, y, dx, dy }: Straight): void {
  const along = (points[i * 2] - x) * dx + (points[i * 2 + 1] - y) * dy;
  points[i * 2] = x + along * dx;
  points[i * 2 + 1] = y + along * dy;
}

/** Points (x, y pairs, both ends kept) as one segment, as near as can be; tangents point into it from its ends. */
export function fitOneSegment(points: Float64Array, start: Tangent, end: Tangent): Float64Array {
  const n = points.length;
  const c = new Float64Array(8);
  c.set(points.subarray(0, 2));
  c.set(points.subarray(n - 2), 6);
  const length = lengthAlong(points);
  let travelled = 0;
  const u = new Float64Array(n / 2);
  for (let i = 2; i < n; i += 2) {
    travelled += lengthOf(points[i] - points[i - 2], points[i + 1] - points[i - 1]);
    u[i / 2] = travelled / length;
  }
  const samples = { points, first: 0, u, count: u.length };
  if (!solveControls(samples, start, end, c)) return linePath([c[0], c[1], c[6], c[7]]);
  settle(samples, start, end, c);
  return c;
}
