// Where a boundary runs inside the pixels: the coverage of the edge pixels says it. Along the normal of each crack the
// shares of the colour on one side are summed; the sum is the boundary's mean position over that pixel's width.
import { lengthOf } from "../../geometry/index.ts";
import type { Chain } from "./chains.ts";
import { readShift } from "./crack-shift.ts";
import { bends, insideCorners, smoothLine, smoothSteps } from "./pixel-steps.ts";
import { scatterOf } from "./scatter.ts";
import type { TracedPicture } from "./traced-picture.ts";

/** Points of a boundary in source pixels, in order, as x, y pairs. */
export interface BoundaryPoints {
  readonly points: Float64Array;
  /** Whether the edge has no anti-aliasing. */
  readonly isHard: boolean;
  /** Whether the points are as the coverage has them, not smoothed. */
  readonly isExact: boolean;
}

/** Passes of smoothing along an edge whose coverage is noisy. */
const NOISE_PASSES = 2;
/** Points that scatter by this much about their line are smoothed, px. */
const ROUGH_PX = 0.1;
/** A boundary of fewer cracks goes round a few pixels: it is too short to be smoothed or sharpened. */
export const SHORT_CRACKS = 8;
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
