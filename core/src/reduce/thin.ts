// Colours that never have a flat pixel: hair-thin outlines and small lettering. They are what remains unexplained.
import type { Rgb } from "../colour/index.ts";
import type { Raster } from "../raster/index.ts";
import { distanceTo, groupBins, mixDistance, nearestColour, type Palette } from "./palette.ts";

/** CIEDE2000 within which the peaks of one thin line count as one colour; wider than for flat pixels, since few peaks are pure. */
const PEAK_REACH = 9;

/** Encoded-RGB distances: to a mix of two known colours, and between peaks of one ink's line. */
const MIX_REACH = 14;
const SAME_REACH = 8;
/** Pixels of 3 x 3 that a line two pixels wide fills with its colour, less one for its turns. */
const PATCH_PX = 5;

/**
 * The strongest colour among `unexplained` pixels: of those that stand out locally most from every known colour (the
 * middle of a thin line is the purest part of it), the group with the most weight. Null if fewer than `minPeaks` agree.
 */
export function findThinColour(
  raster: Raster,
  unexplained: Uint32Array,
  palette: Palette,
  minPeaks: number,
): Rgb | null {
  const { width, height, data } = raster;
  const strength = new Uint8Array(width * height);
  for (const p of unexplained) strength[p] = strengthAt(data, p, palette);
  const peaks: number[] = [];
  const bins = new Map<number, { n: number; r: number; g: number; b: number }>();
  for (const p of unexplained) {
    if (!isPeak(strength, p, width, height)) continue;
    peaks.push(p);
    const r = data[p * 4];
    const g = data[p * 4 + 1];
    const b = data[p * 4 + 2];
    const key = ((r >> 4) << 8) | ((g >> 4) << 4) | (b >> 4);
    const bin = bins.get(key) ?? { n: 0, r: 0, g: 0, b: 0 };
    bin.n++;
    bin.r += r;
    bin.g += g;
    bin.b += b;
    bins.set(key, bin);
  }
  const groups = groupBins(
    [...bins].map(([key, { n, r, g, b }]) => ({ key, weight: n, rgb: [r / n, g / n, b / n] as Rgb })),
    PEAK_REACH,
  );
  let best: Rgb | null = null;
  let bestScore = 0;
  for (const { rgb, weight } of groups) {
    if (weight < minPeaks || isPartCoverage(raster, peaks, palette, rgb, weight)) continue;
    const score = weight * distanceTo(palette, nearestColour(palette, ...rgb), ...rgb);
    if (score > bestScore) {
      bestScore = score;
      best = rgb;
    }
  }
  return best;
}

/**
 * Whether a candidate is only a thin line in known colours, partly covering its pixels: renderers that lay edge upon edge
 * leave such lines between two shapes. It looks like a mix of two known colours, and hardly any of its peaks stands in a
 * patch of its own colour, as the middle of a line two pixels wide does.
 */
function isPartCoverage(raster: Raster, peaks: readonly number[], palette: Palette, rgb: Rgb, weight: number): boolean {
  let isMix = false;
  for (let i = 0; i < palette.size && !isMix; i++)
    for (let j = i + 1; j < palette.size && !isMix; j++) isMix = mixDistance(palette, i, j, ...rgb) <= MIX_REACH;
  if (!isMix) return false;
  let patches = 0;
  for (const p of peaks) if (countLike(raster, p, rgb) >= PATCH_PX) patches++;
  return patches * 2 < weight;
}

/** Pixels of the 3 x 3 neighbourhood of `p` that have the colour. */
function countLike({ width, height, data }: Raster, p: number, [r, g, b]: Rgb): number {
  const x = p % width;
  const y = (p - x) / width;
  let count = 0;
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
      const i = (v * width + u) * 4;
      if (Math.hypot(data[i] - r, data[i + 1] - g, data[i + 2] - b) <= SAME_REACH) count++;
    }
  return count;
}

function strengthAt(data: Uint8ClampedArray, p: number, palette: Palette): number {
  const r = data[p * 4];
  const g = data[p * 4 + 1];
  const b = data[p * 4 + 2];
  const nearest = nearestColour(palette, r, g, b);
  return nearest < 0 ? 255 : Math.min(255, Math.ceil(distanceTo(palette, nearest, r, g, b) / 2));
}

function isPeak(strength: Uint8Array, p: number, width: number, height: number): boolean {
  const own = strength[p];
  const x = p % width;
  const y = (p - x) / width;
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++)
      if (strength[v * width + u] > own) return false;
  return true;
}
