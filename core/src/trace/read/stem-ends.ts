// Square ends of thin stems, as letters have them: their two corners are so near each other that no side shows between them.
// Two sides that run along each other, and the few points across from one to the other on a line. Our own method.
import { lengthOf } from "../../geometry/index.ts";
import { offsetIndex } from "./offset-index.ts";
import { fitSide, type Line } from "./side.ts";

/** Points across the end of a stem: more show a side of their own. */
const ACROSS = [1, 2, 3, 4];
/** Points that a side is seen from, beginning with the second. */
const SIDE = 2;
/** How far points lie off their side, root mean square, and the one beside the end: round ends bend away sooner, px. */
const ON_SIDE_PX = 0.05;
const BESIDE_PX = 0.07;
/** Cosines: of the two sides, and of the end across them. */
const ALONG_COSINE = 0.98;
const ACROSS_COSINE = 0.6;
const SQUARE_COSINE = 0.35;
/** In the pixels of a thinner line its two edges mix: of its end they say little, px. */
const LEAST_WIDTH_PX = 1.5;
/** Corners lie at most so far from the points beside them, px. */
const MOST_PX = 1.3;

/** x and y. */
export type Place = readonly [number, number];

/**
 * Corners of square stem ends, by the numbers of the first and the last point across each: both, where that is one point.
 * `points`: x, y pairs that do not scatter; `turns`: cosine of the turn at each.
 */
export function findStemEnds(
  points: Float64Array,
  turns: Float64Array,
  isLoop: boolean,
): Map<number, readonly Place[]> {
  const n = turns.length;
  const tips = new Map<number, readonly Place[]>();
  for (const isSquare of [true, false])
    for (let i = 0; i < n; i++) {
      if (turns[i] > Math.SQRT1_2) continue;
      for (const count of ACROSS) {
        const j = offsetIndex(i, count - 1, n, isLoop);
        if (j < 0 || tips.has(i) || tips.has(j)) continue;
        if (tips.has(offsetIndex(i, -1, n, isLoop)) || tips.has(offsetIndex(j, 1, n, isLoop))) continue;
        const ends = stemEnd(points, i, count, isSquare, isLoop);
        if (!ends) continue;
        if (i === j) tips.set(i, ends);
        else tips.set(i, [ends[0]]).set(j, [ends[1]]);
      }
    }
  return tips;
}

/** Both corners of the end, square or cut at a slant, that `count` points from `i` on lie across, or null. */
function stemEnd(
  points: Float64Array,
  i: number,
  count: number,
  isSquare: boolean,
  isLoop: boolean,
): readonly [Place, Place] | null {
  const n = points.length / 2;
  const j = offsetIndex(i, count - 1, n, isLoop);
  const before = sideBeside(points, i, -1, isLoop);
  const after = sideBeside(points, j, 1, isLoop);
  if (!before || !after) return null;
  // Both point away from the end: along the stem.
  if (before.dx * after.dx + before.dy * after.dy < ALONG_COSINE) return null;
  const alone = { x: points[i * 2], y: points[i * 2 + 1], dx: -before.dy, dy: before.dx, offPx: 0 };
  const cut = count === 1 ? alone : fitSide(points, count, i);
  if (cut.offPx > ON_SIDE_PX) return null;
  const slant = Math.abs(before.dx * cut.dx + before.dy * cut.dy);
  if (slant > ACROSS_COSINE || slant < SQUARE_COSINE !== isSquare) return null;
  // What is nearly square is meant to be: so few points say no more.
  const across: Line = isSquare ? { x: cut.x, y: cut.y, dx: -before.dy, dy: before.dx } : cut;
  const first = meet(before, across);
  const last = meet(after, across);
  if (!isNear(first, points, i) || !isNear(first, points, offsetIndex(i, -1, n, isLoop))) return null;
  if (!isNear(last, points, j) || !isNear(last, points, offsetIndex(j, 1, n, isLoop))) return null;
  // Its width, the way that the boundary goes.
  const width = (last[0] - first[0]) * (after.x - before.x) + (last[1] - first[1]) * (after.y - before.y);
  return width > 0 && lengthOf(last[0] - first[0], last[1] - first[1]) >= LEAST_WIDTH_PX ? [first, last] : null;
}

function isNear(place: Place, points: Float64Array, p: number): boolean {
  return lengthOf(place[0] - points[p * 2], place[1] - points[p * 2 + 1]) <= MOST_PX;
}

/** The straight side that begins with the point before (`sign` -1) or after another, pointing away; null where there is none. */
function sideBeside(points: Float64Array, i: number, sign: 1 | -1, isLoop: boolean): Line | null {
  const n = points.length / 2;
  const far = offsetIndex(i, sign * (SIDE + 1), n, isLoop) * 2;
  if (far < 0) return null;
  const near = offsetIndex(i, sign, n, isLoop) * 2;
  const side = fitSide(points, SIDE, i + 2 * sign, sign);
  const off = (points[near] - side.x) * side.dy - (points[near + 1] - side.y) * side.dx;
  if (side.offPx > ON_SIDE_PX || Math.abs(off) > BESIDE_PX) return null;
  const away = (points[far] - points[near]) * side.dx + (points[far + 1] - points[near + 1]) * side.dy;
  return away > 0 ? side : { x: side.x, y: side.y, dx: -side.dx, dy: -side.dy };
}

/** Where two lines meet that are not parallel. */
function meet(a: Line, b: Line): Place {
  const t = ((b.x - a.x) * b.dy - (b.y - a.y) * b.dx) / (a.dx * b.dy - a.dy * b.dx);
  return [a.x + t * a.dx, a.y + t * a.dy];
}
