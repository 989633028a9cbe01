// In blurred and compressed art the edge of two flats passes through colours that look like a third. Such a pixel belongs
// to one of the two regions that meet there, unless a third really runs between them: that is decided over the whole strip
// that hangs together, by how wide the picture's own edges are. Our own method.
import type { Raster } from "../raster/index.ts";
import type { MatchReach } from "./assign.ts";
import { UNKNOWN } from "./flat.ts";
import { bleedDistance, mixDistance2, mixShare } from "./mixes.ts";
import { distance2, MAX_FOUND, type Palette } from "./palette.ts";

/** How far an edge is followed to each side, px. */
const REACH_PX = 6;
/** Along an edge the share of one side falls, but for so much of noise. */
const UNSTEADY = 0.12;
/** An edge wider than this share of the picture's edges, and a pixel more, has something running in it. */
const USUAL = 0.9;
const WIDER_PX = 1;
/** Edges up to this wide are only anti-aliased, px. */
const CRISP_PX = 2;
/** So many pixels say how wide edges are. */
const MOST_LOOKED_AT = 6000;
/** Two sides nearer than this say little of how wide edges are (squared, encoded RGB). */
const LEAST_CONTRAST2 = 60 * 60;
/** A strip goes to its sides if at least this share of it lies on edges. */
const STRIP_SHARE = 0.5;
/** Strips are looked at again where others beside them have gone. */
const TIMES = 2;

/** The way across an edge at a pixel: the labels of both sides, how far it is, and the first one's share in the pixel. */
interface Crossing {
  first: number;
  second: number;
  length: number;
  share: number;
}

/**
 * Gives the pixels of thin strips that are only the edge of two others to those two. `loose` are the pixels that are not
 * flat. Linear in them. A clean picture (`isClean`) whose edges are only anti-aliased has no such strips.
 */
export function settleEdges(
  raster: Raster,
  labels: Uint8Array,
  palette: Palette,
  loose: Int32Array,
  reach: MatchReach,
  isClean: boolean,
): void {
  const edges = new EdgeCrosser(raster, labels, palette, reach);
  const usual = edgeWidth(palette, loose, edges);
  if (isClean && usual <= CRISP_PX) return;
  const most = usual + WIDER_PX;
  for (let time = 0; time < TIMES; time++) {
    const settled = new Uint8Array(labels.length).fill(UNKNOWN);
    for (let k = 0; k < loose.length; k++) {
      const crossing = edges.cross(loose[k], false);
      if (crossing && crossing.length <= most)
        settled[loose[k]] = crossing.share >= 0.5 ? crossing.first : crossing.second;
    }
    const gone = strips(raster.width, labels, loose, settled);
    if (gone.length === 0) return;
    for (const p of gone) edges.relabel(p, settled[p]);
  }
}

/** The width under which USUAL of the picture's plain edges lie, px: those that no third colour seems to run in. */
function edgeWidth(palette: Palette, loose: Int32Array, edges: EdgeCrosser): number {
  const counts = new Uint32Array(2 * REACH_PX + 2);
  let total = 0;
  const stride = Math.max(1, Math.floor(loose.length / MOST_LOOKED_AT));
  for (let k = 0; k < loose.length; k += stride) {
    const crossing = edges.cross(loose[k], true);
    if (!crossing) continue;
    if (palette.apart2[crossing.first * MAX_FOUND + crossing.second] < LEAST_CONTRAST2) continue;
    counts[crossing.length]++;
    total++;
  }
  let width = 1;
  for (let seen = counts[0] + counts[1]; seen < total * USUAL && width < counts.length - 1; seen += counts[width])
    width++;
  return width;
}

/** Pixels that are `settled` (not UNKNOWN there) in strips of one label of which most are. */
function strips(width: number, labels: Uint8Array, loose: Int32Array, settled: Uint8Array): number[] {
  const isOpen = new Uint8Array(labels.length);
  for (let k = 0; k < loose.length; k++) isOpen[loose[k]] = 1;
  const gone: number[] = [];
  const around = [-1, 1, -width, width, -width - 1, -width + 1, width - 1, width + 1];
  for (const start of loose) {
    if (settled[start] === UNKNOWN || isOpen[start] === 0) continue;
    const label = labels[start];
    const strip = [start];
    isOpen[start] = 0;
    for (let k = 0; k < strip.length; k++)
      for (const step of around) {
        const q = strip[k] + step;
        // A step over the picture's side leads to a pixel far away: rare, and then only a longer strip.
        if (q < 0 || q >= labels.length || isOpen[q] === 0 || labels[q] !== label) continue;
        isOpen[q] = 0;
        strip.push(q);
      }
    const edges = strip.filter((p) => settled[p] !== UNKNOWN);
    if (edges.length >= strip.length * STRIP_SHARE) gone.push(...edges);
  }
  return gone;
}

/** What is known of a pixel: whether it plainly is of the colour it was given. */
const PLAINLY = 1;
const HARDLY = 2;

/** Finds ways across edges. */
class EdgeCrosser {
  private readonly width: number;
  private readonly height: number;
  private readonly rgba: Uint8ClampedArray;
  private readonly labels: Uint8Array;
  private readonly palette: Palette;
  private readonly pure2: number;
  private readonly mix: number;
  private readonly known: Uint8Array;
  private readonly out: Crossing = { first: 0, second: 0, length: 0, share: 0 };

  constructor({ width, height, data }: Raster, labels: Uint8Array, palette: Palette, reach: MatchReach) {
    this.width = width;
    this.height = height;
    this.rgba = data;
    this.labels = labels;
    this.palette = palette;
    this.pure2 = reach.pure * reach.pure;
    this.mix = reach.mix;
    this.known = new Uint8Array(labels.length);
  }

  relabel(p: number, label: number): void {
    this.labels[p] = label;
    this.known[p] = 0;
  }

  /**
   * The shortest way across an edge at a pixel, in four directions. `isPlain`: an edge of the pixel's own colour with
   * another; else one of two others that its own colour only seems to lie between.
   */
  cross(p: number, isPlain: boolean): Crossing | null {
    const { width, height, labels, out } = this;
    const own = labels[p];
    if (own >= MAX_FOUND) return null;
    const x = p % width;
    const y = (p - x) / width;
    out.length = 2 * REACH_PX + 1;
    let isFound = false;
    for (let d = 0; d < 4; d++) {
      const [dx, dy] = DIRECTIONS[d];
      const step = dy * width + dx;
      const backRoom = Math.min(dx === 0 ? REACH_PX : dx > 0 ? x : width - 1 - x, dy === 0 ? REACH_PX : y);
      const onRoom = Math.min(dx === 0 ? REACH_PX : dx > 0 ? width - 1 - x : x, dy === 0 ? REACH_PX : height - 1 - y);
      const other = isPlain ? MAX_FOUND : own;
      const back = this.walk(p, -step, backRoom, other);
      if (back === 0) continue;
      const on = this.walk(p, step, onRoom, other);
      if (on === 0 || back + on - 1 >= out.length) continue;
      const i = labels[p - back * step];
      const j = labels[p + on * step];
      if (i === j || (isPlain && i !== own && j !== own)) continue;
      if (!this.isEdge(p, step, back, on, isPlain)) continue;
      out.first = i;
      out.second = j;
      out.length = back + on - 1;
      out.share = this.shareOf(p, i, j);
      isFound = true;
    }
    return isFound ? out : null;
  }

  /** Steps to the first pixel that plainly is of another colour, and not of the pixel's own; 0 if there is none near. */
  private walk(p: number, step: number, room: number, own: number): number {
    const most = Math.min(REACH_PX, room);
    for (let k = 1; k <= most; k++) {
      const q = p + k * step;
      const label = this.labels[q];
      if (label >= MAX_FOUND) return 0;
      if (this.isPlainly(q)) return label === own ? 0 : k;
    }
    return 0;
  }

  private isPlainly(p: number): boolean {
    const { known, rgba } = this;
    if (known[p] === 0) {
      const own2 = distance2(this.palette, this.labels[p], rgba[p * 4], rgba[p * 4 + 1], rgba[p * 4 + 2]);
      known[p] = own2 > this.pure2 ? HARDLY : PLAINLY;
    }
    return known[p] === PLAINLY;
  }

  /** Whether all between two pixels is a mix of theirs, more and more of the second. */
  private isEdge(p: number, step: number, back: number, on: number, isPlain: boolean): boolean {
    const { labels } = this;
    const i = labels[p - back * step];
    const j = labels[p + on * step];
    let last = 1;
    for (let k = -back + 1; k < on; k++) {
      const q = p + k * step;
      if (isPlain && labels[q] !== i && labels[q] !== j) return false;
      const share = this.shareOf(q, i, j);
      if (share < 0 || share > last + UNSTEADY) return false;
      last = Math.min(last, share);
    }
    return true;
  }

  /** Share of the first colour in a pixel between two; -1 where they do not explain it. */
  private shareOf(p: number, i: number, j: number): number {
    const { rgba, palette, mix } = this;
    const r = rgba[p * 4];
    const g = rgba[p * 4 + 1];
    const b = rgba[p * 4 + 2];
    const i2 = distance2(palette, i, r, g, b);
    const j2 = distance2(palette, j, r, g, b);
    const apart2 = palette.apart2[i * MAX_FOUND + j];
    if (mixDistance2(i2, j2, apart2) > mix * mix && bleedDistance(palette, i, j, r, g, b) > mix) return -1;
    return mixShare(i2, j2, apart2);
  }
}

const DIRECTIONS = [
  [1, 0],
  [0, 1],
  [1, 1],
  [-1, 1],
] as const;
