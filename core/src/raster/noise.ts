// How noisy a picture is, and a filter that quiets grain and JPEG rings without moving an edge.
import type { Raster } from "./raster.ts";

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
  const { width, height, data } = raster;
  const words = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const out = data.slice();
  // Away from edges compressed pictures are mostly level; what is all of one colour need not be averaged.
  const level = Array.from({ length: ROWS }, () => new Uint8Array(width));
  for (let y = 0; y < Math.min(RADIUS, height); y++) markLevel(words, y * width, width, level[y]);
  for (let y = 0; y < height; y++) {
    if (y + RADIUS < height) markLevel(words, (y + RADIUS) * width, width, level[(y + RADIUS) % ROWS]);
    const y0 = Math.max(0, y - RADIUS);
    const y1 = Math.min(height - 1, y + RADIUS);
    for (let x = 0; x < width; x++) {
      const p = y * width + x;
      let isLevel = true;
      for (let v = y0; v <= y1 && isLevel; v++) isLevel = level[v % ROWS][x] === 1 && words[v * width + x] === words[p];
      if (!isLevel) averageAlike(raster, out, x, y, y0, y1, reach);
    }
  }
  return { width, height, data: out };
}

const RADIUS = 2;
const ROWS = 2 * RADIUS + 1;

/** Marks with 1 the pixels of a row that equal those up to RADIUS away in it, as far as there are any. */
function markLevel(words: Uint32Array, start: number, width: number, out: Uint8Array): void {
  for (let x = 0; x < width; ) {
    const word = words[start + x];
    let end = x + 1;
    while (end < width && words[start + end] === word) end++;
    const from = x === 0 ? 0 : Math.min(end, x + RADIUS);
    const to = end === width ? width : Math.max(from, end - RADIUS);
    out.fill(0, x, end);
    out.fill(1, from, to);
    x = end;
  }
}

function averageAlike(
  { width, data }: Raster,
  out: Uint8ClampedArray,
  x: number,
  y: number,
  y0: number,
  y1: number,
  reach: number,
): void {
  const i = (y * width + x) * 4;
  const r = data[i];
  const g = data[i + 1];
  const b = data[i + 2];
  const x0 = Math.max(0, x - RADIUS);
  const x1 = Math.min(width - 1, x + RADIUS);
  let n = 0;
  let sumR = 0;
  let sumG = 0;
  let sumB = 0;
  for (let v = y0; v <= y1; v++) {
    let j = (v * width + x0) * 4;
    for (let u = x0; u <= x1; u++, j += 4) {
      const dr = data[j] - r;
      const dg = data[j + 1] - g;
      const db = data[j + 2] - b;
      if (dr > reach || dr < -reach || dg > reach || dg < -reach || db > reach || db < -reach) continue;
      n++;
      sumR += dr;
      sumG += dg;
      sumB += db;
    }
  }
  out[i] = Math.round(r + sumR / n);
  out[i + 1] = Math.round(g + sumG / n);
  out[i + 2] = Math.round(b + sumB / n);
}
