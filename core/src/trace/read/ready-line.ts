// The points of one boundary made ready for fitting, whatever the tolerance: with its ends, its corners, and what they ask for.
import { type CubicPath, lengthOf } from "../../geometry/index.ts";
import { type BoundaryPoints, SHORT_CRACKS } from "./boundary.ts";
import type { Chain } from "./chains.ts";
import { sharpenCorners } from "./corners.ts";
import { isOnPictureEdge } from "./picture-edge.ts";
import { scatterOf } from "./scatter.ts";
import type { TracedPicture } from "./traced-picture.ts";

/** Shapes of at most this many pixels across are small: letters of up to a dozen pixels of x-height, and their counters. */
export const FINE_ACROSS_PX = 32;
/** Extra tolerance (px) where an edge has no anti-aliasing: the pixel steps themselves are half a pixel off. */
const HARD_EDGE_PX = 0.35;
/** Tolerance that the scatter of a boundary's own points asks for, as a multiple of it, and its limit, px. */
const SCATTER_SHARE = 2;
/** Compression also moves neighbouring points together: tolerance per unit of noise. */
const NOISE_PX = 0.15;
const MOST_NOISE_PX = 0.6;
/** How far from an end points may be doubted, px. */
const CLEAR_PX = 2.5;

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
  readonly made: MadeOfLine;
}

/** What was made of a line before, kept as long as the line: a pour, or a new tolerance, makes only what is new. */
export interface MadeOfLine {
  /** Curves by tolerance, px. */
  readonly curves: Map<number, CubicPath>;
  /** Rough paths by what they were made from. */
  readonly rough: Map<string, CubicPath>;
  /** The line without the points next to its ends, and where these were. */
  clear: { readonly key: string; readonly line: ReadyLine | null } | null;
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
    made: { curves: new Map(), rough: new Map(), clear: null },
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

/** The same line without the points next to its ends; the same object as long as these are where they were. */
export function clearChain(
  { made }: ReadyLine,
  chain: Chain,
  boundary: BoundaryPoints,
  vertices: Float64Array,
  picture: TracedPicture,
  cornerCosine: number,
): ReadyLine | null {
  const key = `${cornerCosine} ${placesOfEnds(chain, vertices)}`;
  if (made.clear?.key === key) return made.clear.line;
  const line = readyChain(chain, boundary, vertices, picture, cornerCosine, true);
  made.clear = { key, line };
  return line;
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
