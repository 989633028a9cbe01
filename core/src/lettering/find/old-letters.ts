// Old lettering as it is fitted to: on a grid of its own, with the distance to its outlines everywhere.
import { boundsOfAll, type CubicPath, lengthOf, mapPath, pathArea } from "../../geometry/index.ts";
import { coverPaths } from "./cover-paths.ts";

/** Lengths are grid pixels unless another is named. */
export interface OldLetters {
  readonly width: number;
  readonly height: number;
  /** Grid pixels to a pixel of the picture, and where the grid begins in it. */
  readonly scale: number;
  readonly left: number;
  readonly top: number;
  readonly cover: Float32Array;
  /** Distance to the outline, negative inside. */
  readonly distance: Float32Array;
  /** Roughly how high letters are. */
  readonly letterHeight: number;
}

/** Height that letters have on the grid. */
const LETTER_PX = 36;
/** Of their squares, so much do letters cover, roughly. */
const INK_SHARE = 0.28;
const MOST_CELLS = 3e6;

/** Old letters of so many characters; null where nothing is marked. Paths are of the picture, holes wind the other way. */
export function layOutOld(paths: readonly CubicPath[], characters: number): OldLetters | null {
  const area = Math.abs(paths.reduce((sum, path) => sum + pathArea(path), 0));
  if (paths.length === 0 || area === 0 || characters === 0) return null;
  const box = boundsOfAll(paths);
  const [across, down] = [box.right - box.left, box.bottom - box.top];
  const rough = Math.min(Math.sqrt(area / characters / INK_SHARE), across, down);
  const margin = LETTER_PX;
  const finest = Math.sqrt(MOST_CELLS / Math.max(1, across * down)) / 1.5;
  const scale = Math.min(LETTER_PX / rough, finest);
  const [left, top] = [box.left - margin / scale, box.top - margin / scale];
  const [width, height] = [Math.ceil(across * scale + 2 * margin), Math.ceil(down * scale + 2 * margin)];
  const onGrid = paths.map((path) => mapPath(path, (x, y) => [(x - left) * scale, (y - top) * scale]));
  const { cover } = coverPaths(onGrid, width, height);
  return {
    width,
    height,
    scale,
    left,
    top,
    cover,
    distance: distances(cover, width, height),
    letterHeight: rough * scale,
  };
}

/** Signed distances of pixel centres; beside the outline from how much of the pixel is covered. */
function distances(cover: Float32Array, width: number, height: number): Float32Array {
  const outside = squaredDistances(cover, width, height, (share) => share >= 0.5);
  const inside = squaredDistances(cover, width, height, (share) => share < 0.5);
  const out = new Float32Array(cover.length);
  for (let i = 0; i < out.length; i++) {
    const [o, n] = [Math.sqrt(outside[i]), Math.sqrt(inside[i])];
    const isRim = (o <= 1 && n <= 1) || (cover[i] > 0 && cover[i] < 1);
    out[i] = isRim ? 0.5 - cover[i] : o > 0 ? o - 0.5 : 0.5 - n;
  }
  return out;
}

/** Squared distance to the nearest pixel that is meant (P. Felzenszwalb & D. Huttenlocher, "Distance Transforms of Sampled Functions", Theory of Computing 8, 2012). */
function squaredDistances(
  cover: Float32Array,
  width: number,
  height: number,
  isMeant: (share: number) => boolean,
): Float64Array {
  const far = (width + height) ** 2;
  const field = Float64Array.from(cover, (share) => (isMeant(share) ? 0 : far));
  const longest = Math.max(width, height);
  const line = new Float64Array(longest);
  const at = new Int32Array(longest);
  const from = new Float64Array(longest + 1);
  for (let x = 0; x < width; x++) transformLine(field, x, width, height, line, at, from);
  for (let y = 0; y < height; y++) transformLine(field, y * width, 1, width, line, at, from);
  return field;
}

/** Lower envelope of parabolas along one line of the field. */
function transformLine(
  field: Float64Array,
  start: number,
  step: number,
  count: number,
  line: Float64Array,
  at: Int32Array,
  from: Float64Array,
): void {
  for (let i = 0; i < count; i++) line[i] = field[start + i * step];
  let k = 0;
  at[0] = 0;
  from[0] = Number.NEGATIVE_INFINITY;
  from[1] = Number.POSITIVE_INFINITY;
  for (let q = 1; q < count; q++) {
    let s = crossing(line, q, at[k]);
    while (s <= from[k]) s = crossing(line, q, at[--k]);
    k++;
    at[k] = q;
    from[k] = s;
    from[k + 1] = Number.POSITIVE_INFINITY;
  }
  k = 0;
  for (let q = 0; q < count; q++) {
    while (from[k + 1] < q) k++;
    field[start + q * step] = (q - at[k]) ** 2 + line[at[k]];
  }
}

function crossing(line: Float64Array, q: number, p: number): number {
  return (line[q] + q * q - (line[p] + p * p)) / (2 * (q - p));
}

/** Distance at any place, between pixel centres in proportion; beyond the grid farther by what it is beyond. */
export function distanceAt({ distance, width, height }: OldLetters, x: number, y: number): number {
  const u = Math.min(width - 1.001, Math.max(0, x - 0.5));
  const v = Math.min(height - 1.001, Math.max(0, y - 0.5));
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const [fx, fy] = [u - i, v - j];
  const o = j * width + i;
  const upper = distance[o] + (distance[o + 1] - distance[o]) * fx;
  const lower = distance[o + width] + (distance[o + width + 1] - distance[o + width]) * fx;
  const beyond = lengthOf(x - 0.5 - u, y - 0.5 - v);
  return upper + (lower - upper) * fy + (beyond > 1 ? beyond : 0);
}
