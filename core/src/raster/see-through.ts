// Half-transparent areas: soft shadows, glows, flats at part strength. A plate knows no half: each is laid on the garment's
// colour, dropped, or printed solid, and what it touches keeps its edge. Anti-aliased edges are no such areas.
import type { Rgb } from "../colour/index.ts";
import type { Point } from "./frame.ts";
import { OPAQUE_ALPHA, type Raster } from "./raster.ts";

/** Alpha up to which a pixel is as good as clear, and from which it is as good as opaque. */
const CLEAR = 4;
const OPAQUE = 251;
/** Half-transparent for so many pixels on every side: wider than any anti-aliased edge. */
const BODY_PX = 2;
/** Steepest change of alpha inside such an area, over three pixels: small lettering on nothing changes faster. */
const MOST_CHANGE = 96;
/** Edges of an area reach so far from its inside, px. */
const RIM_PX = 3;
/** Fewer pixels than this of inside are an accident. */
const LEAST_BODY = 12;
/** An edge pixel has this much more alpha at least, where something opaque begins. */
const INNER_STEP = 8;

/** What becomes of half-transparent areas. "half": under one half nothing, from there on solid. */
export type SeeThroughTreatment = "half" | "garment" | "drop" | "solid";

/** The half-transparent areas of a picture. */
export interface SeeThrough {
  /** 2 inside, 1 on their edges, 0 elsewhere. */
  readonly mask: Uint8Array;
  readonly areaPx: number;
  /** Of them under one half. */
  readonly faintPx: number;
  /** A place inside the largest stretch of it, in a row. */
  readonly at: Point;
}

/** Finds half-transparent areas; null where there is none. Linear in pixels. */
export function findSeeThrough({ width, height, data }: Raster): SeeThrough | null {
  if (!hasPart(data)) return null;
  const inner = new Uint8Array(width * height);
  let body = 0;
  // Column sums of "is partly there" over the rows around, so that a square is asked in one step.
  const side = 2 * BODY_PX + 1;
  const columns = new Uint8Array(width);
  const isPart = (p: number) => data[p * 4 + 3] > CLEAR && data[p * 4 + 3] < OPAQUE;
  let any = false;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (isPart(y * width + x)) {
        columns[x] = Math.min(side, columns[x] + 1);
        any = true;
      } else columns[x] = 0;
    }
    if (!any || y < side - 1) continue;
    for (let x = 0, run = 0; x < width; x++) {
      run = columns[x] === side ? run + 1 : 0;
      if (run < side) continue;
      const p = (y - BODY_PX) * width + x - BODY_PX;
      if (changeAround(data, p, width) > MOST_CHANGE) continue;
      inner[p] = 2;
      body++;
    }
  }
  if (body < LEAST_BODY) return null;
  const mask = inner.slice();
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (inner[y * width + x] !== 2) continue;
      for (let v = Math.max(0, y - RIM_PX); v <= Math.min(height - 1, y + RIM_PX); v++)
        for (let u = Math.max(0, x - RIM_PX); u <= Math.min(width - 1, x + RIM_PX); u++) {
          const q = v * width + u;
          if (mask[q] === 0 && isPart(q)) mask[q] = 1;
        }
    }
  return { mask, ...measure(mask, data, width) };
}

/** Whether any pixel is partly there; most pictures have none. */
function hasPart(data: Uint8ClampedArray): boolean {
  const words = new Uint32Array(data.buffer, data.byteOffset, data.length >> 2);
  for (let p = 0; p < words.length; p++) {
    const alpha = words[p] >>> 24;
    if (alpha > CLEAR && alpha < OPAQUE) return true;
  }
  return false;
}

function changeAround(data: Uint8ClampedArray, p: number, width: number): number {
  let least = 255;
  let most = 0;
  for (let v = -1; v <= 1; v++)
    for (let u = -1; u <= 1; u++) {
      const alpha = data[(p + v * width + u) * 4 + 3];
      if (alpha < least) least = alpha;
      if (alpha > most) most = alpha;
    }
  return most - least;
}

function measure(mask: Uint8Array, data: Uint8ClampedArray, width: number): Omit<SeeThrough, "mask"> {
  let areaPx = 0;
  let faintPx = 0;
  let longest = 0;
  let middle = 0;
  for (let p = 0, run = 0; p < mask.length; p++) {
    run = mask[p] === 2 && p % width > 0 ? run + 1 : mask[p] === 2 ? 1 : 0;
    if (run > longest) {
      longest = run;
      middle = p - (run >> 1);
    }
    if (mask[p] === 0) continue;
    areaPx++;
    if (data[p * 4 + 3] < OPAQUE_ALPHA) faintPx++;
  }
  return { areaPx, faintPx, at: { x: (middle % width) + 0.5, y: Math.floor(middle / width) + 0.5 } };
}

/**
 * The picture with its half-transparent areas settled. On their edges the area's own share is taken out again (Porter & Duff
 * 1984, "over", solved for the coverage), so that an opaque shape beside a shadow keeps its edge, and a flat's edge is its own.
 */
export function settleSeeThrough(
  raster: Raster,
  { mask }: SeeThrough,
  treatment: SeeThroughTreatment,
  garment: Rgb,
): Raster {
  const { width, height, data } = raster;
  const out = data.slice();
  for (let p = 0; p < mask.length; p++) {
    if (mask[p] === 0) continue;
    const near = lookAround(raster, mask, p);
    const isSolid = treatment === "solid" || (treatment === "half" && near.alpha >= OPAQUE_ALPHA);
    const i = p * 4;
    const alpha = data[i + 3];
    const own: Rgb = mask[p] === 2 ? [data[i], data[i + 1], data[i + 2]] : near.rgb;
    const tone = treatment === "garment" ? overGarment(own, mask[p] === 2 ? alpha : near.alpha, garment) : own;
    const isThere = isSolid || treatment === "garment";
    if (near.opaque && alpha > near.alpha + INNER_STEP) {
      const share = (alpha - near.alpha) / (255 - near.alpha);
      if (isThere) put(out, i, mixOf(near.opaque, tone, share), 255);
      else put(out, i, near.opaque, 255 * share);
    } else if (near.hasClear && alpha < near.alpha) put(out, i, tone, isThere ? (255 * alpha) / near.alpha : 0);
    else if (treatment === "half" && !near.opaque) put(out, i, own, halfAt(data, p, width, height));
    else put(out, i, tone, isThere ? 255 : 0);
  }
  return { width, height, data: out };
}

/** What is round an area's pixel: the alpha and colour of its inside, the nearest opaque colour, whether it ends in nothing. */
interface Around {
  readonly alpha: number;
  readonly rgb: Rgb;
  readonly opaque: Rgb | null;
  readonly hasClear: boolean;
}

function lookAround({ width, height, data }: Raster, mask: Uint8Array, p: number): Around {
  const x = p % width;
  const y = (p - x) / width;
  let count = 0;
  const sum = [0, 0, 0, 0];
  let opaque: Rgb | null = null;
  let nearest = Number.POSITIVE_INFINITY;
  let hasClear = false;
  for (let v = Math.max(0, y - RIM_PX); v <= Math.min(height - 1, y + RIM_PX); v++)
    for (let u = Math.max(0, x - RIM_PX); u <= Math.min(width - 1, x + RIM_PX); u++) {
      const q = v * width + u;
      const alpha = data[q * 4 + 3];
      if (mask[q] === 2) {
        count++;
        for (let c = 0; c < 4; c++) sum[c] += data[q * 4 + c];
      }
      if (alpha <= CLEAR) hasClear = true;
      const away = (u - x) * (u - x) + (v - y) * (v - y);
      if (alpha < OPAQUE || away >= nearest) continue;
      nearest = away;
      opaque = [data[q * 4], data[q * 4 + 1], data[q * 4 + 2]];
    }
  const mean = sum.map((total) => total / Math.max(1, count));
  return { alpha: mean[3], rgb: [mean[0], mean[1], mean[2]], opaque, hasClear };
}

function overGarment(rgb: Rgb, alpha: number, garment: Rgb): Rgb {
  return mixOf(rgb, garment, alpha / 255);
}

function mixOf(a: Rgb, b: Rgb, share: number): Rgb {
  return [a[0] * share + b[0] * (1 - share), a[1] * share + b[1] * (1 - share), a[2] * share + b[2] * (1 - share)];
}

/** Alpha of an edge along which the area's own alpha is one half: as steep as the area makes it, one pixel wide. */
function halfAt(data: Uint8ClampedArray, p: number, width: number, height: number): number {
  const alphaAt = (q: number) => data[q * 4 + 3];
  const x = p % width;
  const left = x > 0 ? p - 1 : p;
  const right = x < width - 1 ? p + 1 : p;
  const up = p >= width ? p - width : p;
  const down = p < width * (height - 1) ? p + width : p;
  const dx = (alphaAt(right) - alphaAt(left)) / Math.max(1, right - left);
  const dy = (alphaAt(down) - alphaAt(up)) / Math.max(1, (down - up) / width);
  const slope = Math.max(1, Math.sqrt(dx * dx + dy * dy));
  return 127.5 + ((alphaAt(p) - (OPAQUE_ALPHA - 0.5)) * 255) / slope;
}

function put(out: Uint8ClampedArray, i: number, [r, g, b]: Rgb, alpha: number): void {
  out[i] = Math.round(r);
  out[i + 1] = Math.round(g);
  out[i + 2] = Math.round(b);
  out[i + 3] = Math.round(alpha);
}
