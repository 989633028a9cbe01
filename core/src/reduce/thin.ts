// Colours that never have a flat pixel: hair-thin outlines and small lettering. They are what remains unexplained.
import type { Rgb } from "../colour/index.ts";
import type { Raster } from "../raster/index.ts";
import { distanceTo, groupBins, meanColour, mixDistance, nearestColour, type Palette } from "./palette.ts";

/** CIEDE2000 within which the peaks of one thin line count as one colour; wider than for flat pixels, since few peaks are pure. */
const PEAK_REACH = 9;

/** Candidates looked at, strongest first: the rest is scatter. */
const MOST_TRIED = 12;
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
  const peaks = new Map<number, number[]>();
  for (const p of unexplained) {
    if (!isPeak(strength, p, width, height)) continue;
    const key = ((data[p * 4] >> 4) << 8) | ((data[p * 4 + 1] >> 4) << 4) | (data[p * 4 + 2] >> 4);
    const bin = peaks.get(key);
    if (bin) bin.push(p);
    else peaks.set(key, [p]);
  }
  const bins = [...peaks].map(([key, pixels]) => ({ key, weight: pixels.length, rgb: meanColour(raster, pixels) }));
  const candidates = (groupBins(bins, PEAK_REACH, bins.length) ?? [])
    .filter((group) => group.weight >= minPeaks)
    .map((group) => ({ ...group, score: group.weight * strangeness(palette, group.rgb) }))
    .sort((a, b) => b.score - a.score);
  for (const { rgb, keys } of candidates.slice(0, MOST_TRIED)) {
    const pixels = keys.flatMap((key) => peaks.get(key) ?? []);
    if (!isPartCoverage(raster, pixels, palette, rgb)) return rgb;
  }
  return null;
}

/** Distance to the nearest known colour. */
function strangeness(palette: Palette, rgb: Rgb): number {
  const nearest = nearestColour(palette, ...rgb);
  return nearest < 0 ? 255 : distanceTo(palette, nearest, ...rgb);
}

/**
 * Whether a candidate is only a thin line in known colours, partly covering its pixels: renderers that lay edge upon edge
 * leave such lines between two shapes. It looks like a mix of two known colours, and hardly any of its peaks stands in a
 * patch of its own colour, as the middle of a line two pixels wide does.
 */
function isPartCoverage(raster: Raster, peaks: readonly number[], palette: Palette, rgb: Rgb): boolean {
  let isMix = false;
  for (let i = 0; i < palette.size && !isMix; i++)
    for (let j = i + 1; j < palette.size && !isMix; j++) isMix = mixDistance(palette, i, j, ...rgb) <= MIX_REACH;
  if (!isMix) return false;
  let patches = 0;
  for (const p of peaks) if (countLike(raster, p, rgb) >= PATCH_PX) patches++;
  return patches * 2 < peaks.length;
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
  return Math.min(255, Math.ceil(strangeness(palette, [data[p * 4], data[p * 4 + 1], data[p * 4 + 2]]) / 2));
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
