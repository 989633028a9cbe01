// A poured fill runs under the lines that enclose it, to their middle: then no bare gap shows between line and fill, at any
// zoom or through any misregister.
import { rgbToLab } from "../colour/index.ts";
import { type LabelMap, NONE } from "../raster/index.ts";
import type { UnderLine } from "./assign-spots.ts";
import type { Spot } from "./reduce.ts";

/** Farther than this a fill runs under nothing, px: what is wider is an area, not a line. */
const MOST_PX = 40;
/** Lengths of a step along and across the grid, in fifths of a pixel: G. Borgefors, "Distance transformations in digital images" (1986), 5-7 mask. */
const ALONG = 5;
const ACROSS = 7;

/**
 * The fill's area with the pixels of darker inks beside it that lie nearer to it than to whatever else borders them. Empty if
 * nothing darker borders it.
 */
export function runUnder(map: LabelMap, area: Uint32Array, spot: number, spots: readonly Spot[]): UnderLine[] {
  const lightness = spots.map(({ rgb }) => rgbToLab(rgb)[0]);
  const { width } = map;
  let left = width;
  let right = 0;
  let top = map.height;
  let bottom = 0;
  for (const p of area) {
    const x = p % width;
    const y = (p - x) / width;
    left = Math.min(left, x);
    right = Math.max(right, x);
    top = Math.min(top, y);
    bottom = Math.max(bottom, y);
  }
  // As far again beyond the widest line: what lies there has its own share of it.
  const x0 = Math.max(0, left - 2 * MOST_PX);
  const x1 = Math.min(width, right + 1 + 2 * MOST_PX);
  const y0 = Math.max(0, top - 2 * MOST_PX);
  const y1 = Math.min(map.height, bottom + 1 + 2 * MOST_PX);
  const w = x1 - x0;
  const h = y1 - y0;
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
  return under === 0 ? [] : [{ spotId: spots[spot].id, x: x0, y: y0, mask: { width: w, height: h, data } }];
}
