// Flat pixels: those that look like all their neighbours. They alone say which colours the artist used. Clean art is mostly
// runs of equal pixels, so they are kept and labelled span by span, not pixel by pixel.
import { bytesAt, compiledLoops, doublesAt, makeRoom, wordsAt } from "../kernel/index.ts";
import { NONE, type Raster, stripsOf } from "../raster/index.ts";
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
  const { width } = raster;
  const loops = compiledLoops();
  const [sums] = makeRoom(SUMS_BYTES);
  bytesAt(sums, SUMS_BYTES).fill(0);
  const spans = new SpanList();
  let opaquePx = 0;
  for (const strip of stripsOf(raster, 1, [top, bottom], SPAN_BYTES + 1, SUMS_BYTES)) {
    const { pixels, made, rows, first, end, start } = strip;
    const [from, to] = [first * width, end * width];
    const marks = made + rows * width * SPAN_BYTES;
    const opaque = loops.markFlat(pixels, marks, width, rows, first, end, reach);
    if (opaque < to - from) labelTransparent(labels, start, bytesAt(marks + from, to - from));
    opaquePx += opaque;
    const count = loops.collectSpans(pixels, marks, from, to, made, sums);
    spans.add(wordsAt(made, (count * SPAN_BYTES) / 4), start - from);
  }
  return {
    spans: spans.finish(),
    colours: readSums(doublesAt(sums, SUMS_BYTES / 8)),
    opaquePx,
  };
}

/** The loops tell a span as three words, a bin's sums as four doubles. */
const SPAN_BYTES = 12;
const SUMS_BYTES = BINS * 32;
/** Their mark of a transparent pixel. */
const TRANSPARENT = 2;

function labelTransparent(labels: Uint8Array, start: number, marks: Uint8Array): void {
  for (let p = marks.indexOf(TRANSPARENT); p >= 0; p = marks.indexOf(TRANSPARENT, p + 1)) labels[start + p] = NONE;
}

function readSums(sums: Float64Array): ColourSums {
  const keys: number[] = [];
  for (let key = 0; key < BINS; key++) if (sums[key * 4] > 0) keys.push(key);
  return {
    keys: Uint16Array.from(keys),
    counts: Float64Array.from(keys, (key) => sums[key * 4]),
    sums: Float64Array.from(keys.flatMap((key) => [1, 2, 3].map((c) => sums[key * 4 + c]))),
  };
}

/** Gathers spans. */
class SpanList {
  private starts = new Int32Array(4096);
  private ends = new Int32Array(4096);
  private bins = new Uint16Array(4096);
  private n = 0;

  /** Spans as the loops tell them, of pixels counted from `offset` on. */
  add(told: Int32Array, offset: number): void {
    while (this.n + told.length / 3 > this.starts.length) this.grow();
    const { starts, ends, bins } = this;
    let n = this.n;
    for (let k = 0; k < told.length; k += 3) {
      const start = told[k] + offset;
      // What goes on from the strip before.
      if (n > 0 && ends[n - 1] === start && bins[n - 1] === told[k + 2]) n--;
      else {
        starts[n] = start;
        bins[n] = told[k + 2];
      }
      ends[n++] = told[k + 1] + offset;
    }
    this.n = n;
  }

  /** Of their own length: they may be sent. */
  finish(): Spans {
    const { starts, ends, bins, n } = this;
    return { starts: starts.slice(0, n), ends: ends.slice(0, n), bins: bins.slice(0, n) };
  }

  private grow(): void {
    const { n } = this;
    const most = this.starts.length * 2;
    this.starts = grown(this.starts, new Int32Array(most), n);
    this.ends = grown(this.ends, new Int32Array(most), n);
    this.bins = grown(this.bins, new Uint16Array(most), n);
  }
}

function grown<T extends Int32Array | Uint16Array>(from: T, into: T, length: number): T {
  into.set(from.subarray(0, length));
  return into;
}
