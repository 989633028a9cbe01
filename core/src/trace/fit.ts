// Fewest cubic segments through a run of boundary points: each is made as long as the tolerance allows, and free ends
// (corners, junctions) keep both control points free.

import { lengthOf } from "../geometry/index.ts";
import { fitArc } from "./arc.ts";
import { type Guide, guideAt } from "./guide.ts";
import { farthestOff, fitSegment, reparametrise, type Samples, settle, type Tangent } from "./segment.ts";
import { findStraights, type Straight } from "./straights.ts";

/** One run's fit: six numbers a segment, as in CubicPath without its first point. */
export type FittedSegments = number[];

/** A segment's few unknowns are found from so many of its points; all of them are checked. */
const MOST_SAMPLES = 32;
/** How far points lie off the parabola that guides a joint, as a share of the tolerance. */
const GUIDE_SHARE = 0.3;
/** How often the tolerance is halved towards the least that needs no more segments. */
const TIGHTENINGS = 4;

/** Length of a first try, where nothing is known. */
const FIRST_POINTS = 8;

/** How far the points of a straight part lie off it, root mean square, as a share of the tolerance. */
const STRAIGHT_SHARE = 0.35;

/** One segment through points from..to of a run; `samples` of those that its curve was found from, null for a line. */
interface Piece {
  readonly from: number;
  readonly to: number;
  readonly curve: readonly number[];
  readonly samples: Samples | null;
}

/** A run of boundary points being fitted. */
interface Run {
  readonly points: Float64Array;
  readonly from: number;
  readonly to: number;
  /** Way along the points from the first one of the run to each. */
  readonly along: Float64Array;
  readonly startTangent: Tangent;
  readonly endTangent: Tangent;
  guideOf(i: number): Guide | null;
}

/**
 * Fits points[from..to] (x, y pairs; both ends are kept exactly) within `tolerance` pixels, with as few segments as that
 * allows and, with that many, as near as can be. Straight parts come first.
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
  const straights = findStraights(points, from, to, tolerance * STRAIGHT_SHARE);
  if (straights.length === 0) return fitCurve(points, from, to, tolerance, startTangent, endTangent);
  const line = points.slice();
  for (const straight of straights) {
    if (straight.from > from) pullOnto(line, straight.from, straight);
    if (straight.to < to) pullOnto(line, straight.to, straight);
  }
  const out: FittedSegments = [];
  let at = from;
  let tangent = startTangent;
  for (const { from: a, to: b, dx, dy } of straights) {
    if (a > at) out.push(...fitCurve(line, at, a, tolerance, tangent, [-dx, -dy]));
    out.push(...lineBetween([line[a * 2], line[a * 2 + 1]], [line[b * 2], line[b * 2 + 1]]));
    at = b;
    tangent = [dx, dy];
  }
  if (at < to) out.push(...fitCurve(line, at, to, tolerance, tangent, endTangent));
  return out;
}

function pullOnto(points: Float64Array, i: number, { x, y, dx, dy }: Straight): void {
  const along = (points[i * 2] - x) * dx + (points[i * 2 + 1] - y) * dy;
  points[i * 2] = x + along * dx;
  points[i * 2 + 1] = y + along * dy;
}

/** Fits a run without straight parts. */
function fitCurve(
  points: Float64Array,
  from: number,
  to: number,
  tolerance: number,
  startTangent: Tangent,
  endTangent: Tangent,
): FittedSegments {
  const arc = !startTangent && !endTangent && fitArc(points, from, to, tolerance);
  if (arc) return arc;
  const guides = new Map<number, Guide | null>();
  const guideOf = (i: number): Guide | null => {
    const known = guides.get(i);
    if (known !== undefined) return known;
    const guide = guideAt(points, i, from, to, tolerance * GUIDE_SHARE);
    guides.set(i, guide);
    return guide;
  };
  const run = { points, from, to, along: wayAlong(points, from, to), startTangent, endTangent, guideOf };
  let best = fitGreedily(run, tolerance, []);
  if (best.length === 1) return refine(run, best, tolerance);
  // The first segments took all the tolerance there is; the least one that gives as many spreads the error evenly.
  let tooTight = 0;
  let enough = tolerance;
  for (let k = 0; k < TIGHTENINGS; k++) {
    const tried = fitGreedily(run, (tooTight + enough) / 2, best);
    if (tried.length <= best.length) {
      best = tried;
      enough = (tooTight + enough) / 2;
    } else tooTight = (tooTight + enough) / 2;
  }
  return refine(run, best, enough);
}

/** Segment after segment, each as long as the tolerance allows; joints are looked for from those of `last` on. */
function fitGreedily(run: Run, tolerance: number, last: readonly Piece[]): Piece[] {
  const { to } = run;
  const out: Piece[] = [];
  let start = run.from;
  let ahead = 0;
  while (start < to) {
    while (ahead < last.length && last[ahead].to <= start + 1) ahead++;
    const guess = last[ahead]?.to ?? start + FIRST_POINTS;
    const longest = fitOne(run, start, to, tolerance) ?? fitLongest(run, start, tolerance, guess);
    out.push(longest);
    start = longest.to;
  }
  return out;
}

/** The longest segment that begins at point `start`. The number of tries is the logarithm of how far off the guess is. */
function fitLongest(run: Run, start: number, tolerance: number, guess: number): Piece {
  let good = start + 1;
  let bad = run.to;
  let best: Piece | null = null;
  const isGood = (end: number): boolean => {
    const tried = fitOne(run, start, end, tolerance);
    if (tried) {
      good = end;
      best = tried;
    } else bad = end;
    return tried !== null;
  };
  let step = Math.max(1, (guess - start) >> 2);
  if (guess < bad && isGood(guess)) {
    for (; good + step < bad && isGood(good + step); step *= 2);
  } else {
    for (; bad - step > good && !isGood(bad - step); step *= 2);
  }
  while (bad - good > 1) isGood((good + bad) >> 1);
  return best ?? linePiece(run, start, good);
}

/** Each segment as near to all its points as it comes without leaving `tolerance`. */
function refine(run: Run, pieces: readonly Piece[], tolerance: number): FittedSegments {
  return pieces.flatMap(({ from, to, curve, samples }) => {
    if (!samples) return curve;
    const [x0, y0] = endAt(run, from);
    const c = Float64Array.of(x0, y0, ...curve);
    const all = allPoints(run, from, to, samples);
    settle(all, tangentFrom(run, from), tangentInto(run, to), c);
    return farthestOff(all, c) <= tolerance && isSane(run, from, to, c) ? [...c.subarray(2)] : curve;
  });
}

/** Where a segment that ends at point `i` ends: the run's own ends are exact. */
function endAt(run: Run, i: number): readonly [number, number] {
  const guide = i === run.from || i === run.to ? null : run.guideOf(i);
  return guide ? [guide.x, guide.y] : [run.points[i * 2], run.points[i * 2 + 1]];
}

/** Direction into a segment that starts at point `i`. */
function tangentFrom(run: Run, i: number): Tangent {
  if (i === run.from) return run.startTangent;
  const guide = run.guideOf(i);
  return guide && [guide.dx, guide.dy];
}

/** Direction back into a segment that ends at point `i`. */
function tangentInto(run: Run, i: number): Tangent {
  if (i === run.to) return run.endTangent;
  const guide = run.guideOf(i);
  return guide && [-guide.dx, -guide.dy];
}

function lineBetween([x0, y0]: readonly [number, number], [x1, y1]: readonly [number, number]): number[] {
  return [x0, y0, x1, y1, x1, y1];
}

/** Whether all points between i and j lie near the line from (x0, y0) to (x1, y1). */
function isStraight(
  points: Float64Array,
  i: number,
  j: number,
  [x0, y0]: readonly [number, number],
  [x1, y1]: readonly [number, number],
  tolerance: number,
): boolean {
  const dx = x1 - x0;
  const dy = y1 - y0;
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
function meetsTangents(dx: number, dy: number, start: Tangent, end: Tangent): boolean {
  const length = lengthOf(dx, dy);
  if (length === 0) return false;
  const cosine = 0.998;
  if (start && (start[0] * dx + start[1] * dy) / length < cosine) return false;
  return !(end && -(end[0] * dx + end[1] * dy) / length < cosine);
}

/** One segment for points[i..j], or null if none stays within tolerance. */
function fitOne(run: Run, i: number, j: number, tolerance: number): Piece | null {
  const { points } = run;
  const n = j - i + 1;
  if (n === 2) return linePiece(run, i, j);
  const first = endAt(run, i);
  const last = endAt(run, j);
  const start = tangentFrom(run, i);
  const end = tangentInto(run, j);
  if (
    isStraight(points, i, j, first, last, tolerance) &&
    (n < 5 || meetsTangents(last[0] - first[0], last[1] - first[1], start, end))
  )
    return linePiece(run, i, j);
  if (n === 3 && !start && !end) return null;
  const samples = sampleRun(run, i, j);
  const c = Float64Array.of(first[0], first[1], 0, 0, 0, 0, last[0], last[1]);
  if (!fitSegment(samples, start, end, tolerance, c) || !isSane(run, i, j, c)) return null;
  if (samples.u.length < n) {
    const all = allPoints(run, i, j, samples);
    reparametrise(all, c);
    if (farthestOff(all, c) > tolerance) return null;
  }
  return { from: i, to: j, curve: [...c.subarray(2)], samples };
}

function linePiece(run: Run, from: number, to: number): Piece {
  return { from, to, curve: lineBetween(endAt(run, from), endAt(run, to)), samples: null };
}

/** Way along points[from..to] from the first to each. */
function wayAlong(points: Float64Array, from: number, to: number): Float64Array {
  const along = new Float64Array(to - from + 1);
  for (let k = 1; k < along.length; k++) {
    const p = (from + k) * 2;
    along[k] = along[k - 1] + lengthOf(points[p] - points[p - 2], points[p + 1] - points[p - 1]);
  }
  return along;
}

/** Points i..j of a run, or as many of them as are enough to find the curve, parameters by the way along. */
function sampleRun({ points, from, along }: Run, i: number, j: number): Samples {
  const n = Math.min(j - i, MOST_SAMPLES) + 1;
  const start = along[i - from];
  const length = along[j - from] - start || 1;
  const out = new Float64Array(n * 2);
  const u = new Float64Array(n);
  for (let k = 0; k < n; k++) {
    const p = sampleAt(k, i, j, n);
    out[k * 2] = points[p * 2];
    out[k * 2 + 1] = points[p * 2 + 1];
    u[k] = (along[p - from] - start) / length;
  }
  return { points: out, u };
}

/** Index of the k-th of n samples of points i..j. */
function sampleAt(k: number, i: number, j: number, n: number): number {
  return i + Math.round((k * (j - i)) / (n - 1));
}

/** All points i..j of a run, with parameters between those that its samples have come to. */
function allPoints({ points, from, along }: Run, i: number, j: number, samples: Samples): Samples {
  const n = samples.u.length;
  const u = new Float64Array(j - i + 1);
  for (let k = 1; k < n; k++) {
    const a = sampleAt(k - 1, i, j, n);
    const b = sampleAt(k, i, j, n);
    const gained = (samples.u[k] - samples.u[k - 1]) / (along[b - from] - along[a - from] || 1);
    for (let p = a + 1; p <= b; p++) u[p - i] = samples.u[k - 1] + gained * (along[p - from] - along[a - from]);
  }
  return { points: points.subarray(i * 2, j * 2 + 2), u };
}

/** Control points farther out than the run is long make hooks and loops. */
function isSane({ from, along }: Run, i: number, j: number, c: Float64Array): boolean {
  const length = along[j - from] - along[i - from];
  const first = lengthOf(c[2] - c[0], c[3] - c[1]);
  const last = lengthOf(c[6] - c[4], c[7] - c[5]);
  const between = lengthOf(c[4] - c[2], c[5] - c[3]);
  return first <= length && last <= length && first + last + between <= length * 1.6 + 1;
}
