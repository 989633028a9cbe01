// From the points of one boundary to its curve: corners first, shapes with a name next, then the fewest segments.
import { type CubicPath, lengthOf } from "../geometry/index.ts";
import { type BoundaryPoints, SHORT_CRACKS, type TracedPicture } from "./boundary.ts";
import { BARE, type Chain } from "./chains.ts";
import { fitCircle } from "./circle.ts";
import { sharpenCorners } from "./corners.ts";
import { fitEllipse } from "./ellipse.ts";
import { fitRun } from "./fit.ts";
import { type Guide, guideAt } from "./guide.ts";
import { FINE_ACROSS_PX } from "./planar-map.ts";
import { scatterOf } from "./scatter.ts";
import { findStraights } from "./straights.ts";

/** Extra tolerance (px) where an edge has no anti-aliasing: the pixel steps themselves are half a pixel off. */
const HARD_EDGE_PX = 0.35;
/** Tolerance for short boundaries, px: a wider one would straighten single pixels away. */
export const SHORT_PX = 0.2;
/** Tolerance that the scatter of a boundary's own points asks for, as a multiple of it, and its limit, px. */
const SCATTER_SHARE = 2;
/** Compression also moves neighbouring points together: tolerance per unit of noise. */
const NOISE_PX = 0.15;
const MOST_NOISE_PX = 0.6;

/** How far from an end points may be doubted, px. */
const CLEAR_PX = 2.5;

/** How closely curves are to follow their boundaries. */
export interface CurveSettings {
  readonly tolerancePx: number;
  /** Whether small shapes keep to FINE_PX, whatever the tolerance. */
  readonly keepsText: boolean;
}

/** Tolerance that keeps small shapes crisp, px. */
const FINE_PX = 0.2;

/** A chain's points, made ready for fitting whatever the tolerance: with its ends and its corners. */
export interface ReadyLine {
  readonly points: Float64Array;
  /** Indices of the corners; a line that is no loop has none at its ends. */
  readonly corners: readonly number[];
  readonly isLoop: boolean;
  readonly isShort: boolean;
  readonly isFine: boolean;
  /** What its points ask for, px: at least this tolerance, so much more for noise, and for an edge without coverage. */
  readonly leastPx: number;
  readonly extraPx: number;
  readonly hardPx: number;
}

/**
 * Makes one chain ready, its ends exactly on its vertices; null for one that lies on the picture's edge. `isClear`: without
 * the points next to its ends, where three colours mix and what was read may lie on the wrong side of the neighbour.
 */
export function readyChain(
  chain: Chain,
  boundary: BoundaryPoints,
  vertices: Float64Array,
  { raster: { width, height }, noise }: TracedPicture,
  cornerCosine: number,
  isClear = false,
): ReadyLine | null {
  if (isOnPictureEdge(chain, width, height)) return null;
  const isLoop = chain.start < 0;
  const isShort = chain.corners.length / 2 - 1 < SHORT_CRACKS;
  const kind = {
    isLoop,
    isShort,
    isFine: acrossOf(chain) <= FINE_ACROSS_PX,
    leastPx: scatterTolerance(boundary.points),
    extraPx: Math.min(MOST_NOISE_PX, noise * NOISE_PX),
    hardPx: boundary.isHard ? HARD_EDGE_PX : 0,
  };
  if (isLoop) {
    const points = boundary.points.length >= 6 ? boundary.points : crackCorners(chain);
    return { ...kind, ...sharpenCorners(points, true, cornerCosine, boundary.isExact) };
  }
  const points = withEnds(isClear ? clearEnds(boundary.points, vertices, chain) : boundary.points, vertices, chain);
  if (isShort) return { ...kind, points, corners: [] };
  const cornered = sharpenCorners(points, false, cornerCosine, boundary.isExact);
  const last = cornered.points.length / 2 - 1;
  return { ...kind, points: cornered.points, corners: cornered.corners.filter((c) => c > 0 && c < last) };
}

/** Where a chain's ends lie, as part of a key; empty for a loop. */
export function placesOfEnds({ start, end }: Chain, vertices: Float64Array): string {
  const at = (vertex: number) => (vertex < 0 ? "" : `${vertices[vertex * 2]} ${vertices[vertex * 2 + 1]}`);
  return `${at(start)} ${at(end)}`;
}

/** The last clear line of each boundary, with the places of its ends. */
const lastClear = new WeakMap<BoundaryPoints, { readonly key: string; readonly line: ReadyLine | null }>();

/** The same without the points next to its ends; the same object as long as boundary, ends and corners are the same. */
export function clearChain(
  chain: Chain,
  boundary: BoundaryPoints,
  vertices: Float64Array,
  picture: TracedPicture,
  cornerCosine: number,
): ReadyLine | null {
  const key = `${cornerCosine} ${placesOfEnds(chain, vertices)}`;
  const last = lastClear.get(boundary);
  if (last?.key === key) return last.line;
  const line = readyChain(chain, boundary, vertices, picture, cornerCosine, true);
  lastClear.set(boundary, { key, line });
  return line;
}

/** How far the curve of a line may lie off its points, px. */
export function toleranceOf(line: ReadyLine, { tolerancePx, keepsText }: CurveSettings): number {
  const asked = keepsText && line.isFine ? Math.min(tolerancePx, FINE_PX) : tolerancePx;
  const wide = Math.max(asked + line.extraPx, line.leastPx);
  return line.isShort ? Math.min(wide, SHORT_PX) : wide + line.hardPx;
}

/** Curves kept of each line: as asked for, and as it was made again where it crossed another. */
const KEPT_CURVES = 4;
/** The last curves of each line by tolerance: small shapes often keep theirs when a tolerance changes. */
const lastCurves = new WeakMap<ReadyLine, Map<number, CubicPath>>();

/** The curve of a line within a tolerance, px. */
export function fitLine(line: ReadyLine, tolerance: number): CubicPath {
  const kept = lastCurves.get(line) ?? new Map<number, CubicPath>();
  const last = kept.get(tolerance);
  if (last) return last.slice();
  const { points, corners, isLoop } = line;
  const path = isLoop
    ? fitLoop(points, corners, tolerance)
    : fitBetween(points, [0, ...corners, points.length / 2 - 1], tolerance);
  if (kept.size === KEPT_CURVES) kept.clear();
  lastCurves.set(line, kept.set(tolerance, path.slice()));
  return path;
}

function fitLoop(line: Float64Array, corners: readonly number[], tolerance: number): CubicPath {
  if (corners.length === 0)
    return fitCircle(line, tolerance) ?? fitEllipse(line, tolerance) ?? fitSmoothLoop(line, tolerance);
  return fitBetween(rotateLoop(line, corners[0]), [...corners.map((c) => c - corners[0]), line.length / 2], tolerance);
}

/** Tolerance that points scattered about their line ask for, px. */
export function scatterTolerance(points: Float64Array): number {
  return Math.min(MOST_NOISE_PX, SCATTER_SHARE * scatterOf(points));
}

/** Longer side of the box around a chain, px. */
function acrossOf({ corners }: Chain): number {
  let [left, top, right, bottom] = [corners[0], corners[1], corners[0], corners[1]];
  for (let i = 2; i < corners.length; i += 2) {
    left = Math.min(left, corners[i]);
    right = Math.max(right, corners[i]);
    top = Math.min(top, corners[i + 1]);
    bottom = Math.max(bottom, corners[i + 1]);
  }
  return Math.max(right - left, bottom - top);
}

/** Whether a chain lies on the picture's own edge: every corner of it on one of the four sides, with nothing on one hand. */
export function isOnPictureEdge({ corners, left, right }: Chain, width: number, height: number): boolean {
  if (left !== BARE && right !== BARE) return false;
  for (let i = 0; i < corners.length; i += 2) {
    const isInside = corners[i] > 0 && corners[i] < width && corners[i + 1] > 0 && corners[i + 1] < height;
    if (isInside) return false;
  }
  return true;
}

/** The picture's edge as it is: straight, with its right angles, from vertex to vertex. */
export function pictureEdge({ corners, start, end }: Chain, vertices: Float64Array): CubicPath {
  const out: number[] = [corners[0], corners[1]];
  for (let i = 2; i < corners.length; i += 2) {
    const isBend =
      i + 2 >= corners.length ||
      (corners[i] - corners[i - 2]) * (corners[i + 3] - corners[i + 1]) !==
        (corners[i + 1] - corners[i - 1]) * (corners[i + 2] - corners[i]);
    if (!isBend) continue;
    const o = out.length;
    out.push(out[o - 2], out[o - 1], corners[i], corners[i + 1], corners[i], corners[i + 1]);
  }
  if (start >= 0) {
    const n = out.length;
    out[0] = vertices[start * 2];
    out[1] = vertices[start * 2 + 1];
    out[2] = out[0];
    out[3] = out[1];
    out[n - 4] = out[n - 2] = vertices[end * 2];
    out[n - 3] = out[n - 1] = vertices[end * 2 + 1];
  }
  return Float64Array.from(out);
}

function crackCorners({ corners }: Chain): Float64Array {
  return Float64Array.from(corners.subarray(0, corners.length - 2));
}

function withEnds(points: Float64Array, vertices: Float64Array, { start, end }: Chain): Float64Array {
  const out = new Float64Array(points.length + 4);
  out[0] = vertices[start * 2];
  out[1] = vertices[start * 2 + 1];
  out.set(points, 2);
  out[out.length - 2] = vertices[end * 2];
  out[out.length - 1] = vertices[end * 2 + 1];
  return out;
}

/** The points of a chain that are not near its ends. */
function clearEnds(points: Float64Array, vertices: Float64Array, { start, end }: Chain): Float64Array {
  const isNear = (i: number) =>
    [start, end].some((v) => lengthOf(points[i] - vertices[v * 2], points[i + 1] - vertices[v * 2 + 1]) < CLEAR_PX);
  let first = 0;
  let last = points.length;
  while (first < last && isNear(first)) first += 2;
  while (last > first && isNear(last - 2)) last -= 2;
  return points.slice(first, last);
}

/** The loop starting at point `first`, which is repeated at its end. */
export function rotateLoop(points: Float64Array, first: number): Float64Array {
  const out = new Float64Array(points.length + 2);
  out.set(points.subarray(first * 2));
  out.set(points.subarray(0, first * 2), points.length - first * 2);
  out[points.length] = out[0];
  out[points.length + 1] = out[1];
  return out;
}

/**
 * Fits each run between consecutive `breaks` (point indices, first and last included), sharp at the breaks. A run that
 * comes back to where it began is broken at its far end, too: one segment would loop.
 */
export function fitBetween(points: Float64Array, breaks: readonly number[], tolerance: number): CubicPath {
  const out: number[] = [points[0], points[1]];
  const fit = (from: number, to: number) => {
    // Its own points only: what is changed of them is copied first.
    const run = points.subarray(from * 2, to * 2 + 2);
    for (const value of fitRun(run, 0, to - from, tolerance, null, null)) out.push(value);
  };
  for (let k = 1; k < breaks.length; k++) {
    const from = breaks[k - 1];
    const to = breaks[k];
    const comesBack = points[from * 2] === points[to * 2] && points[from * 2 + 1] === points[to * 2 + 1];
    const middle = comesBack ? farthest(points, from, to) : from;
    if (middle > from) fit(from, middle);
    fit(middle, to);
  }
  return Float64Array.from(out);
}

/** Index of the point between two that lies farthest from the first. */
function farthest(points: Float64Array, from: number, to: number): number {
  let best = from;
  let most = 0;
  for (let i = from + 1; i < to; i++) {
    const distance = lengthOf(points[i * 2] - points[from * 2], points[i * 2 + 1] - points[from * 2 + 1]);
    if (distance > most) {
      most = distance;
      best = i;
    }
  }
  return best;
}

/**
 * A closed curve without corners. The seam is as smooth as the rest: it lies where a straight part begins, or else at the
 * topmost point.
 */
function fitSmoothLoop(points: Float64Array, tolerance: number): CubicPath {
  const n = points.length / 2;
  let top = 0;
  for (let i = 1; i < n; i++) if (points[i * 2 + 1] < points[top * 2 + 1]) top = i;
  const fromTop = rotateLoop(points, top);
  const straight = findStraights(fromTop, 0, n, tolerance * 0.5).find(({ from }) => from > 0);
  const loop = straight ? rotateLoop(points, (top + straight.from) % n) : fromTop;
  const seam = straight ? footOn(straight, loop[0], loop[1]) : guideAtSeam(loop, tolerance);
  if (seam) {
    loop[0] = loop[2 * n] = seam.x;
    loop[1] = loop[2 * n + 1] = seam.y;
  }
  const out: number[] = [loop[0], loop[1]];
  const run = fitRun(loop, 0, n, tolerance, seam && [seam.dx, seam.dy], seam && [-seam.dx, -seam.dy]);
  for (const value of run) out.push(value);
  return Float64Array.from(out);
}

function footOn({ x, y, dx, dy }: Guide, px: number, py: number): Guide {
  const along = (px - x) * dx + (py - y) * dy;
  return { x: x + along * dx, y: y + along * dy, dx, dy };
}

/** Where a loop's first point really lies, from the points on either side of it. */
function guideAtSeam(loop: Float64Array, tolerance: number): Guide | null {
  const n = loop.length / 2 - 1;
  const side = Math.min(12, (n - 1) >> 1);
  const around = new Float64Array((2 * side + 1) * 2);
  for (let k = -side; k <= side; k++) {
    const i = ((k + n) % n) * 2;
    around[(k + side) * 2] = loop[i];
    around[(k + side) * 2 + 1] = loop[i + 1];
  }
  return guideAt(around, side, 0, 2 * side, tolerance * 0.3);
}
