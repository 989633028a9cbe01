// The colours found so far, in flat arrays so that the per-pixel loops make no garbage.

import { ciede2000, type Lab, type Rgb, rgbToLab } from "../colour/index.ts";
import type { Raster } from "../raster/index.ts";

/** Most colours that are ever kept apart. A spot-colour job has at most 16 (trade); the rest is room for the ladder. */
export const MAX_FOUND = 48;

/** A growing list of colours with their encoded sRGB channels as arrays. */
export interface Palette {
  size: number;
  readonly r: Float64Array;
  readonly g: Float64Array;
  readonly b: Float64Array;
}

/** A palette of the given colours, with room for MAX_FOUND. */
export function makePalette(colours: readonly Rgb[]): Palette {
  const palette: Palette = {
    size: 0,
    r: new Float64Array(MAX_FOUND),
    g: new Float64Array(MAX_FOUND),
    b: new Float64Array(MAX_FOUND),
  };
  for (const colour of colours) addColour(palette, colour);
  return palette;
}

/** Adds a colour and returns its index. Throws a RangeError beyond MAX_FOUND. */
export function addColour(palette: Palette, [r, g, b]: Rgb): number {
  if (palette.size >= MAX_FOUND) throw new RangeError(`more than ${MAX_FOUND} colours`);
  palette.r[palette.size] = r;
  palette.g[palette.size] = g;
  palette.b[palette.size] = b;
  return palette.size++;
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
  let bestDistance = Number.POSITIVE_INFINITY;
  for (let i = 0; i < palette.size; i++) {
    const distance = (palette.r[i] - r) ** 2 + (palette.g[i] - g) ** 2 + (palette.b[i] - b) ** 2;
    if (distance < bestDistance) {
      bestDistance = distance;
      best = i;
    }
  }
  return best;
}

/** Encoded-RGB distance of a pixel to palette colour `i`. */
export function distanceTo(palette: Palette, i: number, r: number, g: number, b: number): number {
  return Math.sqrt((palette.r[i] - r) ** 2 + (palette.g[i] - g) ** 2 + (palette.b[i] - b) ** 2);
}

/** The share of colour `i` (0..1) in a pixel mixed of colours `i` and `j`: renderers mix encoded values, so encoded values unmix. */
export function unmix(palette: Palette, i: number, j: number, r: number, g: number, b: number): number {
  const dr = palette.r[i] - palette.r[j];
  const dg = palette.g[i] - palette.g[j];
  const db = palette.b[i] - palette.b[j];
  const length2 = dr * dr + dg * dg + db * db;
  if (length2 === 0) return 1;
  const t = ((r - palette.r[j]) * dr + (g - palette.g[j]) * dg + (b - palette.b[j]) * db) / length2;
  return t < 0 ? 0 : Math.min(t, 1);
}

/** Encoded-RGB distance of a pixel to the nearest mix of colours `i` and `j`. */
export function mixDistance(palette: Palette, i: number, j: number, r: number, g: number, b: number): number {
  const t = unmix(palette, i, j, r, g, b);
  const mr = palette.r[j] + t * (palette.r[i] - palette.r[j]) - r;
  const mg = palette.g[j] + t * (palette.g[i] - palette.g[j]) - g;
  const mb = palette.b[j] + t * (palette.b[i] - palette.b[j]) - b;
  return Math.sqrt(mr * mr + mg * mg + mb * mb);
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
