// The colours found so far, in flat arrays so that the per-pixel loops make no garbage.

import { ciede2000, type Lab, type Rgb, rgbToLab } from "../colour/index.ts";
import type { Raster } from "../raster/index.ts";

/** Most colours that are ever kept apart. A spot-colour job has at most 16 (trade); the rest is room for the ladder, and for sheets of many pictures. */
export const MAX_FOUND = 96;

/** A growing list of colours with their encoded sRGB channels as arrays. */
export interface Palette {
  size: number;
  readonly r: Float64Array;
  readonly g: Float64Array;
  readonly b: Float64Array;
  /** Squared distance of colours `i` and `j` at `i * MAX_FOUND + j`. */
  readonly apart2: Float64Array;
}

/** A palette of the given colours, with room for MAX_FOUND. */
export function makePalette(colours: readonly Rgb[]): Palette {
  const palette: Palette = {
    size: 0,
    r: new Float64Array(MAX_FOUND),
    g: new Float64Array(MAX_FOUND),
    b: new Float64Array(MAX_FOUND),
    apart2: new Float64Array(MAX_FOUND * MAX_FOUND),
  };
  for (const colour of colours) addColour(palette, colour);
  return palette;
}

/** Adds a colour and returns its index. Throws a RangeError beyond MAX_FOUND. */
export function addColour(palette: Palette, [r, g, b]: Rgb): number {
  if (palette.size >= MAX_FOUND) throw new RangeError(`more than ${MAX_FOUND} colours`);
  setColour(palette, palette.size, r, g, b);
  return palette.size++;
}

/** Puts a colour out of reach: it is never the nearest nor a part of a mix. Indices of the others stay. */
export function removeColour(palette: Palette, index: number): void {
  setColour(palette, index, 1e6, 1e6, 1e6);
}

function setColour(palette: Palette, index: number, r: number, g: number, b: number): void {
  palette.r[index] = r;
  palette.g[index] = g;
  palette.b[index] = b;
  for (let i = 0; i <= Math.max(index, palette.size - 1); i++) {
    const apart2 = distance2(palette, i, r, g, b);
    palette.apart2[i * MAX_FOUND + index] = apart2;
    palette.apart2[index * MAX_FOUND + i] = apart2;
  }
}

/** The colours of a palette, channels rounded to bytes. */
export function paletteColours(palette: Palette): Rgb[] {
  return Array.from({ length: palette.size }, (_, i) => [
    Math.round(palette.r[i]),
    Math.round(palette.g[i]),
    Math.round(palette.b[i]),
  ]);
}

/** Index of the palette colour nearest in encoded RGB; -1 for an empty palette. */
export function nearestColour(palette: Palette, r: number, g: number, b: number): number {
  let best = -1;
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < palette.size; i++) {
    const d2 = distance2(palette, i, r, g, b);
    if (d2 < least) {
      least = d2;
      best = i;
    }
  }
  return best;
}

/** Squared encoded-RGB distance of a pixel to palette colour `i`. */
export function distance2(palette: Palette, i: number, r: number, g: number, b: number): number {
  const dr = palette.r[i] - r;
  const dg = palette.g[i] - g;
  const db = palette.b[i] - b;
  return dr * dr + dg * dg + db * db;
}

/**
 * The share of colour `i` (0..1) in a pixel mixed of colours `i` and `j`, from its squared distances to the two and theirs
 * to each other: renderers mix encoded values, so encoded values unmix.
 */
export function mixShare(i2: number, j2: number, apart2: number): number {
  if (apart2 === 0) return 1;
  const t = (j2 + apart2 - i2) / (2 * apart2);
  return t < 0 ? 0 : Math.min(t, 1);
}

/** Squared distance of a pixel to the nearest mix of two colours, from the same three distances. */
export function mixDistance2(i2: number, j2: number, apart2: number): number {
  const along = (j2 + apart2 - i2) / 2;
  if (along <= 0) return j2;
  if (along >= apart2) return i2;
  const d2 = j2 - (along * along) / apart2;
  return Math.max(d2, 0);
}

/**
 * Encoded-RGB distance of a pixel to the nearest mix of colours `i` and `j` whose luma and chroma are mixed each on its
 * own: JPEG keeps chroma at half the resolution (ITU-T T.871 gives the transform), so a thin line has its own lightness
 * with the hue of what lies beside it.
 */
export function bleedDistance(palette: Palette, i: number, j: number, r: number, g: number, b: number): number {
  const yi = luma(palette.r[i], palette.g[i], palette.b[i]);
  const yj = luma(palette.r[j], palette.g[j], palette.b[j]);
  const y = luma(r, g, b);
  const dy = y < Math.min(yi, yj) ? Math.min(yi, yj) - y : y > Math.max(yi, yj) ? y - Math.max(yi, yj) : 0;
  // Chroma as r - y and b - y: differences of the two are all that counts.
  const ur = palette.r[i] - yi - palette.r[j] + yj;
  const ub = palette.b[i] - yi - palette.b[j] + yj;
  const length2 = ur * ur + ub * ub;
  const pr = r - y - palette.r[j] + yj;
  const pb = b - y - palette.b[j] + yj;
  const t = length2 === 0 ? 0 : Math.min(1, Math.max(0, (pr * ur + pb * ub) / length2));
  const cr = pr - t * ur;
  const cb = pb - t * ub;
  return Math.sqrt(dy * dy + cr * cr + cb * cb);
}

function luma(r: number, g: number, b: number): number {
  return 0.299 * r + 0.587 * g + 0.114 * b;
}

/** Whether a pixel is a mix, within `reach` (encoded RGB), of colours `i`, `j` and at most `mostOfK` of `k`. */
export function isMixOfThree(
  palette: Palette,
  i: number,
  j: number,
  k: number,
  r: number,
  g: number,
  b: number,
  mostOfK: number,
  reach: number,
): boolean {
  // Barycentric coordinates of the pixel's foot on the plane of the three.
  const ar = palette.r[j] - palette.r[i];
  const ag = palette.g[j] - palette.g[i];
  const ab = palette.b[j] - palette.b[i];
  const br = palette.r[k] - palette.r[i];
  const bg = palette.g[k] - palette.g[i];
  const bb = palette.b[k] - palette.b[i];
  const pr = r - palette.r[i];
  const pg = g - palette.g[i];
  const pb = b - palette.b[i];
  const aa = ar * ar + ag * ag + ab * ab;
  const ba = ar * br + ag * bg + ab * bb;
  const bb2 = br * br + bg * bg + bb * bb;
  const pa = pr * ar + pg * ag + pb * ab;
  const pb2 = pr * br + pg * bg + pb * bb;
  const det = aa * bb2 - ba * ba;
  if (det <= 1e-6 * aa * bb2) return false;
  const u = (bb2 * pa - ba * pb2) / det;
  const v = (aa * pb2 - ba * pa) / det;
  if (u < 0 || v < 0 || u + v > 1 || v > mostOfK) return false;
  const dr = pr - u * ar - v * br;
  const dg = pg - u * ag - v * bg;
  const db = pb - u * ab - v * bb;
  return dr * dr + dg * dg + db * db <= reach * reach;
}

/** Mean colour of some pixels (indices). */
export function meanColour({ data }: Raster, pixels: ArrayLike<number>): Rgb {
  let r = 0;
  let g = 0;
  let b = 0;
  for (let k = 0; k < pixels.length; k++) {
    const i = pixels[k] * 4;
    r += data[i];
    g += data[i + 1];
    b += data[i + 2];
  }
  return [r / pixels.length, g / pixels.length, b / pixels.length];
}

/** Counted bins of colour, to be grouped. `weight` is in pixels; channel sums are weighted. */
export interface ColourBin {
  readonly key: number;
  readonly weight: number;
  readonly rgb: Rgb;
}

/** A group of bins: its mean colour, its weight and the keys of its bins. */
export interface ColourGroup {
  readonly rgb: Rgb;
  readonly weight: number;
  readonly keys: readonly number[];
}

/**
 * Groups bins, heaviest first: a bin joins the first group whose seed is within `reach` (CIEDE2000), else seeds its own.
 * Null as soon as there are more than `most` groups: art that shades everywhere would make every bin a group.
 */
export function groupBins(bins: readonly ColourBin[], reach: number, most: number): ColourGroup[] | null {
  const sorted = [...bins].sort((a, b) => b.weight - a.weight || a.key - b.key);
  const groups: { lab: Lab; sum: [number, number, number]; weight: number; keys: number[] }[] = [];
  for (const { key, weight, rgb } of sorted) {
    const lab = rgbToLab(rgb);
    let home = groups.find(
      (group) => Math.abs(group.lab[0] - lab[0]) < reach * 2.5 && ciede2000(group.lab, lab) < reach,
    );
    if (!home) {
      if (groups.length === most) return null;
      home = { lab, sum: [0, 0, 0], weight: 0, keys: [] };
      groups.push(home);
    }
    home.weight += weight;
    home.keys.push(key);
    for (let c = 0; c < 3; c++) home.sum[c] += rgb[c] * weight;
  }
  return groups.map(({ sum, weight, keys }) => ({
    rgb: [sum[0] / weight, sum[1] / weight, sum[2] / weight],
    weight,
    keys,
  }));
}
