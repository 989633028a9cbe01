// The usual background in one go: the flat colour round the border, or the white box behind the art.
import type { Rgb } from "../colour/index.ts";
import { findComponents, regionsOfPixels } from "./components.ts";
import type { Box, Point } from "./frame.ts";
import { measureNoise } from "./noise.ts";
import { pickColour } from "./pick.ts";
import { OPAQUE_ALPHA, type Raster } from "./raster.ts";

/** This share of the border has to agree on a colour before it is proposed. */
const AGREED_SHARE = 0.5;
/** Border pixels within this of the commonest colour agree with it, levels. */
const ALIKE = 24;
/** Tolerances proposed; common practice: a slightly uneven background wants 20 to 25, 60 spills (no source). */
const LEAST_TOLERANCE = 12;
const MOST_TOLERANCE = 40;
/** Compression and grain leave crumbs below this much for each unit of noise (measured): 22 for a usual JPEG. */
const NOISY_TOLERANCE = 18;
const TOLERANCE_PER_NOISE = 2;
/** Patches smaller than this are not worth a word, px. */
const LEAST_PATCH_PX = 24;
/** Patches inside the design of less than this share of the picture are most likely counters of letters (our own). */
const COUNTER_SHARE = 0.004;
/** More patches than this round a border are a pattern, not a background. */
const MOST_SEEDS = 32;

export interface BackgroundProposal {
  readonly rgb: Rgb;
  readonly tolerance: number;
  /** One place in each patch that touches the border. */
  readonly seeds: readonly Point[];
  /** Share of the picture that goes, 0..1. */
  readonly share: number;
  /** Patches of the same colour inside the design: they stay unless a person says otherwise. */
  readonly islands: number;
  /** A place in each of those that are as small as counters of letters, as far as one pick takes them. */
  readonly counters: readonly Point[];
}

/** What to pick away, or null where the border is of no one colour. The border is that of what is not transparent. */
export function proposeBackground(raster: Raster): BackgroundProposal | null {
  const border = borderOfArt(raster);
  if (border.length === 0) return null;
  const common = commonestColour(raster, border);
  const alike = border.filter((p) => difference(raster, p, common) <= ALIKE);
  if (alike.length < border.length * AGREED_SHARE) return null;
  const { data, width, height } = raster;
  const mean = (c: number) => Math.round(alike.reduce((sum, p) => sum + data[p * 4 + c], 0) / alike.length);
  const rgb: Rgb = [mean(0), mean(1), mean(2)];
  const spread = alike.map((p) => difference(raster, p, rgb)).sort((a, b) => a - b);
  const usual = spread[Math.floor((spread.length - 1) * 0.98)];
  const noise = measureNoise(raster);
  const least = noise > 0 ? NOISY_TOLERANCE + TOLERANCE_PER_NOISE * noise : LEAST_TOLERANCE;
  const tolerance = Math.min(MOST_TOLERANCE, Math.max(least, Math.ceil(usual * 1.5) + 4));

  const { mask } = pickColour(raster, { seeds: [], rgb, tolerance, reach: "everywhere" });
  const components = findComponents({ width, height, data: mask });
  const { label, areaPx } = components;
  const of = regionsOfPixels(components);
  const reached = new Map<number, Point>();
  for (const p of alike)
    if (mask[p] === 1 && areaPx[of[p]] >= LEAST_PATCH_PX && !reached.has(of[p]) && reached.size < MOST_SEEDS)
      reached.set(of[p], { x: (p % width) + 0.5, y: Math.floor(p / width) + 0.5 });
  let gonePx = 0;
  let islands = 0;
  const small = new Set<number>();
  for (let c = 0; c < label.length; c++) {
    if (reached.has(c)) gonePx += areaPx[c];
    else if (label[c] === 1 && areaPx[c] >= LEAST_PATCH_PX) {
      islands++;
      if (areaPx[c] < COUNTER_SHARE * mask.length && small.size < MOST_SEEDS) small.add(c);
    }
  }
  const counters: Point[] = [];
  for (let p = 0; p < of.length && small.size > 0; p++)
    if (small.delete(of[p])) counters.push({ x: (p % width) + 0.5, y: Math.floor(p / width) + 0.5 });
  return reached.size === 0
    ? null
    : { rgb, tolerance, seeds: [...reached.values()], share: gonePx / mask.length, islands, counters };
}

/** Smallest box around what is at least half there; null if nothing is. */
export function boxOfArt({ width, height, data }: Raster): Box | null {
  const isThere = (x: number, y: number) => data[(y * width + x) * 4 + 3] >= OPAQUE_ALPHA;
  let [x0, y0, x1, y1] = [width, height, -1, -1];
  for (let y = 0; y < height; y++) {
    // Only what would widen the box is looked at, besides one find in a row that has something.
    let x = 0;
    while (x < width && !isThere(x, y)) x++;
    if (x === width) continue;
    if (y1 < 0) y0 = y;
    y1 = y;
    if (x < x0) x0 = x;
    for (x = width - 1; x > x1 && !isThere(x, y); x--);
    if (x > x1) x1 = x;
  }
  return x1 < 0 ? null : { x: x0, y: y0, width: x1 - x0 + 1, height: y1 - y0 + 1 };
}

/** Pixels along the sides of the art's box; none where the art touches its box only here and there: nothing is behind it. */
function borderOfArt(raster: Raster): number[] {
  const box = boxOfArt(raster);
  if (!box) return [];
  const { width, data } = raster;
  // A box that was scaled has a half transparent outermost pixel.
  const isWhole = box.width === width && box.height === raster.height;
  const inset = !isWhole && Math.min(box.width, box.height) > 8 ? 1 : 0;
  const [x0, y0] = [box.x + inset, box.y + inset];
  const [x1, y1] = [box.x + box.width - 1 - inset, box.y + box.height - 1 - inset];
  const border: number[] = [];
  for (let x = x0; x <= x1; x++) border.push(y0 * width + x, y1 * width + x);
  for (let y = y0; y <= y1; y++) border.push(y * width + x0, y * width + x1);
  const there = border.filter((p) => data[p * 4 + 3] >= OPAQUE_ALPHA);
  return there.length > border.length * 0.8 ? there : [];
}

function commonestColour({ data }: Raster, border: readonly number[]): Rgb {
  const counts = new Uint32Array(4096);
  const bin = (p: number) => (data[p * 4] >> 4) * 256 + (data[p * 4 + 1] >> 4) * 16 + (data[p * 4 + 2] >> 4);
  for (const p of border) counts[bin(p)]++;
  let best = 0;
  for (let b = 1; b < counts.length; b++) if (counts[b] > counts[best]) best = b;
  const members = border.filter((p) => bin(p) === best);
  const middle = (c: number) => members.map((p) => data[p * 4 + c]).sort((a, b) => a - b)[members.length >> 1];
  return [middle(0), middle(1), middle(2)];
}

function difference({ data }: Raster, p: number, [r, g, b]: Rgb): number {
  const i = p * 4;
  return Math.max(Math.abs(data[i] - r), Math.abs(data[i + 1] - g), Math.abs(data[i + 2] - b));
}
