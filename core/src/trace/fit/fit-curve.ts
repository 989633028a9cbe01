// Fewest cubic segments through points that bend smoothly: each is made as long as the tolerance allows, and free ends
// (corners, junctions) keep both control points free. Then joints are moved, and taken away where that leaves enough.
import { lengthOf } from "../../geometry/index.ts";
import { distanceAcross } from "../read/index.ts";
import { fitArc } from "./arc.ts";
import { guideAt } from "./guide.ts";
import { relaxJoints } from "./relax.ts";
import { farthestOff, fitSegment, offAt, reparametrise, type Samples, settle, type Tangent } from "./segment.ts";

/** One run's fit: six numbers a segment, as in CubicPath without its first point. */
export type FittedSegments = number[];

/** A segment's few unknowns are found from so many of its points; all of them are checked. */
const MOST_SAMPLES = 32;
/** How far points lie off the parabola that guides a joint, as a share of the tolerance. */
const GUIDE_SHARE = 0.3;
/** How often the tolerance is halved towards the least that needs no more segments. */
const TIGHTENINGS = 4;

/** Shares of the tolerance that single segments may take, where fewer then come within it by moving their joints. */
const LOOSER = [2, 1.5, 1.25];
/** The same where two segments are tried as one. */
const LOOSE_MERGED = 2;

/** Length of a first try, where nothing is known. */
const FIRST_POINTS = 8;

/** One segment through points from..to of a run; `samples` of those that its curve was found from, null for a line. */
interface Piece {
  readonly from: number;
  readonly to: number;
  readonly curve: readonly number[];
  readonly samples: Samples | null;
}

interface Curved extends Piece {
  readonly samples: Samples;
}

const isCurved = (piece: Piece | undefined): piece is Curved => Boolean(piece?.samples);

/** Points from..to of a run, x, y pairs, and the directions into it from its ends, where it goes on smoothly. */
export interface Stretch {
  readonly points: Float64Array;
  readonly from: number;
  readonly to: number;
  readonly startTangent: Tangent;
  readonly endTangent: Tangent;
}

/** Where a segment may end, and the directions into the ones that it parts: none where a guide says nothing. */
interface Joint {
  readonly x: number;
  readonly y: number;
  readonly from: Tangent;
  readonly into: Tangent;
}

/** A stretch being fitted. */
interface Run extends Stretch {
  /** Way along the points from the first one of the run to each. */
  readonly along: Float64Array;
  /** The joints so far, from the first point on: from the points around them at first, moved ones as they were moved to. */
  readonly joints: Joint[];
  /** How far points may lie off the parabola that guides a joint. */
  readonly offPx: number;
  /** Sampled points, parameters and curve of the segment that is being tried, written over by every try. */
  readonly sampled: Float64Array;
  readonly u: Float64Array;
  readonly curve: Float64Array;
  /** Parameters of all its points, where they are checked. */
  readonly allU: Float64Array;
}

/**
 * Fits a stretch within `tolerance` pixels, both ends exactly, with as few segments as that allows and, with that many, as
 * near as can be.
 */
export function fitCurve(stretch: Stretch, tolerance: number): FittedSegments {
  const { points, from, to, startTangent, endTangent } = stretch;
  const arc = !startTangent && !endTangent && fitArc(points, from, to, tolerance);
  if (arc) return arc;
  const along = wayAlong(points, from, to);
  const run: Run = {
    ...stretch,
    along,
    joints: [],
    offPx: tolerance * GUIDE_SHARE,
    sampled: new Float64Array((MOST_SAMPLES + 1) * 2),
    u: new Float64Array(MOST_SAMPLES + 1),
    curve: new Float64Array(8),
    allU: new Float64Array(to - from + 1),
  };
  const first = fitGreedily(run, tolerance, []);
  if (first.length === 1) return refine(run, first, tolerance)[0].curve.slice();
  const even = fitEvenly(run, first, tolerance);
  // Between two segments there is but one joint, and without it there was no fit.
  const few = even.length === 2 ? even : mergeSegments(run, fitFewer(run, even, tolerance), tolerance);
  return (relax(run, few, tolerance) ?? refine(run, few, tolerance)).flatMap(({ curve }) => curve);
}

/** Fewer segments that come within `tolerance` once their joints have moved, if there are such. */
function fitFewer(run: Run, pieces: readonly Piece[], tolerance: number): readonly Piece[] {
  for (const share of LOOSER) {
    const tried = fitGreedily(run, tolerance * share, pieces);
    const relaxed = tried.length < pieces.length && relax(run, tried, tolerance);
    if (relaxed) return relaxed;
  }
  return pieces;
}

/** The first segments took all the tolerance there is; the least one that gives as many spreads the error evenly. */
function fitEvenly(run: Run, pieces: readonly Piece[], tolerance: number): readonly Piece[] {
  let best = pieces;
  let tooTight = 0;
  let enough = tolerance;
  for (let k = 0; k < TIGHTENINGS; k++) {
    const tried = fitGreedily(run, (tooTight + enough) / 2, best);
    if (tried.length <= best.length) {
      best = tried;
      enough = (tooTight + enough) / 2;
    } else tooTight = (tooTight + enough) / 2;
  }
  return best;
}

/** Two segments made one wherever that, with the joints beside them moved, stays within `tolerance`. */
function mergeSegments(run: Run, pieces: readonly Piece[], tolerance: number): readonly Piece[] {
  const out = pieces.slice();
  for (let k = 0; k + 1 < out.length; ) {
    const merged = fitOne(run, out[k].from, out[k + 1].to, tolerance * LOOSE_MERGED);
    const first = isCurved(out[k - 1]) ? k - 1 : k;
    const next = isCurved(out[k + 2]) ? k + 3 : k + 2;
    const relaxed = merged && relax(run, [...out.slice(first, k), merged, ...out.slice(k + 2, next)], tolerance);
    if (relaxed) out.splice(first, next - first, ...relaxed);
    k = relaxed ? first : k + 1;
  }
  return out;
}

/** The same segments with the joints between curves moved, which stay so; null if that is not within `tolerance`. */
function relax(run: Run, pieces: readonly Piece[], tolerance: number): readonly Piece[] | null {
  const out: Piece[] = [];
  for (let k = 0; k < pieces.length; ) {
    const part: Curved[] = [];
    for (let piece = pieces[k]; isCurved(piece); piece = pieces[++k]) part.push(piece);
    if (part.length === 0) {
      const line = pieces[k++];
      const { from, to } = line;
      if (!isStraight(run.points, from, to, jointAt(run, from), jointAt(run, to), tolerance)) return null;
      out.push(line);
      continue;
    }
    const curves = part.map((piece) => controlsOf(run, piece));
    const samples = part.map((piece) => ({ ...piece.samples, u: piece.samples.u.slice() }));
    relaxJoints(curves, samples, jointAt(run, part[0].from).from, jointAt(run, part[part.length - 1].to).into);
    for (const [i, piece] of part.entries()) {
      const all = allPoints(run, piece.from, piece.to, samples[i]);
      reparametrise(all, curves[i]);
      if (farthestOff(all, curves[i]) > tolerance || !isSane(run, piece.from, piece.to, curves[i])) return null;
      const [x, y] = [run.points[piece.to * 2], run.points[piece.to * 2 + 1]];
      const isInside = i + 1 < part.length;
      if (isInside && Math.min(offAt(curves[i], x, y, 1), offAt(curves[i + 1], x, y, 0)) > tolerance) return null;
      out.push({ ...piece, curve: segmentOf(curves[i]) });
    }
  }
  for (const [i, { to, curve, samples }] of out.entries()) {
    if (!samples || !isCurved(out[i + 1])) continue;
    const [x, y] = curve.slice(4);
    const length = lengthOf(x - curve[2], y - curve[3]);
    setJoint(run, to, x, y, (x - curve[2]) / length, (y - curve[3]) / length);
  }
  return out;
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
function refine(run: Run, pieces: readonly Piece[], tolerance: number): readonly Piece[] {
  return pieces.map((piece) => {
    if (!isCurved(piece)) return piece;
    const { from, to } = piece;
    const c = controlsOf(run, piece);
    const all = allPoints(run, from, to, piece.samples);
    settle(all, jointAt(run, from).from, jointAt(run, to).into, c);
    const isGood = farthestOff(all, c) <= tolerance && isSane(run, from, to, c);
    return isGood ? { ...piece, curve: segmentOf(c) } : piece;
  });
}

function controlsOf(run: Run, { from, curve }: Piece): Float64Array {
  const { x, y } = jointAt(run, from);
  return Float64Array.of(x, y, ...curve);
}

/** A segment's control points without its first point. */
function segmentOf(c: Float64Array): number[] {
  return [c[2], c[3], c[4], c[5], c[6], c[7]];
}

/** The joint at point `i`: the run's own ends are exact. */
function jointAt(run: Run, i: number): Joint {
  const { points, from, to, startTangent, endTangent, joints, offPx } = run;
  const known = joints[i - from];
  if (known) return known;
  const isEnd = i === from || i === to;
  const guide = isEnd ? null : guideAt(points, i, from, to, offPx);
  if (guide) return setJoint(run, i, guide.x, guide.y, guide.dx, guide.dy);
  const bare: Joint = {
    x: points[i * 2],
    y: points[i * 2 + 1],
    from: i === from ? startTangent : null,
    into: i === to ? endTangent : null,
  };
  joints[i - from] = bare;
  return bare;
}

function setJoint({ joints, from }: Run, i: number, x: number, y: number, dx: number, dy: number): Joint {
  const joint: Joint = { x, y, from: [dx, dy], into: [-dx, -dy] };
  joints[i - from] = joint;
  return joint;
}

/** A straight segment. */
export function lineBetween([x0, y0]: readonly [number, number], [x1, y1]: readonly [number, number]): number[] {
  return [x0, y0, x1, y1, x1, y1];
}

/** Whether all points between i and j lie near the line between two joints. */
function isStraight(points: Float64Array, i: number, j: number, a: Joint, b: Joint, tolerance: number): boolean {
  // A curve is most likely off it halfway.
  if (!isNearLine(points, (i + j) >> 1, a, b, tolerance)) return false;
  for (let k = i + 1; k < j; k++) if (!isNearLine(points, k, a, b, tolerance)) return false;
  return true;
}

function isNearLine(points: Float64Array, k: number, a: Joint, b: Joint, tolerance: number): boolean {
  return distanceAcross(a.x, a.y, b.x, b.y, points[k * 2], points[k * 2 + 1]) <= tolerance;
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
  const { points, curve: c } = run;
  const n = j - i + 1;
  if (n === 2) return linePiece(run, i, j);
  const first = jointAt(run, i);
  const last = jointAt(run, j);
  const { from: start } = first;
  const { into: end } = last;
  if (
    isStraight(points, i, j, first, last, tolerance) &&
    (n < 5 || meetsTangents(last.x - first.x, last.y - first.y, start, end))
  )
    return linePiece(run, i, j);
  if (n === 3 && !start && !end) return null;
  const samples = sampleRun(run, i, j);
  c[0] = first.x;
  c[1] = first.y;
  c[6] = last.x;
  c[7] = last.y;
  if (!fitSegment(samples, start, end, tolerance, c) || !isSane(run, i, j, c)) return null;
  if (samples.count < n) {
    const all = allPoints(run, i, j, samples);
    reparametrise(all, c);
    if (farthestOff(all, c) > tolerance) return null;
  }
  return { from: i, to: j, curve: segmentOf(c), samples: keptSamples(run, samples) };
}

function linePiece(run: Run, from: number, to: number): Piece {
  const a = jointAt(run, from);
  const b = jointAt(run, to);
  return { from, to, curve: lineBetween([a.x, a.y], [b.x, b.y]), samples: null };
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

/**
 * Points i..j of a run, or as many of them as are enough to find the curve, parameters by the way along. They are the run's
 * own until the next try.
 */
function sampleRun({ points, from, along, sampled, u }: Run, i: number, j: number): Samples {
  const start = along[i - from];
  const length = along[j - from] - start || 1;
  if (j - i <= MOST_SAMPLES) {
    for (let p = i; p <= j; p++) u[p - i] = (along[p - from] - start) / length;
    return { points, first: i, u, count: j - i + 1 };
  }
  for (let k = 0; k <= MOST_SAMPLES; k++) {
    const p = sampleAt(k, i, j);
    sampled[k * 2] = points[p * 2];
    sampled[k * 2 + 1] = points[p * 2 + 1];
    u[k] = (along[p - from] - start) / length;
  }
  return { points: sampled, first: 0, u, count: MOST_SAMPLES + 1 };
}

/** Samples that outlive the next try. */
function keptSamples({ sampled }: Run, { points, first, u, count }: Samples): Samples {
  return { points: points === sampled ? sampled.slice() : points, first, u: u.slice(0, count), count };
}

/** Index of the k-th sample of points i..j: every point, or MOST_SAMPLES spaces between as many of them as that takes. */
function sampleAt(k: number, i: number, j: number): number {
  return j - i <= MOST_SAMPLES ? i + k : i + Math.round((k * (j - i)) / MOST_SAMPLES);
}

/** All points of a segment, with parameters between those that its samples have come to; the run's own until the next are asked for. */
function allPoints({ points, from, along, allU: u }: Run, i: number, j: number, samples: Samples): Samples {
  let a = i;
  for (let k = 1; k < samples.count; k++) {
    const b = sampleAt(k, i, j);
    const gained = (samples.u[k] - samples.u[k - 1]) / (along[b - from] - along[a - from] || 1);
    for (let p = a + 1; p <= b; p++) u[p - i] = samples.u[k - 1] + gained * (along[p - from] - along[a - from]);
    a = b;
  }
  return { points, first: i, u, count: j - i + 1 };
}

/** Control points farther out than the run is long make hooks and loops. */
function isSane({ from, along }: Run, i: number, j: number, c: Float64Array): boolean {
  const length = along[j - from] - along[i - from];
  const first = lengthOf(c[2] - c[0], c[3] - c[1]);
  const last = lengthOf(c[6] - c[4], c[7] - c[5]);
  const between = lengthOf(c[4] - c[2], c[5] - c[3]);
  return first > 0 && last > 0 && first <= length && last <= length && first + last + between <= length * 1.6 + 1;
}
