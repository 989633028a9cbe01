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
  const smooth: Raster = { ...raster, data: new Uint8ClampedArray(raster.data.length) };
  smoothRows(raster, smooth, reach, 0, raster.height);
  return smooth;
}

/** The same for the rows from `top` up to `bottom`, into another picture of the same size. */
export function smoothRows(raster: Raster, into: Raster, reach: number, top: number, bottom: number): void {
  const { width, height, data } = raster;
  const words = new Int32Array(data.buffer, data.byteOffset, width * height);
  const out = new Int32Array(into.data.buffer, into.data.byteOffset, width * height);
  const near = new RowWindow(words, width, height, Math.floor(reach), top);
  for (let y = top; y < bottom; y++) {
    near.moveTo(y);
    const isInside = y >= RADIUS && y < height - RADIUS;
    for (let x = 0; x < width; x++) {
      const isWhole = isInside && x >= RADIUS && x < width - RADIUS;
      // Half of a compressed drawing is.
      if (isWhole && near.isLevel(x)) out[y * width + x] = words[y * width + x];
      else out[y * width + x] = isWhole && near.isCalm(x, y) ? near.meanOfAll(x, y) : near.meanAlike(x, y);
    }
  }
}

const RADIUS = 2;
const ROWS = 2 * RADIUS + 1;
/** Red and blue of a word (little-endian RGBA), summed as one number: sixteen bits each, and 25 bytes sum to thirteen. */
const RED_BLUE = 0xff00ff;
/** Ten bits a channel, the uppermost of them to see by whether a difference went below 0. */
const GUARDS = 0x20080200;
const ONES = 0x100401;

/** Red, green and blue of a word at ten bits each, so that one subtraction compares all three. */
function spread(word: number): number {
  return (word & 255) | ((word & 0xff00) << 2) | ((word & 0xff0000) << 4);
}

/** The rows around the one whose pixels are averaged. */
class RowWindow {
  private readonly isWithin: number;
  private readonly isWithinHalf: number;
  /** Of five rows, each at its number's remainder: the channels spread, and whether all is near that lies beside in the row. */
  private readonly channels: Int32Array;
  private readonly isRowCalm: Uint8Array;
  /** How many rows up to the one read last have the same pixel there, and beside it. */
  private readonly levelRows: Int32Array;
  /** Sums over the five rows. */
  private readonly redBlue: Int32Array;
  private readonly green: Int32Array;
  private readonly first: number;
  private read: number;

  /** `top`: the row that is averaged first. */
  constructor(
    private readonly words: Int32Array,
    private readonly width: number,
    private readonly height: number,
    reach: number,
    top: number,
  ) {
    this.isWithin = reach * ONES + GUARDS;
    this.isWithinHalf = (reach >> 1) * ONES + GUARDS;
    this.channels = new Int32Array(ROWS * width);
    this.isRowCalm = new Uint8Array(ROWS * width);
    this.levelRows = new Int32Array(width);
    this.redBlue = new Int32Array(width);
    this.green = new Int32Array(width);
    this.first = Math.max(0, top - RADIUS);
    this.read = this.first;
  }

  /** Goes on to a row, each after the one before. */
  moveTo(y: number): void {
    if (y - RADIUS > this.first) this.forgetRow(y - RADIUS - 1);
    for (; this.read <= Math.min(this.height - 1, y + RADIUS); this.read++) this.readRow(this.read);
  }

  /** Whether a pixel, with all five rows and columns around it, is like them to the last bit. */
  isLevel(x: number): boolean {
    return this.levelRows[x] >= ROWS;
  }

  /** Whether a pixel, with all five rows and columns around it, is surely like all of them. */
  isCalm(x: number, y: number): boolean {
    const { channels, isRowCalm, width, isWithinHalf } = this;
    const own = channels[(y % ROWS) * width + x];
    for (let at = x; at < ROWS * width; at += width) {
      const there = channels[at];
      if (isRowCalm[at] === 0) return false;
      if (((isWithinHalf - own + there) & (isWithinHalf + own - there) & GUARDS) !== GUARDS) return false;
    }
    return true;
  }

  /** The word of a pixel made the mean of all around it. */
  meanOfAll(x: number, y: number): number {
    const { redBlue, green, words, width } = this;
    const sum = redBlue[x - 2] + redBlue[x - 1] + redBlue[x] + redBlue[x + 1] + redBlue[x + 2];
    const sumG = green[x - 2] + green[x - 1] + green[x] + green[x + 1] + green[x + 2];
    return meanWord(words[y * width + x], sum, sumG, ROWS * ROWS);
  }

  /** The word of a pixel made the mean of what is like it. Without a branch: whether a neighbour is, is a coin's toss. */
  meanAlike(x: number, y: number): number {
    const { channels, words, width } = this;
    const own = channels[(y % ROWS) * width + x];
    const low = this.isWithin - own;
    const high = this.isWithin + own;
    const x0 = Math.max(0, x - RADIUS);
    const x1 = Math.min(width - 1, x + RADIUS);
    const y1 = Math.min(this.height - 1, y + RADIUS);
    let n = 0;
    let sum = 0;
    let sumG = 0;
    for (let v = Math.max(0, y - RADIUS); v <= y1; v++) {
      const at = (v % ROWS) * width;
      const start = v * width;
      for (let u = x0; u <= x1; u++) {
        const there = channels[at + u];
        const word = words[start + u];
        const fits = (low + there) & (high - there);
        const isAlike = (fits >>> 9) & (fits >>> 19) & (fits >>> 29) & 1;
        n += isAlike;
        sum += word & RED_BLUE & -isAlike;
        sumG += (word >>> 8) & 255 & -isAlike;
      }
    }
    return meanWord(words[y * width + x], sum, sumG, n);
  }

  private readRow(y: number): void {
    const { channels, isRowCalm, levelRows, words, width, redBlue, green, isWithinHalf } = this;
    const at = (y % ROWS) * width;
    const start = y * width;
    let run = 0;
    for (let x = 0; x < width; x++) {
      const word = words[start + x];
      channels[at + x] = spread(word);
      redBlue[x] += word & RED_BLUE;
      green[x] += (word >>> 8) & 255;
      run = x > 0 && word === words[start + x - 1] ? run + 1 : 1;
      const middle = x - RADIUS;
      if (middle < RADIUS) continue;
      if (run < ROWS) levelRows[middle] = 0;
      else if (y > this.first && words[start - width + middle] === word) levelRows[middle]++;
      else levelRows[middle] = 1;
    }
    for (let x = RADIUS; x < width - RADIUS; x++) {
      if (levelRows[x] > 0) {
        isRowCalm[at + x] = 1;
        continue;
      }
      const own = channels[at + x];
      const low = isWithinHalf - own;
      const high = isWithinHalf + own;
      let fits = GUARDS;
      for (let q = at + x - RADIUS; q <= at + x + RADIUS; q++) fits &= (low + channels[q]) & (high - channels[q]);
      isRowCalm[at + x] = fits === GUARDS ? 1 : 0;
    }
  }

  private forgetRow(y: number): void {
    const { words, width, redBlue, green } = this;
    for (let x = 0; x < width; x++) {
      const word = words[y * width + x];
      redBlue[x] -= word & RED_BLUE;
      green[x] -= (word >>> 8) & 255;
    }
  }
}

/** A word with the means of its channels, alpha as it was; `sum` has red's sum and blue's. */
function meanWord(word: number, sum: number, sumG: number, n: number): number {
  const red = Math.round((sum & 0xffff) / n);
  const green = Math.round(sumG / n);
  const blue = Math.round((sum >>> 16) / n);
  return (word & ~0xffffff) | (blue << 16) | (green << 8) | red;
}
