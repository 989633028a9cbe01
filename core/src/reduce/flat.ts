// Flat pixels: those that look like all their neighbours. They alone say which colours the artist used.
import { NONE, OPAQUE_ALPHA, type Raster } from "../raster/index.ts";
import type { ColourBin } from "./palette.ts";

/** Label of a pixel that is still to be assigned. */
export const UNKNOWN = 254;
/** Label of a flat pixel whose colour has not been looked up yet. */
const FLAT = 253;

/** Five bits a channel: a bin is smaller than the difference at which two inks count as two. */
export function binOf(r: number, g: number, b: number): number {
  return ((r >> 3) << 10) | ((g >> 3) << 5) | (b >> 3);
}

const BINS = 1 << 15;

/** Flat pixels marked in `labels`, and what colours they have. */
export interface FlatPixels {
  /** FLAT pixels, UNKNOWN pixels and NONE (transparent), to be overwritten by the assignment. */
  readonly labels: Uint8Array;
  readonly bins: readonly ColourBin[];
  readonly opaquePx: number;
  readonly flatPx: number;
}

/**
 * Finds every pixel whose 3 x 3 neighbourhood differs from it by at most `reach` in every channel. Linear in pixels.
 * Pixels at the picture's border are compared with the neighbours they have.
 */
export function findFlatPixels(raster: Raster, reach: number): FlatPixels {
  const { width, height, data } = raster;
  const words = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const labels = new Uint8Array(width * height).fill(UNKNOWN);
  const count = new Uint32Array(BINS);
  const sumR = new Float64Array(BINS);
  const sumG = new Float64Array(BINS);
  const sumB = new Float64Array(BINS);
  let opaquePx = 0;
  let flatPx = 0;
  // Clean art is mostly runs of exactly equal pixels: `level` says, for three rows at a time, whether a pixel equals both
  // its neighbours in the row, so that most pixels are decided by five comparisons.
  const level = [0, 1, 2].map(() => new Uint8Array(width));
  for (let y = 0; y < Math.min(2, height); y++) markLevel(words, y * width, width, level[y]);
  for (let y = 0; y < height; y++) {
    const up = y > 0 ? -width : 0;
    const down = y < height - 1 ? width : 0;
    if (y > 0 && y < height - 1) markLevel(words, (y + 1) * width, width, level[(y + 1) % 3]);
    const levelUp = level[(y > 0 ? y - 1 : y) % 3];
    const levelHere = level[y % 3];
    const levelDown = level[(y < height - 1 ? y + 1 : y) % 3];
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      const i = p * 4;
      if (data[i + 3] < OPAQUE_ALPHA) {
        labels[p] = NONE;
        continue;
      }
      opaquePx++;
      const isLevel =
        (levelUp[x] & levelHere[x] & levelDown[x]) === 1 && words[p + up] === words[p] && words[p + down] === words[p];
      if (!isLevel && !isFlat(data, p, x > 0 ? -1 : 0, x < width - 1 ? 1 : 0, up, down, reach)) continue;
      labels[p] = FLAT;
      flatPx++;
      const bin = binOf(data[i], data[i + 1], data[i + 2]);
      count[bin]++;
      sumR[bin] += data[i];
      sumG[bin] += data[i + 1];
      sumB[bin] += data[i + 2];
    }
  }
  const bins: ColourBin[] = [];
  for (let key = 0; key < BINS; key++) {
    const n = count[key];
    if (n > 0) bins.push({ key, weight: n, rgb: [sumR[key] / n, sumG[key] / n, sumB[key] / n] });
  }
  return { labels, bins, opaquePx, flatPx };
}

/** Replaces FLAT by the label of its colour's bin; `labelOfBin` holds UNKNOWN where no colour took the bin. */
export function labelFlatPixels({ data }: Raster, labels: Uint8Array, labelOfBin: Uint8Array): void {
  for (let p = 0; p < labels.length; p++) {
    if (labels[p] !== FLAT) continue;
    const i = p * 4;
    labels[p] = labelOfBin[binOf(data[i], data[i + 1], data[i + 2])];
  }
}

/** An empty look-up from bin to label. */
export function makeBinLabels(): Uint8Array {
  return new Uint8Array(BINS).fill(UNKNOWN);
}

/** Marks with 1 the pixels of a row that equal their neighbours in it; a border pixel has one neighbour. */
function markLevel(words: Uint32Array, start: number, width: number, out: Uint8Array): void {
  let sameAsLeft = 1;
  for (let x = 0; x < width; x++) {
    const sameAsRight = x === width - 1 || words[start + x] === words[start + x + 1] ? 1 : 0;
    out[x] = sameAsLeft & sameAsRight;
    sameAsLeft = sameAsRight;
  }
}

function isFlat(
  data: Uint8ClampedArray,
  p: number,
  left: number,
  right: number,
  up: number,
  down: number,
  reach: number,
): boolean {
  return (
    isNear(data, p, p + left, reach) &&
    isNear(data, p, p + right, reach) &&
    isNear(data, p, p + up, reach) &&
    isNear(data, p, p + down, reach) &&
    isNear(data, p, p + up + left, reach) &&
    isNear(data, p, p + up + right, reach) &&
    isNear(data, p, p + down + left, reach) &&
    isNear(data, p, p + down + right, reach)
  );
}

function isNear(data: Uint8ClampedArray, p: number, q: number, reach: number): boolean {
  const i = p * 4;
  const j = q * 4;
  return (
    Math.abs(data[i] - data[j]) <= reach &&
    Math.abs(data[i + 1] - data[j + 1]) <= reach &&
    Math.abs(data[i + 2] - data[j + 2]) <= reach &&
    Math.abs(data[i + 3] - data[j + 3]) <= 2 * reach
  );
}
