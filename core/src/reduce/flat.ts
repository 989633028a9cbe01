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
  const finder = new FlatFinder(raster, labels, reach);
  for (let y = Math.max(0, top - 1); y < bottom; y++) {
    if (y <= top) finder.readRow(y);
    if (y + 1 < raster.height) finder.readRow(y + 1);
    if (y >= top) finder.findInRow(y);
  }
  return finder.finish();
}

/** Finds flat pixels row by row. */
class FlatFinder {
  private readonly words: Uint32Array;
  /** The runs of three rows, each at its number's remainder. */
  private readonly rows: readonly Row[];
  private readonly spans = new SpanCollector();
  private opaquePx = 0;

  constructor(
    private readonly raster: Raster,
    private readonly labels: Uint8Array,
    private readonly reach: number,
  ) {
    const { width, height, data } = raster;
    this.words = new Uint32Array(data.buffer, data.byteOffset, width * height);
    this.rows = [0, 1, 2].map(() => ({ count: 0, starts: new Int32Array(width + 1) }));
  }

  readRow(y: number): void {
    const { width } = this.raster;
    readRuns(this.words, y * width, width, this.rows[y % 3]);
  }

  /** The row and those above and below it have been read. Where there is none, the row itself stands for it. */
  findInRow(y: number): void {
    const { words, labels, rows } = this;
    const { width, height } = this.raster;
    const { starts, count } = rows[y % 3];
    const toAbove = y > 0 ? width : 0;
    const toBelow = y < height - 1 ? width : 0;
    const above = toAbove > 0 ? rows[(y + 2) % 3] : rows[y % 3];
    const below = toBelow > 0 ? rows[(y + 1) % 3] : rows[y % 3];
    const rowStart = y * width;
    const rowEnd = rowStart + width;
    let up = 0;
    let down = 0;
    for (let run = 0; run < count; run++) {
      const start = starts[run];
      const end = starts[run + 1];
      const word = words[start];
      if (word >>> 24 < OPAQUE_ALPHA) {
        labels.fill(NONE, start, end);
        continue;
      }
      this.opaquePx += end - start;
      // What lies inside runs of the same colour above and below is flat; the rest is looked at pixel by pixel.
      let done = start;
      const from = inside(start, rowStart, start);
      const to = insideEnd(end, rowEnd, end);
      while (above.starts[up + 1] + toAbove <= start) up++;
      for (let a = up; done < end && a < above.count && above.starts[a] + toAbove < end; a++) {
        if (words[above.starts[a]] !== word) continue;
        const aFrom = inside(above.starts[a] + toAbove, rowStart, from);
        const aTo = insideEnd(above.starts[a + 1] + toAbove, rowEnd, to);
        if (aFrom >= aTo) continue;
        while (below.starts[down + 1] - toBelow <= aFrom) down++;
        for (let b = down; b < below.count && below.starts[b] - toBelow < aTo; b++) {
          if (words[below.starts[b]] !== word) continue;
          const bFrom = inside(below.starts[b] - toBelow, rowStart, aFrom);
          const bTo = insideEnd(below.starts[b + 1] - toBelow, rowEnd, aTo);
          if (bFrom >= bTo) continue;
          this.addSingles(done, bFrom);
          this.spans.add(bFrom, bTo, word);
          done = bTo;
        }
      }
      this.addSingles(done, end);
    }
  }

  finish(): FlatRows {
    return { ...this.spans.finish(), opaquePx: this.opaquePx };
  }

  /** Those of the pixels from `from` up to `to`, all of one row, that are flat without being level. */
  private addSingles(from: number, to: number): void {
    const { width, height, data } = this.raster;
    for (let p = from; p < to; p++) {
      const x = p % width;
      const y = (p - x) / width;
      const left = x > 0 ? -1 : 0;
      const right = x < width - 1 ? 1 : 0;
      const up = y > 0 ? -width : 0;
      const down = y < height - 1 ? width : 0;
      if (isFlat(data, p, left, right, up, down, this.reach)) this.spans.add(p, p + 1, this.words[p]);
    }
  }
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

/** Gathers spans and counts their colours. */
class SpanCollector {
  private starts = new Int32Array(4096);
  private ends = new Int32Array(4096);
  private bins = new Uint16Array(4096);
  private n = 0;
  private readonly count = new Uint32Array(BINS);
  private readonly sums = new Float64Array(BINS * 3);

  /** A span of one colour, little-endian RGBA. */
  add(start: number, end: number, word: number): void {
    const { starts, ends, bins, n, count, sums } = this;
    const r = word & 255;
    const g = (word >>> 8) & 255;
    const b = (word >>> 16) & 255;
    const bin = ((r >> 3) << 10) | ((g >> 3) << 5) | (b >> 3);
    const length = end - start;
    count[bin] += length;
    sums[bin * 3] += r * length;
    sums[bin * 3 + 1] += g * length;
    sums[bin * 3 + 2] += b * length;
    // In grain and shades a span would be a pixel: neighbours in one bin join.
    if (n > 0 && ends[n - 1] === start && bins[n - 1] === bin) {
      ends[n - 1] = end;
      return;
    }
    if (n === starts.length) this.grow();
    this.starts[n] = start;
    this.ends[n] = end;
    this.bins[n] = bin;
    this.n++;
  }

  /** Of their own length: they may be sent. */
  finish(): Pick<FlatRows, "spans" | "colours"> {
    const { n, count, sums } = this;
    const keys: number[] = [];
    for (let key = 0; key < BINS; key++) if (count[key] > 0) keys.push(key);
    return {
      spans: { starts: this.starts.slice(0, n), ends: this.ends.slice(0, n), bins: this.bins.slice(0, n) },
      colours: {
        keys: Uint16Array.from(keys),
        counts: Float64Array.from(keys, (key) => count[key]),
        sums: Float64Array.from({ length: keys.length * 3 }, (_, i) => sums[keys[Math.floor(i / 3)] * 3 + (i % 3)]),
      },
    };
  }

  private grow(): void {
    const { n } = this;
    this.starts = grown(this.starts, new Int32Array(n * 2));
    this.ends = grown(this.ends, new Int32Array(n * 2));
    this.bins = grown(this.bins, new Uint16Array(n * 2));
  }
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
