// How light each pixel is, for drawings.
import type { Raster } from "./raster.ts";

/**
 * Luma of every pixel, 0..255: on white paper where the picture is transparent, or of the colour alone. Weights of ITU-R BT.709 on encoded values,
 * as scanners and cameras give them.
 */
export function greyOf({ width, height, data }: Raster, ground: "paper" | "none" = "paper"): Uint8Array {
  const grey = new Uint8Array(width * height);
  for (let p = 0, i = 0; p < grey.length; p++, i += 4) {
    // 16-bit fixed point: one multiplication a channel, no rounding of its own.
    const luma = (13933 * data[i] + 46871 * data[i + 1] + 4732 * data[i + 2] + 32768) >> 16;
    const alpha = data[i + 3];
    grey[p] = alpha === 255 || ground === "none" ? luma : Math.round((luma * alpha + 255 * (255 - alpha)) / 255);
  }
  return grey;
}

/** How many pixels have each grey. */
export function greyHistogram(grey: Uint8Array): Uint32Array {
  const counts = new Uint32Array(256);
  for (let p = 0; p < grey.length; p++) counts[grey[p]]++;
  return counts;
}

/**
 * The grey that parts a histogram best: values up to it are dark, values above it light (the larger variance between the
 * two classes; the first of equals). Works for any number of levels.
 * Source: N. Otsu, "A threshold selection method from gray-level histograms" (IEEE SMC, 1979).
 */
export function otsuThreshold(counts: ArrayLike<number>): number {
  let total = 0;
  let sum = 0;
  for (let level = 0; level < counts.length; level++) {
    total += counts[level];
    sum += level * counts[level];
  }
  let best = 0;
  let bestVariance = -1;
  let dark = 0;
  let darkSum = 0;
  for (let level = 0; level < counts.length - 1; level++) {
    dark += counts[level];
    darkSum += level * counts[level];
    const light = total - dark;
    if (dark === 0 || light === 0) continue;
    const apart = darkSum / dark - (sum - darkSum) / light;
    const variance = dark * light * apart * apart;
    if (variance > bestVariance) {
      bestVariance = variance;
      best = level;
    }
  }
  return best;
}
