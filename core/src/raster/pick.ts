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
  const mask = new Uint8Array(raster.width * raster.height);
  const matches = makeMatcher(raster, pick.rgb, pick.tolerance);
  const count = pick.reach === "everywhere" ? pickAll(mask, matches) : pickPatches(raster, pick.seeds, mask, matches);
  return { mask, count };
}

/** Tells whether the pixel at an index has the colour. Flat art repeats itself: the last answer is kept. */
function makeMatcher({ width, height, data }: Raster, [r, g, b]: Rgb, tolerance: number): (p: number) => boolean {
  const pixels = new Uint32Array(data.buffer, data.byteOffset, width * height);
  let last = 0;
  let lastAnswer = false;
  return (p) => {
    const value = pixels[p];
    if (value === last) return lastAnswer;
    last = value;
    const dr = (value & 255) - r;
    const dg = ((value >>> 8) & 255) - g;
    const db = ((value >>> 16) & 255) - b;
    lastAnswer =
      value >>> 24 > 0 &&
      dr <= tolerance &&
      dr >= -tolerance &&
      dg <= tolerance &&
      dg >= -tolerance &&
      db <= tolerance &&
      db >= -tolerance;
    return lastAnswer;
  };
}

function pickAll(mask: Uint8Array, matches: (p: number) => boolean): number {
  let count = 0;
  for (let p = 0; p < mask.length; p++)
    if (matches(p)) {
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
  { width, height }: Raster,
  seeds: readonly Point[],
  mask: Uint8Array,
  matches: (p: number) => boolean,
): number {
  let stack = new Int32Array(1024);
  let depth = 0;
  let count = 0;
  for (const first of firstPixels(seeds, width, height)) {
    stack[depth++] = first;
    while (depth > 0) {
      const p = stack[--depth];
      if (mask[p] === 1 || !matches(p)) continue;
      const y = Math.floor(p / width);
      const rowStart = y * width;
      const rowEnd = rowStart + width;
      let from = p;
      while (from > rowStart && mask[from - 1] === 0 && matches(from - 1)) from--;
      let to = p + 1;
      while (to < rowEnd && mask[to] === 0 && matches(to)) to++;
      mask.fill(1, from, to);
      count += to - from;
      for (const step of [-width, width]) {
        if ((step < 0 && y === 0) || (step > 0 && y === height - 1)) continue;
        // One entry for each run of the neighbouring row that the fill can enter.
        let isInRun = false;
        for (let q = from + step; q < to + step; q++) {
          const isOpen = mask[q] === 0 && matches(q);
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
