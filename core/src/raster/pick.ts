// Picking by colour: which pixels are the background, from a place and a tolerance.
import type { Rgb } from "../colour/index.ts";
import type { Point } from "./frame.ts";
import type { Raster } from "./raster.ts";

export interface Pick {
  /**
   * Where to begin, in the picture's pixels; with `everywhere` they do not matter. A seed outside (it was cropped away)
   * comes in from the border, wherever that has the colour.
   */
  readonly seeds: readonly Point[];
  readonly rgb: Rgb;
  /** Largest difference in any channel that still counts as the same, 0..255. */
  readonly tolerance: number;
  /** Only what hangs together with a seed, or every pixel of the colour. */
  readonly reach: "connected" | "everywhere";
}

/** 1 for every picked pixel, else 0; with how many were picked. Transparent pixels are never picked: they are gone already. */
export interface Picked {
  readonly mask: Uint8Array;
  readonly count: number;
}

/** Picks. Linear in the pixels looked at: with `connected`, those of the patch. */
export function pickColour(raster: Raster, pick: Pick): Picked {
  const { width, height, data } = raster;
  const pixels = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const mask = new Uint8Array(pixels.length);
  const matches = makeMatcher(pick.rgb, pick.tolerance);
  const count =
    pick.reach === "everywhere"
      ? pickAll(pixels, mask, matches)
      : pickPatches(pixels, raster, pick.seeds, mask, matches);
  return { mask, count };
}

/** Whether a pixel, read as a little-endian word, has the colour. */
type Matcher = (pixel: number) => boolean;

function makeMatcher([r, g, b]: Rgb, tolerance: number): Matcher {
  return (pixel) => {
    const dr = (pixel & 255) - r;
    const dg = ((pixel >>> 8) & 255) - g;
    const db = ((pixel >>> 16) & 255) - b;
    return (
      pixel >>> 24 > 0 &&
      dr <= tolerance &&
      dr >= -tolerance &&
      dg <= tolerance &&
      dg >= -tolerance &&
      db <= tolerance &&
      db >= -tolerance
    );
  };
}

// Flat art repeats itself: in both walks the last pixel that matched and the last that did not are known by sight.

function pickAll(pixels: Uint32Array, mask: Uint8Array, matches: Matcher): number {
  let count = 0;
  let hit = -1;
  let miss = 0;
  for (let p = 0; p < mask.length; p++) {
    const pixel = pixels[p];
    if (pixel === miss) continue;
    if (pixel !== hit) {
      if (!matches(pixel)) {
        miss = pixel;
        continue;
      }
      hit = pixel;
    }
    mask[p] = 1;
    count++;
  }
  return count;
}

/**
 * Fills from each seed in spans of rows, through pixel sides.
 * Source: A. R. Smith, "Tint Fill" (SIGGRAPH 1979), the scan-line seed fill.
 */
function pickPatches(
  pixels: Uint32Array,
  { width, height }: Raster,
  seeds: readonly Point[],
  mask: Uint8Array,
  matches: Matcher,
): number {
  let stack = new Int32Array(1024);
  let depth = 0;
  let count = 0;
  let hit = -1;
  let miss = 0;
  for (const first of firstPixels(seeds, width, height)) {
    stack[depth++] = first;
    while (depth > 0) {
      const p = stack[--depth];
      if (mask[p] === 1 || !matches(pixels[p])) continue;
      const rowStart = p - (p % width);
      const rowEnd = rowStart + width;
      let from = p;
      let to = p + 1;
      for (; from > rowStart && mask[from - 1] === 0; from--) {
        const pixel = pixels[from - 1];
        if (pixel === hit) continue;
        if (pixel === miss || !matches(pixel)) {
          miss = pixel;
          break;
        }
        hit = pixel;
      }
      for (; to < rowEnd && mask[to] === 0; to++) {
        const pixel = pixels[to];
        if (pixel === hit) continue;
        if (pixel === miss || !matches(pixel)) {
          miss = pixel;
          break;
        }
        hit = pixel;
      }
      mask.fill(1, from, to);
      count += to - from;
      for (let side = 0; side < 2; side++) {
        if (side === 0 ? rowStart === 0 : rowEnd === pixels.length) continue;
        const step = side === 0 ? -width : width;
        // One entry for each run of the neighbouring row that the fill can enter.
        let isInRun = false;
        for (let q = from + step; q < to + step; q++) {
          let isOpen = mask[q] === 0;
          if (isOpen) {
            const pixel = pixels[q];
            if (pixel !== hit) {
              isOpen = pixel !== miss && matches(pixel);
              if (isOpen) hit = pixel;
              else miss = pixel;
            }
          }
          if (isOpen && !isInRun) {
            if (depth === stack.length) {
              const larger = new Int32Array(depth * 2);
              larger.set(stack);
              stack = larger;
            }
            stack[depth++] = q;
          }
          isInRun = isOpen;
        }
      }
    }
  }
  return count;
}

function* firstPixels(seeds: readonly Point[], width: number, height: number): Generator<number> {
  let isFromBorder = false;
  for (const seed of seeds) {
    const x = Math.floor(seed.x);
    const y = Math.floor(seed.y);
    if (x >= 0 && y >= 0 && x < width && y < height) yield y * width + x;
    else isFromBorder = true;
  }
  if (!isFromBorder) return;
  for (let x = 0; x < width; x++) {
    yield x;
    yield (height - 1) * width + x;
  }
  for (let y = 1; y < height - 1; y++) {
    yield y * width;
    yield y * width + width - 1;
  }
}
