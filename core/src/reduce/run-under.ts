// A poured fill runs under the lines that enclose it, to their middle: then no bare gap shows between line and fill, at any
// zoom or through any misregister.
import { rgbToLab } from "../colour/index.ts";
import { type Box, type LabelMap, NONE } from "../raster/index.ts";
import type { Spot } from "./reduce.ts";

/** What a poured area runs under: its own pixels and those of the lines round it, as far as their middle. */
export interface UnderLine {
  readonly spotId: string;
  readonly x: number;
  readonly y: number;
  /** 0 where it is, NONE elsewhere. */
  readonly mask: LabelMap;
}

/** An area that was poured full, by the spot's index. */
export interface Poured {
  readonly area: Int32Array;
  readonly spot: number;
  /** What decides where it runs under lines. */
  readonly window: Box;
}

/** Farther than this a fill runs under nothing, px: what is wider is an area, not a line. */
const MOST_PX = 40;
/** Lengths of a step along and across the grid, in fifths of a pixel: G. Borgefors, "Distance transformations in digital images" (1986), 5-7 mask. */
const ALONG = 5;
const ACROSS = 7;

/** The part of the picture that decides what an area runs under: twice the widest line around it. */
export function windowAround(area: Int32Array, width: number, height: number): Box {
  let left = width;
  let right = 0;
  let first = width * height;
  let last = 0;
  for (let k = 0; k < area.length; k++) {
    const x = area[k] % width;
    if (x < left) left = x;
    if (x > right) right = x;
    if (area[k] < first) first = area[k];
    if (area[k] > last) last = area[k];
  }
  // What lies as far beyond the widest line as it is wide has its own share of it.
  const x = Math.max(0, left - 2 * MOST_PX);
  const y = Math.max(0, Math.floor(first / width) - 2 * MOST_PX);
  return {
    x,
    y,
    width: Math.min(width, right + 1 + 2 * MOST_PX) - x,
    height: Math.min(height, Math.floor(last / width) + 1 + 2 * MOST_PX) - y,
  };
}

/**
 * The fill's area with the pixels of darker inks beside it that lie nearer to it than to whatever else borders them. Null if
 * nothing darker borders it.
 */
export function runUnder(map: LabelMap, { area, window, spot }: Poured, spots: readonly Spot[]): UnderLine | null {
  const lightness = spots.map(({ rgb }) => rgbToLab(rgb)[0]);
  const { width } = map;
  const { x: x0, y: y0, width: w, height: h } = window;
  const isLine = (label: number) =>
    label !== NONE && label !== spot && spots[label].role === "ink" && lightness[label] < lightness[spot];
  // Distance to the nearest pixel that is no line, and whether that is one of the fill's.
  const distance = new Uint16Array(w * h).fill(60_000);
  const isOurs = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) if (!isLine(map.data[(y + y0) * width + x + x0])) distance[y * w + x] = 0;
  // What was given to another spot since is no longer the fill's.
  for (const p of area) if (map.data[p] === spot) isOurs[(Math.floor(p / width) - y0) * w + (p % width) - x0] = 1;
  const relax = (q: number, from: number, step: number) => {
    const next = distance[from] + step;
    if (next > distance[q] || (next === distance[q] && isOurs[from] <= isOurs[q])) return;
    distance[q] = next;
    isOurs[q] = isOurs[from];
  };
  const sweep = (backward: boolean) => {
    const sign = backward ? -1 : 1;
    for (let k = 0; k < w * h; k++) {
      const q = backward ? w * h - 1 - k : k;
      if (distance[q] === 0) continue;
      const x = q % w;
      const hasBefore = backward ? x < w - 1 : x > 0;
      const hasAfter = backward ? x > 0 : x < w - 1;
      const above = q - sign * w;
      const hasAbove = above >= 0 && above < w * h;
      if (hasBefore) relax(q, q - sign, ALONG);
      if (!hasAbove) continue;
      relax(q, above, ALONG);
      if (hasBefore) relax(q, above - sign, ACROSS);
      if (hasAfter) relax(q, above + sign, ACROSS);
    }
  };
  sweep(false);
  sweep(true);
  const data = new Uint8Array(w * h).fill(NONE);
  let under = 0;
  for (let q = 0; q < w * h; q++) {
    if (isOurs[q] === 0 || distance[q] > MOST_PX * ALONG) continue;
    data[q] = 0;
    if (distance[q] > 0) under++;
  }
  return under === 0 ? null : { spotId: spots[spot].id, x: x0, y: y0, mask: { width: w, height: h, data } };
}
