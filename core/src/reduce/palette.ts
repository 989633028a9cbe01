// The colours found so far, in flat arrays so that the per-pixel loops make no garbage.

import type { Rgb } from "../colour/index.ts";
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

/**
 * Puts a colour out of reach: it is never the nearest. Whoever mixes with any colour asks `isInReach`. Indices of the others
 * stay.
 */
export function removeColour(palette: Palette, index: number): void {
  setColour(palette, index, 1e6, 1e6, 1e6);
}

/** Whether a colour was not put out of reach: on the way to one that was lie all greys. */
export function isInReach(palette: Palette, index: number): boolean {
  return palette.r[index] <= 255;
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
