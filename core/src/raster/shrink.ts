// A smaller picture, for a first look at what a change does.
import { makeRaster, type Raster } from "./raster.ts";

/** The picture at a whole part of its size: each pixel the mean of a `by` x `by` block, colours weighted by their alpha. */
export function shrinkRaster({ width, height, data }: Raster, by: number): Raster {
  const w = Math.max(1, Math.floor(width / by));
  const h = Math.max(1, Math.floor(height / by));
  const out = new Uint8ClampedArray(w * h * 4);
  for (let y = 0, o = 0; y < h; y++)
    for (let x = 0; x < w; x++, o += 4) {
      let [r, g, b, alpha, n] = [0, 0, 0, 0, 0];
      for (let v = y * by; v < Math.min(height, (y + 1) * by); v++)
        for (let u = x * by, i = (v * width + u) * 4; u < Math.min(width, (x + 1) * by); u++, i += 4) {
          const weight = data[i + 3];
          r += data[i] * weight;
          g += data[i + 1] * weight;
          b += data[i + 2] * weight;
          alpha += weight;
          n++;
        }
      if (alpha === 0) continue;
      out[o] = r / alpha;
      out[o + 1] = g / alpha;
      out[o + 2] = b / alpha;
      out[o + 3] = alpha / n;
    }
  return makeRaster(w, h, out);
}
