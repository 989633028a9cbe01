// Lines about a pixel thin, kept whole. Where such a line runs between two rows or columns of pixels, none of them is mostly
// its colour, and where it steps from one to the next, only corners of pixels touch. Our own method: along the line's ridge
// a pixel counts as the line's if the line as a whole is there.
import type { Decide, PixelWork } from "./assign.ts";
import { UNKNOWN } from "./flat.ts";
import { mixDistance2, mixShare } from "./mixes.ts";
import { distance2, MAX_FOUND, type Palette } from "./palette.ts";

/** Share of the line's colour in a pixel of its ridge, and in it and both its neighbours across, at least. */
const RIDGE_SHARE = 0.2;
const LINE_WIDTH = 0.8;
/** The same where it runs over one colour alone: nothing else can be taken for it there. */
const HAIRLINE_WIDTH = 0.4;
/** Squared distance (encoded sRGB) of a pixel from its colour up to which nothing of another can be in it. */
const PURE2 = 4;
/**
 * Where a line crosses one of the pixel's own colour, as the opening of a letter does its stroke, the own colour keeps the
 * pixel if it has more than this share of the line's claim to it: of its width there, and of what it keeps of its width.
 */
const OWN_CLAIM = 0.6;
/** Two pixels away there is less of it than this. */
const BESIDE_SHARE = 0.15;
/** Share in a pixel that joins two of a line's pixels that touch at a corner. */
const JOINT_SHARE = 0.08;
/** Pixels of its own colour that a pixel of a blended line has around it at most: what surrounds the line has more. */
const BLENDED_NEIGHBOURS = 4;
/** The same where nothing is blended: pixels of a chequered pattern have four. */
const PLAIN_NEIGHBOURS = 2;

/** Of which thin line's ridge each pixel is, by the line's colour: UNKNOWN where there is none. */
export const decideLines: Decide = (work, open) => {
  const { labels, palette } = work;
  const { width, height, data } = work.raster;
  const lines = new ThinLines(work);
  const decided = new Uint8Array(open.length).fill(UNKNOWN);
  for (let k = 0; k < open.length; k++) {
    const p = open[k];
    const x = p % width;
    const y = (p - x) / width;
    if (x < 2 || y < 2 || x >= width - 2 || y >= height - 2) continue;
    const own = labels[p];
    // Most pixels beside an edge are purely their colour.
    if (own < MAX_FOUND && distance2(palette, own, data[p * 4], data[p * 4 + 1], data[p * 4 + 2]) < PURE2) continue;
    decided[k] = lines.ridgeOf(p);
  }
  return decided;
};

/** Thin lines, by shares of their colours in pixels. */
class ThinLines {
  private readonly width: number;
  private readonly rgba: Uint8ClampedArray;
  private readonly labels: Uint8Array;
  private readonly palette: Palette;
  private readonly mix2: number;
  private readonly around = new Int32Array(25);

  constructor({ raster, labels, palette, reach }: PixelWork) {
    this.width = raster.width;
    this.rgba = raster.data;
    this.labels = labels;
    this.palette = palette;
    this.mix2 = reach.mix * reach.mix;
    for (let i = 0; i < 25; i++) this.around[i] = (Math.floor(i / 5) - 2) * this.width + (i % 5) - 2;
  }

  /** The colour of the line whose ridge a pixel is that lies two from the picture's edge or more, or UNKNOWN. */
  ridgeOf(p: number): number {
    const { width, labels, around } = this;
    const own = labels[p];
    let last = own;
    for (let i = 0; i < around.length; i++) {
      const line = labels[p + around[i]];
      if (line === own || line === last || line >= MAX_FOUND) continue;
      last = line;
      if (this.isRidge(p, 1, width, line) || this.isRidge(p, width, 1, line)) return line;
    }
    return UNKNOWN;
  }

  /** Share of a line in pixel q where the rest is the colour that q was given. */
  shareOf(q: number, line: number): number {
    const other = this.labels[q];
    if (other === line) return 1;
    return other < MAX_FOUND ? this.shareBetween(q, line, other) : 0;
  }

  /** Share of `line` in pixel q between it and `other`, whichever q was given; all or nothing where they do not explain it. */
  private shareBetween(q: number, line: number, other: number): number {
    const { rgba, palette } = this;
    const r = rgba[q * 4];
    const g = rgba[q * 4 + 1];
    const b = rgba[q * 4 + 2];
    const toLine2 = distance2(palette, line, r, g, b);
    const toOther2 = distance2(palette, other, r, g, b);
    const apart2 = palette.apart2[line * MAX_FOUND + other];
    if (mixDistance2(toLine2, toOther2, apart2) > this.mix2) return this.labels[q] === line ? 1 : 0;
    return mixShare(toLine2, toOther2, apart2);
  }

  /** Width of a line across p, px, as far as the pixels beside it. */
  private widthAt(p: number, step: number, line: number, other: number): number {
    return (
      this.shareBetween(p - step, line, other) +
      this.shareBetween(p, line, other) +
      this.shareBetween(p + step, line, other)
    );
  }

  /** The same, without what of it lies at both sides: the width of what stands out there. */
  private ridgeAt(p: number, step: number, line: number, other: number): number {
    const own = this.shareBetween(p, line, other);
    const before = this.shareBetween(p - step, line, other);
    const after = this.shareBetween(p + step, line, other);
    const base = Math.max(
      Math.min(before, this.shareBetween(p - 2 * step, line, other)),
      Math.min(after, this.shareBetween(p + 2 * step, line, other)),
    );
    return Math.max(0, before - base) + Math.max(0, own - base) + Math.max(0, after - base);
  }

  /** How much a line that runs along `along` has at p of its width beside p, on the thinner side; at most 1. */
  private keeps(p: number, step: number, along: number, line: number, other: number): number {
    const here = this.widthAt(p, step, line, other);
    const beside = Math.min(this.widthAt(p - along, step, line, other), this.widthAt(p + along, step, line, other));
    return here >= beside ? 1 : here / beside;
  }

  private isRidge(p: number, step: number, along: number, line: number): boolean {
    const { labels } = this;
    // Beside most pixels lies an area of the other colour: no line, at the cost of a look.
    if (labels[p - step] === line || labels[p + step] === line) return false;
    if (labels[p - 2 * step] === line || labels[p + 2 * step] === line) return false;
    const own = this.shareOf(p, line);
    if (own < RIDGE_SHARE) return false;
    const before = this.shareOf(p - step, line);
    const after = this.shareOf(p + step, line);
    const across = before + own + after;
    // Of two equal ones the first is the ridge.
    if (own <= before || own < after) return false;
    const other = labels[p];
    const isOverOne = labels[p - 2 * step] === other && labels[p + 2 * step] === other;
    if (across < (isOverOne ? HAIRLINE_WIDTH : LINE_WIDTH)) return false;
    if (this.shareOf(p - 2 * step, line) >= BESIDE_SHARE || this.shareOf(p + 2 * step, line) >= BESIDE_SHARE)
      return false;
    if (other >= MAX_FOUND) return true;
    if (across <= OWN_CLAIM * this.ridgeAt(p, along, other, line)) return false;
    return this.keeps(p, step, along, line, other) > OWN_CLAIM * this.keeps(p, along, step, other, line);
  }
}

/** Gives a line the pixel between two of its own that touch at a corner; `open` are the indices of those that are not flat. */
export function joinCorners(work: PixelWork, open: Int32Array): void {
  const { labels } = work;
  const { width } = work.raster;
  const lines = new ThinLines(work);
  const joints: number[] = [];
  for (let k = 0; k < open.length; k++) {
    const p = open[k];
    const x = p % width;
    if (x < 1 || p < width || x >= width - 2 || p + 2 * width >= labels.length) continue;
    if (labels[p] >= MAX_FOUND) continue;
    for (let side = 1; side >= -1; side -= 2) {
      const joint = jointOf(lines, labels, width, p, side);
      if (joint >= 0) joints.push(joint, labels[p]);
    }
  }
  for (let k = 0; k < joints.length; k += 2) labels[joints[k]] = joints[k + 1];
}

/** The pixel that joins p with the one of its line below it to one side; -1 where they do not touch at a corner, or no line does. */
function jointOf(lines: ThinLines, labels: Uint8Array, width: number, p: number, side: number): number {
  const line = labels[p];
  const far = p + width + side;
  if (labels[far] !== line || labels[p + side] === line || labels[p + width] === line) return -1;
  const a = lines.shareOf(p + side, line);
  const b = lines.shareOf(p + width, line);
  const most = Math.max(a, b) >= JOINT_SHARE ? BLENDED_NEIGHBOURS : PLAIN_NEIGHBOURS;
  if (ownAround(labels, width, p) > most || ownAround(labels, width, far) > most) return -1;
  return a >= b ? p + side : p + width;
}

function ownAround(labels: Uint8Array, width: number, p: number): number {
  let count = 0;
  for (let row = p - width; row <= p + width; row += width)
    for (let q = row - 1; q <= row + 1; q++) if (labels[q] === labels[p]) count++;
  return count - 1;
}
