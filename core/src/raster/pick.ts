// Picking by colour: which pixels are the background, from a place and a tolerance.
import type { Rgb } from "../colour/index.ts";
import type { Point } from "./frame.ts";
import type { Raster } from "./raster.ts";
import { fillSpans } from "./span-fill.ts";

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

/** Flat art repeats itself: the last pixel that matched and the last that did not are known by sight. */
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

/** Fills from each seed. */
function pickPatches(
  pixels: Uint32Array,
  { width, height }: Raster,
  seeds: readonly Point[],
  mask: Uint8Array,
  matches: Matcher,
): number {
  let count = 0;
  for (const first of firstPixels(seeds, width, height))
    fillSpans({ values: pixels, width }, mask, first, matches, (from, to) => {
      count += to - from;
    });
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
