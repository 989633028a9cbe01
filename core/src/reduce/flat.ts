// Flat pixels: those that look like all their neighbours. They alone say which colours the artist used. Clean art is mostly
// runs of exactly equal pixels, so they are found and labelled run by run, not pixel by pixel.
import { NONE, OPAQUE_ALPHA, type Raster } from "../raster/index.ts";
import type { ColourBin } from "./group-bins.ts";

/** Label of a pixel that is still to be assigned. */
export const UNKNOWN = 254;

/** Five bits a channel: a bin is smaller than the difference at which two inks count as two. */
export const BINS = 1 << 15;

/** Stretches of pixels along rows, as indices from `starts` up to but without `ends`; `bins` are those of their colours. */
export interface Spans {
  readonly starts: Int32Array;
  readonly ends: Int32Array;
  readonly bins: Uint16Array;
}

/** Flat pixels and what colours they have. */
export interface FlatPixels {
  /** UNKNOWN and NONE (transparent), to be overwritten by the assignment. */
  readonly labels: Uint8Array;
  /** All flat pixels, in order. */
  readonly spans: Spans;
  readonly bins: readonly ColourBin[];
  readonly opaquePx: number;
  readonly flatPx: number;
}

/** Runs of equal pixels of one row: where each starts; `count` of them, and the row's end behind the last. */
interface Row {
  count: number;
  readonly starts: Int32Array;
}

/** What of the rows from one up to another is flat: spans, and the sums of colours by their bins. */
export interface FlatRows {
  readonly spans: Spans;
  readonly colours: ColourSums;
  readonly opaquePx: number;
}

/** Bins that occur, pixels of each, and the sums of their red, green and blue. */
export interface ColourSums {
  readonly keys: Uint16Array;
  readonly counts: Float64Array;
  readonly sums: Float64Array;
}

/** Finds every flat pixel of a picture. */
export function findFlatPixels(raster: Raster, reach: number): FlatPixels {
  const labels = new Uint8Array(raster.width * raster.height).fill(UNKNOWN);
  return joinRows(labels, [findFlatRows(raster, labels, reach, 0, raster.height)]);
}

/** What was found in rows upon rows of a picture, from its first to its last, as one. */
export function joinRows(labels: Uint8Array, parts: readonly FlatRows[]): FlatPixels {
  const length = parts.reduce((sum, { spans }) => sum + spans.starts.length, 0);
  const spans = { starts: new Int32Array(length), ends: new Int32Array(length), bins: new Uint16Array(length) };
  const count = new Float64Array(BINS);
  const sum = new Float64Array(BINS * 3);
  let n = 0;
  let opaquePx = 0;
  for (const part of parts) {
    spans.starts.set(part.spans.starts, n);
    spans.ends.set(part.spans.ends, n);
    spans.bins.set(part.spans.bins, n);
    n += part.spans.starts.length;
    opaquePx += part.opaquePx;
    const { keys, counts, sums } = part.colours;
    for (let k = 0; k < keys.length; k++) {
      count[keys[k]] += counts[k];
      for (let c = 0; c < 3; c++) sum[keys[k] * 3 + c] += sums[k * 3 + c];
    }
  }
  const bins: ColourBin[] = [];
  let flatPx = 0;
  for (let key = 0; key < BINS; key++) {
    const c = count[key];
    if (c === 0) continue;
    flatPx += c;
    bins.push({ key, weight: c, rgb: [sum[key * 3] / c, sum[key * 3 + 1] / c, sum[key * 3 + 2] / c] });
  }
  return { labels, spans, bins, opaquePx, flatPx };
}

/**
 * Finds every pixel from row `top` up to row `bottom` whose 3 x 3 neighbourhood differs from it by at most `reach` in every
 * channel, and labels transparent ones NONE. Linear in pixels. Pixels at the picture's border are compared with the
 * neighbours they have.
 */
export function findFlatRows(raster: Raster, labels: Uint8Array, reach: number, top: number, bottom: number): FlatRows {
  const { width, height, data } = raster;
  const words = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const collected = collectSpans();
  let opaquePx = 0;
  const rows = [0, 1, 2].map((): Row => ({ count: 0, starts: new Int32Array(width + 1) }));
  for (let y = Math.max(0, top - 1); y <= Math.min(top, height - 1); y++)
    readRuns(words, y * width, width, rows[y % 3]);
  for (let y = top; y < bottom; y++) {
    if (y < height - 1) readRuns(words, (y + 1) * width, width, rows[(y + 1) % 3]);
    const here = rows[y % 3];
    const above = y > 0 ? rows[(y - 1) % 3] : null;
    const below = y < height - 1 ? rows[(y + 1) % 3] : null;
    const rowStart = y * width;
    const rowEnd = rowStart + width;
    let up = 0;
    let down = 0;
    for (let run = 0; run < here.count; run++) {
      const start = here.starts[run];
      const end = here.starts[run + 1];
      const word = words[start];
      if (word >>> 24 < OPAQUE_ALPHA) {
        labels.fill(NONE, start, end);
        continue;
      }
      opaquePx += end - start;
      // What lies inside runs of the same colour above and below is flat; the rest is looked at pixel by pixel.
      let done = start;
      const from = start > rowStart ? start + 1 : start;
      const to = end < rowEnd ? end - 1 : end;
      while (above && above.starts[up + 1] + width <= start) up++;
      for (let a = up; done < end && (above === null || (a < above.count && above.starts[a] + width < end)); a++) {
        if (above && words[above.starts[a]] !== word) continue;
        const aFrom = above ? inside(above.starts[a] + width, rowStart, from) : from;
        const aTo = above ? insideEnd(above.starts[a + 1] + width, rowEnd, to) : to;
        if (aFrom < aTo) {
          while (below && below.starts[down + 1] - width <= aFrom) down++;
          for (let b = down; below === null || (b < below.count && below.starts[b] - width < aTo); b++) {
            if (below && words[below.starts[b]] !== word) continue;
            const bFrom = below ? inside(below.starts[b] - width, rowStart, aFrom) : aFrom;
            const bTo = below ? insideEnd(below.starts[b + 1] - width, rowEnd, aTo) : aTo;
            if (bFrom < bTo) {
              addSingles(raster, collected, done, bFrom, reach);
              collected.add(bFrom, bTo, word);
              done = bTo;
            }
            if (below === null) break;
          }
        }
        if (above === null) break;
      }
      addSingles(raster, collected, done, end, reach);
    }
  }
  return { ...collected.finish(), opaquePx };
}

/** The first pixel inside a run that begins at `start`, at least `least`; a run at the picture's border has no pixel before it. */
function inside(start: number, rowStart: number, least: number): number {
  const first = start > rowStart ? start + 1 : start;
  return Math.max(first, least);
}

/** The end of the inside of a run that ends at `end`, at most `most`. */
function insideEnd(end: number, rowEnd: number, most: number): number {
  const last = end < rowEnd ? end - 1 : end;
  return Math.min(last, most);
}

function readRuns(words: Uint32Array, start: number, width: number, row: Row): void {
  const end = start + width;
  let count = 0;
  for (let p = start; p < end; ) {
    row.starts[count++] = p;
    const word = words[p++];
    while (p < end && words[p] === word) p++;
  }
  row.starts[count] = end;
  row.count = count;
}

/** Those of the pixels from `from` up to `to`, all of one row, that are flat without being level. */
function addSingles(raster: Raster, spans: SpanCollector, from: number, to: number, reach: number): void {
  const { width, height, data } = raster;
  for (let p = from; p < to; p++) {
    const x = p % width;
    const y = (p - x) / width;
    const left = x > 0 ? -1 : 0;
    const right = x < width - 1 ? 1 : 0;
    const up = y > 0 ? -width : 0;
    const down = y < height - 1 ? width : 0;
    if (!isFlat(data, p, left, right, up, down, reach)) continue;
    const i = p * 4;
    spans.add(p, p + 1, ((data[i + 2] << 16) | (data[i + 1] << 8) | data[i]) >>> 0);
  }
}

type SpanCollector = ReturnType<typeof collectSpans>;

/** Gathers spans and counts their colours. */
function collectSpans() {
  let starts = new Int32Array(4096);
  let ends = new Int32Array(4096);
  let bins = new Uint16Array(4096);
  let n = 0;
  const count = new Uint32Array(BINS);
  const sumR = new Float64Array(BINS);
  const sumG = new Float64Array(BINS);
  const sumB = new Float64Array(BINS);
  return {
    /** A span of one colour, little-endian RGBA. */
    add(start: number, end: number, word: number): void {
      const r = word & 255;
      const g = (word >>> 8) & 255;
      const b = (word >>> 16) & 255;
      const bin = ((r >> 3) << 10) | ((g >> 3) << 5) | (b >> 3);
      const length = end - start;
      count[bin] += length;
      sumR[bin] += r * length;
      sumG[bin] += g * length;
      sumB[bin] += b * length;
      // In grain and shades a span would be a pixel: neighbours in one bin join.
      if (n > 0 && ends[n - 1] === start && bins[n - 1] === bin) {
        ends[n - 1] = end;
        return;
      }
      if (n === starts.length) {
        starts = grown(starts, new Int32Array(n * 2));
        ends = grown(ends, new Int32Array(n * 2));
        bins = grown(bins, new Uint16Array(n * 2));
      }
      starts[n] = start;
      ends[n] = end;
      bins[n++] = bin;
    },
    finish(): Pick<FlatRows, "spans" | "colours"> {
      const keys: number[] = [];
      for (let key = 0; key < BINS; key++) if (count[key] > 0) keys.push(key);
      return {
        // Of their own length: they may be sent.
        spans: { starts: starts.slice(0, n), ends: ends.slice(0, n), bins: bins.slice(0, n) },
        colours: {
          keys: Uint16Array.from(keys),
          counts: Float64Array.from(keys, (key) => count[key]),
          sums: Float64Array.from(keys.flatMap((key) => [sumR[key], sumG[key], sumB[key]])),
        },
      };
    },
  };
}

function grown<T extends Int32Array | Uint16Array>(from: T, into: T): T {
  into.set(from);
  return into;
}

function isFlat(
  data: Uint8ClampedArray,
  p: number,
  left: number,
  right: number,
  up: number,
  down: number,
  reach: number,
): boolean {
  return (
    isNear(data, p, p + left, reach) &&
    isNear(data, p, p + right, reach) &&
    isNear(data, p, p + up, reach) &&
    isNear(data, p, p + down, reach) &&
    isNear(data, p, p + up + left, reach) &&
    isNear(data, p, p + up + right, reach) &&
    isNear(data, p, p + down + left, reach) &&
    isNear(data, p, p + down + right, reach)
  );
}

function isNear(data: Uint8ClampedArray, p: number, q: number, reach: number): boolean {
  const i = p * 4;
  const j = q * 4;
  return (
    Math.abs(data[i] - data[j]) <= reach &&
    Math.abs(data[i + 1] - data[j + 1]) <= reach &&
    Math.abs(data[i + 2] - data[j + 2]) <= reach &&
    Math.abs(data[i + 3] - data[j + 3]) <= 2 * reach
  );
}
