// Corners of a boundary: where two straight-looking sides meet in a point that no small arc explains. Our own method.

import { cosineBetween, lengthOf, tanOfQuarter } from "../../geometry/index.ts";
import { distanceToSegment } from "./line-distance.ts";
import { offsetIndex } from "./offset-index.ts";
import { fitSide, type Side, touchingLine } from "./side.ts";
import { findStemEnds, type Place } from "./stem-ends.ts";

/** Points on either side from which a turn is seen. */
const REACH = 3;
/** Points that do not scatter show strong turns, of 60 degrees or more, from nearer: no curve of 2 px or more turns so. */
const EXACT_REACH = 2;
const STRONG_COSINE = 0.5;
/** Sides of a corner bend by no more than this over such a span, px: an arc of 9 px does. Points in a span. */
const MOST_BEND_PX = 0.12;
const BEND_SPAN_PX = 3;
const MOST_BEND_POINTS = 9;
/** Points on each side of a candidate that are trusted; the ones next to it are rounded off by the pixel's aperture. */
const SKIP = 1;
const SIDE = 4;
/** Longer sides say more of where they go, if their points lie on a line or parabola as near as this, root mean square. */
const LONG_SIDES = [16, 11, 7];
const ON_SIDE_PX = 0.05;
/** Points that lie farther off than this are partly round the next corner, as at the end of a thin stem: fewer are asked. */
const OFF_SIDE_PX = 0.12;
/** A corner may lie at most this far (px) outside the polyline: the aperture cuts no more off. */
const MAX_REACH_PX = 1.3;
/** Sides that bend meet where the lines do that touch them there: found in a few steps. */
const STEPS = 4;

/** A polyline with its corners sharpened, and the indices of those corners. */
export interface CorneredLine {
  readonly points: Float64Array;
  readonly corners: readonly number[];
}

/**
 * Finds corners in a polyline of points about a pixel apart (x, y pairs; `isLoop`: the last joins the first) and puts
 * each where its two sides meet, leaving out the rounded points beside it. `cosine`: that of the smallest
 * turn that is a corner; smaller ones are part of a curve. `isExact`: the points do not scatter, so that corners are seen
 * nearer to each other, as at the end of a thin stem.
 */
export function sharpenCorners(points: Float64Array, isLoop: boolean, cosine: number, isExact = false): CorneredLine {
  const n = points.length / 2;
  if (n < 5) return { points, corners: [] };
  const turns = turnsOf(points, n, isLoop, REACH);
  const at = isExact ? findStemEnds(points, turns, isLoop) : new Map<number, readonly Place[]>();
  const isFree = (i: number) => [-2, -1, 0, 1, 2].every((k) => !at.has(offsetIndex(i, k, n, isLoop)));
  const near = isExact ? turnsOf(points, n, isLoop, EXACT_REACH) : turns;
  const strong = isExact ? sharpest(near, n, isLoop, STRONG_COSINE).filter(isFree) : [];
  const roomOf = countRoom([...at.keys(), ...strong], n, isLoop);
  const add = (i: number, turn: number) => {
    const tip = cornerTip(points, n, i, isLoop, turn, cosine, roomOf(i));
    if (tip) at.set(i, [tip]);
  };
  for (const i of strong) add(i, near[i]);
  for (const i of sharpest(turns, n, isLoop, cosine))
    if (isFree(i) && !(isExact && isRound(points, n, i, isLoop))) add(i, turns[i]);
  if (at.size === 0) return { points, corners: [] };
  const out: number[] = [];
  const corners: number[] = [];
  for (let i = 0; i < n; i++) {
    const tips = at.get(i);
    if (tips) {
      for (const [x, y] of tips) {
        corners.push(out.length / 2);
        out.push(x, y);
      }
      continue;
    }
    const isBesideCorner = at.has(wrap(i - 1, n, isLoop)) || at.has(wrap(i + 1, n, isLoop));
    const isEnd = !isLoop && (i === 0 || i === n - 1);
    if (!isBesideCorner || isEnd) out.push(points[i * 2], points[i * 2 + 1]);
  }
  return { points: Float64Array.from(out), corners };
}

/** Cosine of the turn at every point. */
function turnsOf(points: Float64Array, n: number, isLoop: boolean, reach: number): Float64Array {
  const turns = new Float64Array(n);
  for (let i = 0; i < n; i++) turns[i] = turnAt(points, n, i, isLoop, reach);
  return turns;
}

/** Points at which the turn is at least that of `cosine`, and sharper than around them. */
function sharpest(turns: Float64Array, n: number, isLoop: boolean, cosine: number): number[] {
  const out: number[] = [];
  for (let i = 0; i < n; i++) if (turns[i] <= cosine && isSharpestAround(turns, n, i, isLoop)) out.push(i);
  return out;
}

/** Counts the points between any point and the nearest of `some` before and after it: more than there are for none. */
function countRoom(some: readonly number[], n: number, isLoop: boolean): (i: number) => readonly [number, number] {
  const sorted = [...some].sort((a, b) => a - b);
  const all = isLoop ? [...sorted.map((k) => k - n), ...sorted, ...sorted.map((k) => k + n)] : sorted;
  const after = new Int32Array(n).fill(n);
  const before = new Int32Array(n).fill(n);
  for (let k = 0; k < all.length; k++) {
    const [from, to] = [all[k], all[k + 1] ?? n];
    for (let i = Math.max(0, from + 1); i <= Math.min(n - 1, to); i++) before[i] = i - from - 1;
  }
  for (let k = all.length - 1; k >= 0; k--) {
    const [from, to] = [all[k - 1] ?? -1, all[k]];
    for (let i = Math.max(0, from); i < Math.min(n, to); i++) after[i] = to - i - 1;
  }
  return (i) => [before[i], after[i]];
}

function wrap(i: number, n: number, isLoop: boolean): number {
  return isLoop ? (i + n) % n : i;
}

/** Cosine of the turn at a point; 1 where there is none. */
function turnAt(points: Float64Array, n: number, i: number, isLoop: boolean, most: number): number {
  let reach = Math.min(most, Math.floor(n / 3));
  if (!isLoop) reach = Math.min(reach, i, n - 1 - i);
  if (reach < 1) return 1;
  const a = offsetIndex(i, -reach, n, isLoop) * 2;
  const b = offsetIndex(i, reach, n, isLoop) * 2;
  const x = points[i * 2];
  const y = points[i * 2 + 1];
  return cosineBetween(x - points[a], y - points[a + 1], points[b] - x, points[b + 1] - y);
}

function isSharpestAround(turns: Float64Array, n: number, i: number, isLoop: boolean): boolean {
  for (let k = -2; k <= 2; k++) {
    const j = offsetIndex(i, k, n, isLoop);
    if (j < 0 || k === 0) continue;
    if (turns[j] < turns[i] || (turns[j] === turns[i] && k < 0)) return false;
  }
  return true;
}

/** Whether the turn at point `i` goes on beside it: a side bends the same way, more than points that do not scatter can. */
function isRound(points: Float64Array, n: number, i: number, isLoop: boolean): boolean {
  const before = offsetIndex(i, -1, n, isLoop) * 2;
  const after = offsetIndex(i, 1, n, isLoop) * 2;
  const ux = points[i * 2] - points[before];
  const uy = points[i * 2 + 1] - points[before + 1];
  const turn = Math.sign(ux * (points[after + 1] - points[i * 2 + 1]) - uy * (points[after] - points[i * 2]));
  const bend = Math.max(turn * bendFrom(points, n, i, -1, isLoop), turn * bendFrom(points, n, i, 1, isLoop));
  return bend > MOST_BEND_PX;
}

/** How far the points before (`sign` -1) or after point `i` bend away from their chord, px. */
function bendFrom(points: Float64Array, n: number, i: number, sign: 1 | -1, isLoop: boolean): number {
  const nearest = SKIP + 1;
  const first = offsetIndex(i, sign * nearest, n, isLoop) * 2;
  let sum = 0;
  for (let k = nearest + 1; k < nearest + MOST_BEND_POINTS; k++) {
    const far = offsetIndex(i, sign * k, n, isLoop) * 2;
    if (first < 0 || far < 0) return 0;
    const dx = points[far] - points[first];
    const dy = points[far + 1] - points[first + 1];
    const length = lengthOf(dx, dy);
    if (length < BEND_SPAN_PX) continue;
    for (let between = nearest + 1; between < k; between++) {
      const p = offsetIndex(i, sign * between, n, isLoop) * 2;
      sum += (points[p] - points[first]) * dy - (points[p + 1] - points[first + 1]) * dx;
    }
    // Two thirds of an arc's height is its mean.
    const count = k - nearest - 1;
    return count > 0 ? (1.5 * sign * sum) / count / length : 0;
  }
  return 0;
}

/**
 * Where the two sides meet, or null where a small arc explains the turn as well. `room`: points between it and the turns
 * before and after it.
 */
function cornerTip(
  points: Float64Array,
  n: number,
  i: number,
  isLoop: boolean,
  turn: number,
  least: number,
  room: readonly [number, number],
): Place | null {
  const before = sideAt(points, n, i, -1, isLoop, room[0]);
  const after = sideAt(points, n, i, 1, isLoop, room[1]);
  const x = points[i * 2];
  const y = points[i * 2 + 1];
  // Twice the turn is a corner even without sides long enough to show it (double-angle formula).
  if (!before || !after) return turn < 2 * least * least - 1 ? [x, y] : null;
  let [tipX, tipY] = [x, y];
  let cosine = 1;
  for (let step = 0; step < STEPS; step++) {
    const a = touchingLine(before, tipX, tipY);
    const b = touchingLine(after, tipX, tipY);
    const cross = a.dx * b.dy - a.dy * b.dx;
    cosine = -(a.dx * b.dx + a.dy * b.dy);
    if (cosine > least || cross === 0) return null;
    const t = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / cross;
    tipX = a.x + t * a.dx;
    tipY = a.y + t * a.dy;
    if (before.bend === 0 && after.bend === 0) break;
  }
  const reach = distanceToLine(points, n, i, isLoop, tipX, tipY);
  // An arc that turns by that angle between the sides would pass this far inside the meeting point of its tangents.
  const tangent = (lengthOf(before.x - tipX, before.y - tipY) + lengthOf(after.x - tipX, after.y - tipY)) / 2;
  const arcReach = tangent * tanOfQuarter(cosine);
  if (reach > 0.55 * arcReach + 0.1) return null;
  return reach <= MAX_REACH_PX ? [tipX, tipY] : [x, y];
}

/** Distance of a place to the polyline around point `i`. */
function distanceToLine(points: Float64Array, n: number, i: number, isLoop: boolean, x: number, y: number): number {
  let nearest = Number.POSITIVE_INFINITY;
  for (let k = -2; k < 2; k++) {
    const a = offsetIndex(i, k, n, isLoop);
    const b = offsetIndex(i, k + 1, n, isLoop);
    if (a >= 0 && b >= 0) nearest = Math.min(nearest, distanceToSegment(points, a, b, x, y));
  }
  return nearest;
}

/** One side of a corner, pointing away from it; null when there are fewer than two points. */
function sideAt(points: Float64Array, n: number, i: number, sign: 1 | -1, isLoop: boolean, room: number): Side | null {
  const skip = room > SKIP + 1 ? SKIP : 0;
  const most = Math.min(SIDE, room - skip, Math.floor(n / 2) - 1);
  const start = i + sign * (skip + 1);
  let count = 0;
  while (count < most && offsetIndex(start, sign * count, n, isLoop) >= 0) count++;
  if (count < 2) return null;
  let side = fitSide(points, count, start, sign);
  while (count > 2 && side.offPx > OFF_SIDE_PX) side = fitSide(points, --count, start, sign);
  for (const long of LONG_SIDES) {
    if (2 * long + 2 > n || long > room - skip || offsetIndex(start, sign * (long - 1), n, isLoop) < 0) continue;
    const longer = fitSide(points, long, start, sign);
    if (longer.offPx > ON_SIDE_PX) continue;
    side = longer;
    count = long;
    break;
  }
  const first = offsetIndex(start, 0, n, isLoop) * 2;
  const last = offsetIndex(start, sign * (count - 1), n, isLoop) * 2;
  const pointsAway = side.dx * (points[last] - points[first]) + side.dy * (points[last + 1] - points[first + 1]) >= 0;
  return pointsAway ? side : turned(side);
}

/** A side walked the other way. */
function turned({ dx, dy, offset, bend, ...rest }: Side): Side {
  return { ...rest, dx: -dx, dy: -dy, offset: -offset, bend: -bend };
}
