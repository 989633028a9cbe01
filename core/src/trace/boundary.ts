// Where a boundary runs inside the pixels: the coverage of the edge pixels says it. Along the normal of each crack the
// shares of the colour on one side are summed; the sum is the boundary's mean position over that pixel's width.

import type { Rgb } from "../colour/index.ts";
import { lengthOf } from "../geometry/index.ts";
import { type LabelMap, NONE, OPAQUE_ALPHA, type Raster } from "../raster/index.ts";
import type { Chain } from "./chains.ts";
import { scatterOf } from "./scatter.ts";

/** What the tracer reads of a reduced picture. */
export interface TracedPicture {
  readonly raster: Raster;
  /** Index of each pixel's found colour. */
  readonly found: LabelMap;
  readonly foundColours: readonly Rgb[];
  /** Index of each pixel's spot, specks absorbed. */
  readonly spots: LabelMap;
  /** Index of each pixel's spot before specks were absorbed: those pixels keep the colour found in them. */
  readonly assigned: LabelMap;
  /** A colour of each spot, for pixels that were absorbed. */
  readonly spotColours: readonly Rgb[];
  readonly noise: number;
}

/** Points of a boundary in source pixels, in order, as x, y pairs. */
export interface BoundaryPoints {
  readonly points: Float64Array;
  /** Whether the edge has no anti-aliasing. */
  readonly isHard: boolean;
  /** Whether the points are as the coverage has them, not smoothed. */
  readonly isExact: boolean;
}

/** Passes of smoothing along an edge whose pixels carry no coverage, and along one whose coverage is noisy. */
const HARD_PASSES = 3;
const NOISE_PASSES = 2;
/** Points that scatter by this much about their line are smoothed, px. */
const ROUGH_PX = 0.1;
/** A boundary of fewer cracks goes round a few pixels: it is too short to be smoothed or sharpened. */
export const SHORT_CRACKS = 8;
/** Cracks in a straight run from which it is a side of the drawing, not a step of the grid. */
const LONG_RUN = 4;
/** How many pixels on either side an edge may be blurred over. */
const REACH_PX = 3;
/** A line of at most so many pixels across has no pixel of its pure colour, or hardly. */
const LINE_PX = 3;
/** Coverage beyond the end of a line, px, and the difference of two widths, as a share, where it ends squarely. */
const MOST_BEYOND = 0.3;
const SAME_WIDTH = 0.1;
/** Under this difference of the two sides' pure shares there is no edge to read: the axis runs along another one. */
const LEAST_CONTRAST = 0.6;
/** So many cracks in a row may go unread; then the grid has to do, or a curve would swing free. */
const MOST_UNREAD = 4;
/** An edge this much steeper along one axis is read along that axis only. */
const DOMINANCE = 0.6;
/** Two points are swapped if the way over them becomes shorter by more than this, px. */
const LEAST_GAIN_PX = 0.05;
/** Corners of a chain on each side from which its direction is read. */
const DIRECTION_SPAN = 3;

/** Reads the points of one chain. Points within a pixel of a junction are left out: there a third colour mixes in. */
export function readBoundary(picture: TracedPicture, chain: Chain): BoundaryPoints {
  const { corners } = chain;
  const cracks = corners.length / 2 - 1;
  const isLoop = chain.start < 0;
  const out = new Float64Array(cracks * 2);
  const trimmed = isLoop ? 0 : cracks > 6 ? 1 : 0;
  let n = 0;
  let soft = 0;
  let lastRead = trimmed - 1;
  for (let k = trimmed; k < cracks - trimmed; k++) {
    const x0 = corners[k * 2];
    const y0 = corners[k * 2 + 1];
    const dx = corners[k * 2 + 2] - x0;
    const dy = corners[k * 2 + 3] - y0;
    if (cracks > 3 && !runsAcross(corners, cracks, isLoop, k, dx !== 0)) continue;
    let shift = readShift(picture, x0, y0, dx, dy);
    if (Number.isNaN(shift)) {
      if (k - lastRead <= MOST_UNREAD) continue;
      shift = 0;
    }
    lastRead = k;
    if (Math.abs(shift) > 0.02) soft++;
    // The right-hand side of the walk is (-dy, dx); a positive shift moves the boundary towards it.
    out[n++] = x0 + dx / 2 - dy * shift;
    out[n++] = y0 + dy / 2 + dx * shift;
  }
  const isHard = soft * 10 < n / 2 && bends(corners);
  if (isHard && cracks < SHORT_CRACKS) return { points: insideCorners(corners, isLoop), isHard, isExact: false };
  if (isHard) return { points: smoothSteps(corners, isLoop), isHard, isExact: false };
  const points = inOrder(out.slice(0, n));
  // A clean picture may hold rough boundaries, too: those where a third colour shines through between two smooth edges.
  if (picture.noise === 0 && scatterOf(points) < ROUGH_PX) return { points, isHard, isExact: true };
  return { points: smoothLine(points, isLoop, NOISE_PASSES, new Uint8Array(n / 2)), isHard, isExact: false };
}

/** The points, two of them swapped where that shortens the way: beside a corner one reading may overtake the other. */
function inOrder(points: Float64Array): Float64Array {
  for (let i = 2; i + 5 < points.length; i += 2) {
    const away = (a: number, b: number) => lengthOf(points[b] - points[a], points[b + 1] - points[a + 1]);
    if (away(i - 2, i + 2) + away(i, i + 4) + LEAST_GAIN_PX >= away(i - 2, i) + away(i + 2, i + 4)) continue;
    const [x, y] = [points[i], points[i + 1]];
    points[i] = points[i + 2];
    points[i + 1] = points[i + 3];
    points[i + 2] = x;
    points[i + 3] = y;
  }
  return points;
}

/** Whether the chain, around crack `k`, runs mostly along that crack, so that its normal is a fair axis to read. */
function runsAcross(corners: Int32Array, cracks: number, isLoop: boolean, k: number, isHorizontal: boolean): boolean {
  let a = k - DIRECTION_SPAN;
  let b = k + 1 + DIRECTION_SPAN;
  if (isLoop) {
    a = (a + cracks) % cracks;
    b %= cracks;
  } else {
    a = Math.max(0, a);
    b = Math.min(cracks, b);
  }
  const dx = Math.abs(corners[b * 2] - corners[a * 2]);
  const dy = Math.abs(corners[b * 2 + 1] - corners[a * 2 + 1]);
  return isHorizontal ? dx >= dy * DOMINANCE : dy >= dx * DOMINANCE;
}

/**
 * How far the boundary lies from the crack towards the right-hand pixel, in pixels; NaN where that cannot be said: beside
 * a corner, the pixels along the normal are those of the other side of the corner.
 */
function readShift(picture: TracedPicture, x0: number, y0: number, dx: number, dy: number): number {
  const { width, height } = picture.spots;
  const leftX = dx > 0 || dy > 0 ? x0 : x0 - 1;
  const leftY = dy > 0 || dx < 0 ? y0 : y0 - 1;
  const rightX = leftX - dy;
  const rightY = leftY + dx;
  const left = leftY * width + leftX;
  const right = rightY * width + rightX;
  const step = -dy + dx * width;
  if (leftX < 0 || leftY < 0 || leftX >= width || leftY >= height) return clearDepth(picture, right, step);
  if (rightX < 0 || rightY < 0 || rightX >= width || rightY >= height) return -clearDepth(picture, left, -step);
  const runLeft = runFrom(picture, left, -step, roomToEdge(leftX, leftY, dy, -dx, width, height));
  const runRight = runFrom(picture, right, step, roomToEdge(rightX, rightY, -dy, dx, width, height));
  if (runRight.isThin !== runLeft.isThin) {
    const line = runRight.isThin ? runRight : runLeft;
    const start = runRight.isThin ? right : left;
    const inwards = runRight.isThin ? step : -step;
    const room = runRight.isThin
      ? roomToEdge(rightX, rightY, -dy, dx, width, height)
      : roomToEdge(leftX, leftY, dy, -dx, width, height);
    const edge = nearEdgeOfLine(picture, start, inwards, line.length, room, runRight.isThin ? left : right);
    if (!Number.isNaN(edge)) return runRight.isThin ? edge : -edge;
  }
  // Shares are read against what the picture really holds beyond the edge: shading and compression shift it.
  const most = pureShare(picture, left, -step, runLeft, left, right);
  const least = pureShare(picture, right, step, runRight, left, right);
  if (most - least < LEAST_CONTRAST) return picture.noise === 0 ? Number.NaN : 0;
  const gained = sumShares(picture, right, step, runRight, left, right, least, most);
  const lost = sumShares(picture, left, -step, runLeft, left, right, most, least);
  return gained - lost;
}

/**
 * How far art that touches the picture's edge ends inside it, px: by the coverage of its outermost pixels. 0 where they are
 * opaque, and the picture's own edge is the boundary.
 */
function clearDepth({ raster: { data }, spots }: TracedPicture, start: number, inwards: number): number {
  let depth = 0;
  for (let k = 0; k < REACH_PX; k++) {
    const p = start + k * inwards;
    if (spots.data[p] !== spots.data[start] || data[p * 4 + 3] === 255) break;
    depth += 1 - data[p * 4 + 3] / 255;
  }
  return depth;
}

/**
 * Where the near edge of a line of at most LINE_PX lies, in pixels from the crack into the line; NaN where it is no such
 * line, or not the same colour on both sides. Both edges mix in its pixels: their sum is its width, their mean its middle.
 */
function nearEdgeOfLine(
  picture: TracedPicture,
  start: number,
  inwards: number,
  length: number,
  room: number,
  outside: number,
): number {
  const { data } = picture.spots;
  const far = start + length * inwards;
  if (length > LINE_PX || room <= length || data[far] !== data[outside]) return Number.NaN;
  let width = 0;
  let moment = 0;
  for (let k = -2; k < length + 2; k++) {
    const p = start + k * inwards;
    if (k >= room || p < 0 || p >= data.length) continue;
    // What lies beyond the next edge on either side is another matter.
    if (k === -2 && data[p] !== data[outside]) continue;
    if (k === length + 1 && data[p] !== data[far]) continue;
    const share = leftShare(picture, p, start, outside);
    width += share;
    moment += share * (k + 0.5);
  }
  if (width < 0.2) return Number.NaN;
  return moment / width - Math.max(width, widthOfStem(picture, start, inwards, length, outside)) / 2;
}

/**
 * Width of the line behind its last pixels, px, where it ends squarely: these are covered in part only, and say nothing of
 * it. 0 where the line does not end, or grows thinner towards its end.
 */
function widthOfStem(picture: TracedPicture, start: number, inwards: number, length: number, outside: number): number {
  const { width, data } = picture.spots;
  const along = Math.abs(inwards) === 1 ? width : 1;
  const [before, after] = [data[start - along], data[start + along]];
  if ((before === data[start]) === (after === data[start])) return 0;
  const back = before === data[start] ? -along : along;
  const widthAt = (row: number) => {
    let sum = 0;
    for (let k = -2; k < length + 2; k++) {
      const p = start + row * back + k * inwards;
      if (p >= 0 && p < data.length) sum += leftShare(picture, p, start, outside);
    }
    return sum;
  };
  const [beyond, first, second] = [widthAt(-1), widthAt(1), widthAt(2)];
  return beyond < MOST_BEYOND && Math.abs(first - second) < SAME_WIDTH * first ? first : 0;
}

/** Pixels from (x, y), itself included, to the picture's edge along a unit step. */
function roomToEdge(x: number, y: number, stepX: number, stepY: number, width: number, height: number): number {
  if (stepX > 0) return width - x;
  if (stepX < 0) return x + 1;
  return stepY > 0 ? height - y : y + 1;
}

/** Pixels of one spot from an edge inwards, counted as far as matters; `isThin`: a strip with another edge close behind. */
interface Run {
  readonly length: number;
  readonly isThin: boolean;
}

function runFrom({ spots: { data } }: TracedPicture, start: number, step: number, room: number): Run {
  const spot = data[start];
  const most = Math.min(2 * REACH_PX, room);
  let length = 1;
  while (length < most && data[start + length * step] === spot) length++;
  return { length, isThin: length < 2 * REACH_PX && length < room };
}

/**
 * The share of the left colour where the edge no longer reaches on one side: near 1 on the left, near 0 on the right. A
 * line may be too thin to have such a place, or end at the picture's edge before it; its palette colour stands for it then.
 */
function pureShare(picture: TracedPicture, start: number, step: number, run: Run, left: number, right: number): number {
  const isLeft = start === left;
  if (run.length < REACH_PX || (run.isThin && run.length <= LINE_PX)) return isLeft ? 1 : 0;
  if (!run.isThin) return leftShare(picture, start + (REACH_PX - 1) * step, left, right);
  // Between edges that are near, the purest pixel: beside a corner it is no purer than the corner's other side covers it.
  let purest = isLeft ? 0 : 1;
  for (let k = 0; k < run.length; k++) {
    const share = leftShare(picture, start + k * step, left, right);
    purest = isLeft ? Math.max(purest, share) : Math.min(purest, share);
  }
  return purest;
}

/**
 * The coverage that the pixels from `start` along `step` have of the other side: their shares' distance from `own`, the
 * pure share of this side, in terms of the whole step to `other`. A thin strip shares its pixels with the edge on its far
 * side, each taking its half.
 */
function sumShares(
  picture: TracedPicture,
  start: number,
  step: number,
  run: Run,
  left: number,
  right: number,
  own: number,
  other: number,
): number {
  const limit = run.isThin ? run.length / 2 : Math.min(run.length, REACH_PX);
  let sum = 0;
  for (let k = 0; k < limit; k++) {
    const share = (leftShare(picture, start + k * step, left, right) - own) / (other - own);
    if (share < 0.02 + picture.noise * 0.01) break;
    sum += Math.min(1, share) * Math.min(1, limit - k);
  }
  return sum;
}

/** Share (0..1) of the colour of pixel `left` in pixel `p`, the rest being the colour of pixel `right`. */
function leftShare(picture: TracedPicture, p: number, left: number, right: number): number {
  const { data } = picture.raster;
  const leftIsClear = data[left * 4 + 3] < OPAQUE_ALPHA;
  const rightIsClear = data[right * 4 + 3] < OPAQUE_ALPHA;
  if (leftIsClear !== rightIsClear) {
    const alpha = data[p * 4 + 3] / 255;
    return leftIsClear ? 1 - alpha : alpha;
  }
  const a = colourOf(picture, left);
  const b = colourOf(picture, right);
  const dr = a[0] - b[0];
  const dg = a[1] - b[1];
  const db = a[2] - b[2];
  const length2 = dr * dr + dg * dg + db * db;
  if (length2 === 0) return p === left ? 1 : 0;
  const share = ((data[p * 4] - b[0]) * dr + (data[p * 4 + 1] - b[1]) * dg + (data[p * 4 + 2] - b[2]) * db) / length2;
  return Math.min(1, Math.max(0, share));
}

function colourOf(picture: TracedPicture, p: number): Rgb {
  const found = picture.found.data[p];
  const spot = picture.spots.data[p];
  if (found !== NONE && (spot === NONE || picture.assigned.data[p] === spot)) return picture.foundColours[found];
  return picture.spotColours[spot === NONE ? 0 : spot];
}

/** Whether a walk ever leaves its first direction. */
function bends(corners: Int32Array): boolean {
  const dx = corners[2] - corners[0];
  for (let i = 2; i + 3 < corners.length; i += 2) if (corners[i + 2] - corners[i] !== dx) return true;
  return false;
}

/** The grid corners of a walk, without those at junctions. */
function insideCorners(corners: Int32Array, isLoop: boolean): Float64Array {
  return Float64Array.from(isLoop ? corners.subarray(2) : corners.subarray(2, corners.length - 2));
}

/**
 * Mid-points of all cracks of a walk with its pixel steps smoothed out. Where two long straight runs meet, the corner is
 * drawn, not an artefact of the grid: it becomes a point that stays.
 */
function smoothSteps(corners: Int32Array, isLoop: boolean): Float64Array {
  const cracks = corners.length / 2 - 1;
  const runs = runLengths(corners, cracks, isLoop);
  const points: number[] = [];
  const isPinned: number[] = [];
  for (let k = 0; k < cracks; k++) {
    const x = corners[k * 2];
    const y = corners[k * 2 + 1];
    const before = k > 0 ? k - 1 : isLoop ? cracks - 1 : -1;
    const turnsHere = before >= 0 && runs.of[before] !== runs.of[k];
    if (turnsHere && Math.min(runs.length[runs.of[before]], runs.length[runs.of[k]]) >= LONG_RUN) {
      points.push(x, y);
      isPinned.push(1);
    }
    points.push((x + corners[k * 2 + 2]) / 2, (y + corners[k * 2 + 3]) / 2);
    isPinned.push(0);
  }
  return smoothLine(Float64Array.from(points), isLoop, HARD_PASSES, Uint8Array.from(isPinned));
}

/** Straight runs of a walk: which run each crack is in, and how many cracks each run has. */
function runLengths(corners: Int32Array, cracks: number, isLoop: boolean): { of: Int32Array; length: number[] } {
  const of = new Int32Array(cracks);
  const length: number[] = [];
  const goesAcross = (k: number) => corners[k * 2] !== corners[k * 2 + 2];
  for (let k = 0; k < cracks; k++) {
    if (k === 0 || goesAcross(k) !== goesAcross(k - 1)) length.push(0);
    of[k] = length.length - 1;
    length[of[k]]++;
  }
  // A loop may start in the middle of a run.
  if (isLoop && length.length > 1 && goesAcross(0) === goesAcross(cracks - 1)) {
    const last = length.length - 1;
    length[0] += length[last];
    for (let k = cracks - 1; of[k] === last; k--) of[k] = 0;
  }
  return { of, length };
}

/** Passes of a 1-2-1 mean along a line; pinned points and the ends of an open line stay. */
function smoothLine(line: Float64Array, isLoop: boolean, passes: number, isPinned: Uint8Array): Float64Array {
  const n = line.length / 2;
  let points = line;
  for (let pass = 0; pass < passes; pass++) {
    const next = points.slice();
    for (let k = isLoop ? 0 : 1; k < (isLoop ? n : n - 1); k++) {
      if (isPinned[k]) continue;
      const a = ((k + n - 1) % n) * 2;
      const b = ((k + 1) % n) * 2;
      next[k * 2] = (points[a] + 2 * points[k * 2] + points[b]) / 4;
      next[k * 2 + 1] = (points[a + 1] + 2 * points[k * 2 + 1] + points[b + 1]) / 4;
    }
    points = next;
  }
  return points;
}
