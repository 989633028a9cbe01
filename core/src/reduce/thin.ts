// Colours that never have a flat pixel: hair-thin outlines and small lettering. They are what remains unexplained.
import type { Rgb } from "../colour/index.ts";
import type { Raster } from "../raster/index.ts";
import { type MatchReach, NEAR_PX } from "./assign.ts";
import { groupBins } from "./group-bins.ts";
import { isMixOfThree, mixDistance2 } from "./mixes.ts";
import { around, gatherNearby, makeNearby } from "./nearby.ts";
import { distance2, MAX_FOUND, meanColour, nearestColour, type Palette } from "./palette.ts";

/** CIEDE2000 within which the peaks of one thin line count as one colour; wider than for flat pixels, since few peaks are pure. */
const PEAK_REACH = 9;

/** Candidates looked at, strongest first: the rest is scatter. */
const MOST_TRIED = 12;
/** Encoded-RGB distances: to a mix of two known colours, and between peaks of one ink's line. */
const MIX_REACH = 14;
const SAME_REACH = 8;
/**
 * How far from a seam its two colours are looked for, px; most that the third shines through; how far the pixels may be
 * from the mix; share of them that must be such.
 */
const SEAM_PX = 2;
const SEAM_THIRD = 0.6;
const SEAM_REACH = 6;
const SEAM_SHARE = 0.6;
const MOST_PEAKS = 200;
/** Share of a line's peaks that its colour is taken from. */
const PUREST = 0.25;
/** Pixels of 3 x 3 that a line two pixels wide fills with its colour, less one for its turns. */
const PATCH_PX = 5;

/** The search for thin colours: pixels that nothing explains yet, and how far each is from every known colour. */
export interface ThinSearch {
  readonly unexplained: Int32Array;
  /** Distance to the nearest known colour, in steps of two, at the pixels' places in the picture; 0 elsewhere. */
  readonly strength: Uint8Array;
}

export function startThinSearch(
  { width, height, data }: Raster,
  unexplained: Int32Array,
  palette: Palette,
): ThinSearch {
  const strength = new Uint8Array(width * height);
  for (let k = 0; k < unexplained.length; k++) {
    const p = unexplained[k];
    const r = data[p * 4];
    const g = data[p * 4 + 1];
    const b = data[p * 4 + 2];
    const nearest = nearestColour(palette, r, g, b);
    strength[p] = nearest < 0 ? 255 : strengthOf(distance2(palette, nearest, r, g, b));
  }
  return { unexplained, strength };
}

/**
 * Labels those unexplained pixels that plainly are the colour `label`, which is new in the palette, and goes on with those
 * that neither it explains nor its mix with a colour nearby.
 */
export function narrowThinSearch(
  { width, height, data }: Raster,
  labels: Uint8Array,
  { unexplained, strength }: ThinSearch,
  palette: Palette,
  label: number,
  reach: MatchReach,
): ThinSearch {
  const pure2 = reach.pure * reach.pure;
  const mix2 = reach.mix * reach.mix;
  const plain: number[] = [];
  for (let k = 0; k < unexplained.length; k++) {
    const p = unexplained[k];
    const own2 = distance2(palette, label, data[p * 4], data[p * 4 + 1], data[p * 4 + 2]);
    const known = strength[p] * 2;
    if (own2 <= pure2) {
      labels[p] = label;
      strength[p] = 0;
      plain.push(p);
    } else if (own2 < known * known) strength[p] = strengthOf(own2);
  }
  const nearby = makeNearby();
  for (const p of plain)
    for (const q of around(p, NEAR_PX, width, height)) {
      if (strength[q] === 0) continue;
      const r = data[q * 4];
      const g = data[q * 4 + 1];
      const b = data[q * 4 + 2];
      gatherNearby(nearby, labels, width, height, q, NEAR_PX);
      const own2 = distance2(palette, label, r, g, b);
      for (let m = 0; m < nearby.count; m++) {
        const other = nearby.list[m];
        const other2 = distance2(palette, other, r, g, b);
        if (mixDistance2(own2, other2, palette.apart2[label * MAX_FOUND + other]) <= mix2) strength[q] = 0;
      }
    }
  const left = new Int32Array(unexplained.length);
  let n = 0;
  for (let k = 0; k < unexplained.length; k++) if (strength[unexplained[k]] > 0) left[n++] = unexplained[k];
  return { unexplained: left.slice(0, n), strength };
}

function strengthOf(distance2: number): number {
  return Math.min(255, Math.ceil(Math.sqrt(distance2) / 2));
}

/**
 * The strongest colour among unexplained pixels: of those that stand out locally most from every known colour (the middle
 * of a thin line is the purest part of it), the group with the most weight. Null if fewer than `minPeaks` agree.
 */
export function findThinColour(
  raster: Raster,
  labels: Uint8Array,
  { unexplained, strength }: ThinSearch,
  palette: Palette,
  minPeaks: number,
): Rgb | null {
  const { width, height, data } = raster;
  const peaks = new Map<number, number[]>();
  for (let k = 0; k < unexplained.length; k++) {
    const p = unexplained[k];
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
    if (!isPartCoverage(raster, labels, pixels, palette, rgb)) return purestColour(raster, pixels, strength);
  }
  return null;
}

/** The colour of the peaks that stand out most: the others are covered in part only, and mixes of it. */
function purestColour(raster: Raster, peaks: readonly number[], strength: Uint8Array): Rgb {
  const strongestFirst = [...peaks].sort((a, b) => strength[b] - strength[a] || a - b);
  return meanColour(raster, strongestFirst.slice(0, Math.ceil(peaks.length * PUREST)));
}

/** Distance to the nearest known colour. */
function strangeness(palette: Palette, rgb: Rgb): number {
  const nearest = nearestColour(palette, ...rgb);
  return nearest < 0 ? 255 : Math.sqrt(distance2(palette, nearest, ...rgb));
}

/**
 * Whether a candidate is only a thin line in known colours, partly covering its pixels: renderers that lay edge upon edge
 * leave such lines between two shapes. It looks like a mix of two known colours, and hardly any of its peaks stands in a
 * patch of its own colour, as the middle of a line two pixels wide does.
 */
function isPartCoverage(
  raster: Raster,
  labels: Uint8Array,
  peaks: readonly number[],
  palette: Palette,
  rgb: Rgb,
): boolean {
  const looked = samplePeaks(peaks);
  if (!isMixOfTwo(palette, rgb) && !isSeam(raster, labels, looked, palette)) return false;
  let patches = 0;
  for (const p of looked) if (countLike(raster, p, rgb) >= PATCH_PX) patches++;
  return patches * 2 < looked.length;
}

function samplePeaks(peaks: readonly number[]): number[] {
  const stride = Math.ceil(peaks.length / MOST_PEAKS);
  return peaks.filter((_, n) => n % stride === 0);
}

/** Whether a colour looks like a mix of two known ones. */
function isMixOfTwo(palette: Palette, rgb: Rgb): boolean {
  const to2 = Array.from({ length: palette.size }, (_, i) => distance2(palette, i, ...rgb));
  return to2.some((i2, i) =>
    to2.some((j2, j) => j < i && mixDistance2(i2, j2, palette.apart2[i * MAX_FOUND + j]) <= MIX_REACH * MIX_REACH),
  );
}

/**
 * Whether most peaks are mixes of two colours around them and a smaller share of a third: renderers that lay edge upon edge
 * let a shape underneath shine through the seam of the two above it.
 */
function isSeam(raster: Raster, labels: Uint8Array, peaks: readonly number[], palette: Palette): boolean {
  const nearby = makeNearby();
  let mixed = 0;
  for (const p of peaks) {
    const [r, g, b] = raster.data.subarray(p * 4, p * 4 + 3);
    gatherNearby(nearby, labels, raster.width, raster.height, p, SEAM_PX);
    search: for (let k = 0; k < nearby.count; k++)
      for (let m = k + 1; m < nearby.count; m++)
        for (let third = 0; third < palette.size; third++)
          if (isMixOfThree(palette, nearby.list[k], nearby.list[m], third, r, g, b, SEAM_THIRD, SEAM_REACH)) {
            mixed++;
            break search;
          }
  }
  return mixed > peaks.length * SEAM_SHARE;
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

function isPeak(strength: Uint8Array, p: number, width: number, height: number): boolean {
  const own = strength[p];
  const x = p % width;
  const y = (p - x) / width;
  for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
    for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++)
      if (strength[v * width + u] > own) return false;
  return true;
}
