// Taking a picked background away without leaving its halo: pixels along its edge are mixtures, and are unmixed.
import { findEdgePixels } from "./edge-pixels.ts";
import { measureNoise } from "./noise.ts";
import { makeRaster, type Raster } from "./raster.ts";

/** How far a mixture reaches on either side of the picked edge, px: sharp art mixes one pixel, scans and photos two. */
const RIM_PX = 2;
/** How far to look for the design's own colour, px from the mixed pixel. */
const LOOK_PX = 4;
/** A mixture may lie this far beside the line between its two colours, as a share of their distance, and at least in levels. */
const BESIDE_SHARE = 0.08;
const BESIDE_LEVELS = 6;
/** So many neighbours of (nearly) the same colour make a pixel flat, not mixed: a straight edge gives a mixed pixel two. */
const FLAT_NEIGHBOURS = 3;
const FLAT_LEVELS = 5;
/** In a noisy picture what is this far from the background, as a share of the farthest, may be the design's own colour. */
const NEARLY_PURE = 0.8;
/** Shares this close to nothing or all are noise. */
const SURE_SHARE = 0.015;

/**
 * The picture without its picked pixels. A pixel within two of the picked edge is C = a F + (1 - a) B in encoded sRGB, as
 * renderers mix: B is the background's mean nearby, F the design's colour farthest along the same line (in a
 * noisy picture the middle of those that are nearly as far); it becomes F with
 * alpha a. A pixel that is no such mixture is left as it is. Cost: one pass, and work along the edge only.
 * The compositing equation is T. Porter & T. Duff, "Compositing Digital Images" (SIGGRAPH 1984); finding F and B is our own.
 */
export function removePicked(raster: Raster, mask: Uint8Array): Raster {
  const { width, height, data } = raster;
  const out = new Uint8ClampedArray(data);
  const pixels = new Uint32Array(out.buffer);
  for (let from = mask.indexOf(1); from >= 0; ) {
    const next = mask.indexOf(0, from);
    const to = next < 0 ? mask.length : next;
    pixels.fill(0, from, to);
    from = mask.indexOf(1, to);
  }
  const groundAt = makeGround(raster, mask);
  const mixture: Mixture = { share: 0, at: 0 };
  // Compression overshoots beside an edge: what is farthest there is no colour of the design.
  const isNoisy = measureNoise(raster) > 0;
  for (const p of rimPixels(mask, width, height)) {
    const i = p * 4;
    const isPicked = mask[p] === 1;
    if (data[i + 3] === 0 || (!isPicked && isFlat(raster, mask, p))) continue;
    const ground = groundAt(p);
    if (!ground) continue;
    // Pure background is gone already.
    if (isPicked && isAlike(data, i, ground)) continue;
    if (!takeApart(raster, mask, p, ground, mixture, isNoisy)) continue;
    // With nothing of the background in it, a pixel stays what it was.
    if (mixture.share < SURE_SHARE || (!isPicked && mixture.share > 1 - SURE_SHARE)) {
      if (mixture.share < SURE_SHARE) pixels[p] = 0;
      continue;
    }
    out.set(data.subarray(mixture.at, mixture.at + 3), i);
    out[i + 3] = Math.min(1, mixture.share) * data[i + 3];
  }
  return makeRaster(width, height, out);
}

/** Pixels within RIM_PX of the picked edge, on either side. */
function rimPixels(mask: Uint8Array, width: number, height: number): Iterable<number> {
  const edge = findEdgePixels(mask, width, height);
  const rim = new Set<number>(edge);
  let front: Iterable<number> = edge;
  for (let ring = 1; ring < RIM_PX; ring++) {
    const next: number[] = [];
    for (const p of front) {
      const px = p % width;
      const py = (p - px) / width;
      for (let y = Math.max(0, py - 1); y <= Math.min(height - 1, py + 1); y++)
        for (let x = Math.max(0, px - 1); x <= Math.min(width - 1, px + 1); x++) {
          const q = y * width + x;
          if (rim.has(q)) continue;
          rim.add(q);
          next.push(q);
        }
    }
    front = next;
  }
  return rim;
}

function isFlat({ width, height, data }: Raster, mask: Uint8Array, p: number): boolean {
  const px = p % width;
  const py = (p - px) / width;
  const i = p * 4;
  let alike = 0;
  for (let y = Math.max(0, py - 1); y <= Math.min(height - 1, py + 1); y++)
    for (let x = Math.max(0, px - 1); x <= Math.min(width - 1, px + 1); x++) {
      const q = y * width + x;
      if (q === p || mask[q] === 1) continue;
      const j = q * 4;
      if (
        Math.abs(data[i] - data[j]) <= FLAT_LEVELS &&
        Math.abs(data[i + 1] - data[j + 1]) <= FLAT_LEVELS &&
        Math.abs(data[i + 2] - data[j + 2]) <= FLAT_LEVELS
      )
        alike++;
    }
  return alike >= FLAT_NEIGHBOURS;
}

type Ground = readonly [number, number, number];

/** Whether a pixel is the background itself but for rounding. */
function isAlike(data: Uint8ClampedArray, i: number, [r, g, b]: Ground): boolean {
  return Math.abs(data[i] - r) < 1.5 && Math.abs(data[i + 1] - g) < 1.5 && Math.abs(data[i + 2] - b) < 1.5;
}

/** Side of the squares that the background's mean is taken over, px, and how far each looks beyond itself. */
const TILE_PX = 16;
const TILE_MARGIN_PX = 6;

/**
 * The background's mean near a pixel: of picked pixels whose four neighbours are picked, too; failing those, of all picked
 * ones. Null where there are none. Reckoned once for each square that is asked for.
 */
function makeGround({ width, height, data }: Raster, mask: Uint8Array): (p: number) => Ground | null {
  const across = Math.ceil(width / TILE_PX);
  const tiles = new Map<number, Ground | null>();
  return (p) => {
    const x = p % width;
    const y = (p - x) / width;
    const tile = Math.floor(y / TILE_PX) * across + Math.floor(x / TILE_PX);
    let ground = tiles.get(tile);
    if (ground === undefined) {
      ground = meanOf(Math.floor(x / TILE_PX) * TILE_PX, Math.floor(y / TILE_PX) * TILE_PX);
      tiles.set(tile, ground);
    }
    return ground;
  };

  function meanOf(left: number, top: number): Ground | null {
    const deep = [0, 0, 0, 0];
    const all = [0, 0, 0, 0];
    const y1 = Math.min(height - 1, top + TILE_PX + TILE_MARGIN_PX);
    const x1 = Math.min(width - 1, left + TILE_PX + TILE_MARGIN_PX);
    for (let y = Math.max(0, top - TILE_MARGIN_PX); y <= y1; y++)
      for (let x = Math.max(0, left - TILE_MARGIN_PX); x <= x1; x++) {
        const q = y * width + x;
        if (mask[q] === 0) continue;
        const isDeep =
          (x === 0 || mask[q - 1] === 1) &&
          (x === width - 1 || mask[q + 1] === 1) &&
          (y === 0 || mask[q - width] === 1) &&
          (y === height - 1 || mask[q + width] === 1);
        for (const sums of isDeep ? [deep, all] : [all]) {
          for (let c = 0; c < 3; c++) sums[c] += data[q * 4 + c];
          sums[3]++;
        }
      }
    const [r, g, b, n] = deep[3] > 0 ? deep : all;
    return n === 0 ? null : [r / n, g / n, b / n];
  }
}

/** The design's share of a pixel, and where in the data its own colour is. */
interface Mixture {
  share: number;
  at: number;
}

/** Takes a pixel apart into background and design; false if it is no mixture of the two. */
function takeApart(
  { width, height, data }: Raster,
  mask: Uint8Array,
  p: number,
  [gr, gg, gb]: Ground,
  mixture: Mixture,
  isNoisy: boolean,
): boolean {
  const px = p % width;
  const py = (p - px) / width;
  const i = p * 4;
  const cr = data[i] - gr;
  const cg = data[i + 1] - gg;
  const cb = data[i + 2] - gb;
  const away = cr * cr + cg * cg + cb * cb;
  let farthest = 0;
  const places: number[] = [];
  for (let y = Math.max(0, py - LOOK_PX); y <= Math.min(height - 1, py + LOOK_PX); y++)
    for (let x = Math.max(0, px - LOOK_PX); x <= Math.min(width - 1, px + LOOK_PX); x++) {
      const q = y * width + x;
      const j = q * 4;
      if (mask[q] === 1 || data[j + 3] < 255) continue;
      const fr = data[j] - gr;
      const fg = data[j + 1] - gg;
      const fb = data[j + 2] - gb;
      const length2 = fr * fr + fg * fg + fb * fb;
      if (length2 < away || (length2 <= farthest && !isNoisy)) continue;
      const share = (cr * fr + cg * fg + cb * fb) / length2;
      // What is left beside the line from background to design.
      const beside2 = away - share * share * length2;
      const allowed = Math.max(BESIDE_LEVELS, BESIDE_SHARE * Math.sqrt(length2));
      if (share > 1 || share < -0.05 || beside2 > allowed * allowed) continue;
      if (isNoisy) places.push(j, length2, share);
      if (length2 <= farthest) continue;
      farthest = length2;
      mixture.share = share;
      mixture.at = j;
    }
  if (isNoisy && farthest > 0) takeMiddle(places, farthest, mixture);
  return farthest > 0;
}

/** Of the places that are nearly as far from the background as the farthest, the middle one (index, squared distance, share). */
function takeMiddle(places: readonly number[], farthest: number, mixture: Mixture): void {
  const near: number[] = [];
  for (let k = 0; k < places.length; k += 3) if (places[k + 1] >= NEARLY_PURE ** 2 * farthest) near.push(k);
  near.sort((a, b) => places[a + 1] - places[b + 1]);
  const middle = near[near.length >> 1];
  mixture.at = places[middle];
  mixture.share = places[middle + 2];
}
