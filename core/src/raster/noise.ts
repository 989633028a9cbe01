// How noisy a picture is, and a filter that quiets grain and JPEG rings without moving an edge.
import { bytesAt, compiledLoops } from "../kernel/index.ts";
import type { Raster } from "./raster.ts";
import { stripsOf } from "./strips.ts";

/**
 * Shares of small steps (2 to 8) between neighbours from which a picture counts as compressed: of all pixels, and of all
 * steps. Of the steps of clean anti-aliased art up to a quarter are small, of a JPEG's over a third (measured).
 */
const LOSSY_SHARE = 0.004;
const LOSSY_STEPS = 0.3;
/** Share of pixels that differ from their neighbour in a grainy picture; drawings are flat for the most part. */
const GRAINY_SHARE = 0.5;

/**
 * How noisy a picture is: 0 for a clean drawing; else 2 for what compression leaves, plus the median step between
 * neighbouring pixels, which grain raises. Steps are the largest channel difference to the pixel on the right, both opaque. Our
 * own measure.
 */
export function measureNoise({ width, height, data }: Raster): number {
  const counts = new Uint32Array(256);
  const rowStep = Math.max(1, Math.floor(height / 512));
  const words = new Uint32Array(data.buffer, data.byteOffset, width * height);
  let total = 0;
  let different = 0;
  for (let y = 0; y < height; y += rowStep) {
    for (let p = y * width, end = p + width - 1; p < end; p++) {
      const i = p * 4;
      // What was cut away says nothing, nor does the edge it was cut along.
      if (data[i + 3] < 255 || data[i + 7] < 255) continue;
      total++;
      // Most pixels are as the one before.
      if (words[p] === words[p + 1]) continue;
      const r = Math.abs(data[i] - data[i + 4]);
      const g = Math.abs(data[i + 1] - data[i + 5]);
      const b = Math.abs(data[i + 2] - data[i + 6]);
      counts[Math.max(r, g, b)]++;
      different++;
    }
  }
  counts[0] += total - different;
  let small = 0;
  for (let step = 2; step <= 8; step++) small += counts[step];
  const steps = total - counts[0];
  const isGrainy = steps > total * GRAINY_SHARE;
  if (small < total * LOSSY_SHARE || (small < steps * LOSSY_STEPS && !isGrainy)) return 0;
  let median = 0;
  for (let seen = counts[0]; seen * 2 < total; seen += counts[median]) median++;
  return 2 + median;
}

/**
 * Sigma filter: each pixel becomes the mean of those pixels in its 5 x 5 neighbourhood that differ from it by at most
 * `reach` (0..255) in every channel; edges higher than `reach` stay where they are. Alpha is kept.
 * Source: J.-S. Lee, "Digital image smoothing and the sigma filter" (Computer Vision, Graphics, and Image Processing, 1983).
 */
export function smoothNoise(raster: Raster, reach: number): Raster {
  const smooth: Raster = { ...raster, data: new Uint8ClampedArray(raster.data.length) };
  smoothRows(raster, smooth, reach, 0, raster.height);
  return smooth;
}

/** The same for the rows from `top` up to `bottom`, into another picture of the same size. */
export function smoothRows(raster: Raster, into: Raster, reach: number, top: number, bottom: number): void {
  const { width } = raster;
  for (const { pixels, made, rows, first, end, start } of stripsOf(raster, RADIUS, [top, bottom], 4)) {
    compiledLoops().smoothRows(pixels, made, width, rows, first, end, Math.floor(reach));
    into.data.set(bytesAt(made + first * width * 4, (end - first) * width * 4), start * 4);
  }
}

/** Neighbours that are averaged, to each side. */
const RADIUS = 2;
