// Taking a picked background away without leaving its halo: pixels along its edge are mixtures, and are unmixed.
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
/** Shares this close to nothing or all are noise. */
const SURE_SHARE = 0.015;

/**
 * The picture without its picked pixels. A pixel within two of the picked edge is C = a F + (1 - a) B in encoded sRGB, as
 * renderers mix: B is the background's mean nearby, F the design's colour farthest along the same line; it becomes F with
 * alpha a. A pixel that is no such mixture is left as it is. Cost: one pass, and work along the edge only.
 * The compositing equation is T. Porter & T. Duff, "Compositing Digital Images" (SIGGRAPH 1984); finding F and B is our own.
 */
export function removePicked(raster: Raster, mask: Uint8Array): Raster {
  const { width, height, data } = raster;
  const out = new Uint8ClampedArray(data);
  const pixels = new Uint32Array(out.buffer);
  for (let p = 0; p < mask.length; p++) if (mask[p] === 1) pixels[p] = 0;
  const rim = rimPixels(mask, width, height);
  const mixture = makeMixture(raster, mask);
  for (const p of rim) {
    const i = p * 4;
    if (data[i + 3] === 0 || (mask[p] === 0 && isFlat(raster, mask, p))) continue;
    if (!mixture.take(p)) continue;
    let share = mixture.share;
    if (share < SURE_SHARE) share = 0;
    else if (share > 1 - SURE_SHARE) {
      // Nothing of the background in it: it stays what it was.
      if (mask[p] === 0) continue;
      share = 1;
    }
    out[i] = share === 0 ? 0 : mixture.colour[0];
    out[i + 1] = share === 0 ? 0 : mixture.colour[1];
    out[i + 2] = share === 0 ? 0 : mixture.colour[2];
    out[i + 3] = share * data[i + 3];
  }
  return makeRaster(width, height, out);
}

/** Pixels within RIM_PX of the picked edge, on either side. */
function rimPixels(mask: Uint8Array, width: number, height: number): number[] {
  const isRim = new Uint8Array(mask.length);
  let front: number[] = [];
  for (let y = 0; y < height; y++)
    for (let x = 0, p = y * width; x < width; x++, p++) {
      const own = mask[p];
      if ((x > 0 && mask[p - 1] !== own) || (y > 0 && mask[p - width] !== own)) {
        for (const q of [p, x > 0 && mask[p - 1] !== own ? p - 1 : p, y > 0 && mask[p - width] !== own ? p - width : p])
          if (isRim[q] === 0) {
            isRim[q] = 1;
            front.push(q);
          }
      }
    }
  const rim = [...front];
  for (let ring = 1; ring < RIM_PX; ring++) {
    const next: number[] = [];
    for (const p of front) {
      const px = p % width;
      const py = (p - px) / width;
      for (let y = Math.max(0, py - 1); y <= Math.min(height - 1, py + 1); y++)
        for (let x = Math.max(0, px - 1); x <= Math.min(width - 1, px + 1); x++) {
          const q = y * width + x;
          if (isRim[q] === 1) continue;
          isRim[q] = 1;
          next.push(q);
        }
    }
    for (const p of next) rim.push(p);
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

/** Takes pixels apart: after a `take` that answered true, `share` and `colour` are the design's. */
function makeMixture({ width, height, data }: Raster, mask: Uint8Array) {
  const ground = [0, 0, 0];
  const mixture = {
    share: 0,
    colour: [0, 0, 0],
    take(p: number): boolean {
      const px = p % width;
      const py = (p - px) / width;
      const x0 = Math.max(0, px - LOOK_PX);
      const x1 = Math.min(width - 1, px + LOOK_PX);
      const y0 = Math.max(0, py - LOOK_PX);
      const y1 = Math.min(height - 1, py + LOOK_PX);
      if (!meanGround(x0, x1, y0, y1)) return false;
      const i = p * 4;
      const cr = data[i] - ground[0];
      const cg = data[i + 1] - ground[1];
      const cb = data[i + 2] - ground[2];
      const away = cr * cr + cg * cg + cb * cb;
      let farthest = 0;
      for (let y = y0; y <= y1; y++)
        for (let x = x0; x <= x1; x++) {
          const q = y * width + x;
          const j = q * 4;
          if (mask[q] === 1 || data[j + 3] < 255) continue;
          const fr = data[j] - ground[0];
          const fg = data[j + 1] - ground[1];
          const fb = data[j + 2] - ground[2];
          const length2 = fr * fr + fg * fg + fb * fb;
          if (length2 < away || length2 <= farthest) continue;
          const share = (cr * fr + cg * fg + cb * fb) / length2;
          // What is left beside the line from background to design.
          const beside2 = away - share * share * length2;
          const allowed = Math.max(BESIDE_LEVELS, BESIDE_SHARE * Math.sqrt(length2));
          if (share > 1 || share < -0.05 || beside2 > allowed * allowed) continue;
          farthest = length2;
          mixture.share = share;
          mixture.colour[0] = data[j];
          mixture.colour[1] = data[j + 1];
          mixture.colour[2] = data[j + 2];
        }
      return farthest > 0;
    },
  };

  /** Mean of the picked pixels around that are not mixed themselves: those whose four neighbours are picked, too. */
  function meanGround(x0: number, x1: number, y0: number, y1: number): boolean {
    let deep = 0;
    let n = 0;
    const sums = [0, 0, 0, 0, 0, 0];
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const q = y * width + x;
        if (mask[q] === 0) continue;
        const j = q * 4;
        const isDeep =
          (x === 0 || mask[q - 1] === 1) &&
          (x === width - 1 || mask[q + 1] === 1) &&
          (y === 0 || mask[q - width] === 1) &&
          (y === height - 1 || mask[q + width] === 1);
        const o = isDeep ? 3 : 0;
        if (isDeep) deep++;
        n++;
        for (let c = 0; c < 3; c++) sums[o + c] += data[j + c];
      }
    if (n === 0) return false;
    for (let c = 0; c < 3; c++) ground[c] = deep > 0 ? sums[3 + c] / deep : sums[c] / n;
    return true;
  }
  return mixture;
}
