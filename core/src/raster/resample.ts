// The client's pixels in the upright frame.
import type { Frame } from "./frame.ts";
import { makeRaster, type Raster } from "./raster.ts";

/**
 * The picture as a frame shows it; what lies outside the picture is transparent. A frame on whole pixels (crops, quarter
 * turns, flips) copies them; any other is resampled with Catmull-Rom cubics (R. Keys, "Cubic convolution interpolation for
 * digital image processing", IEEE ASSP 1981), each channel held within its four nearest pixels: an overshoot at an edge
 * would be a colour that the artist never used.
 */
export function resample(source: Raster, frame: Frame): Raster {
  const { width, height, toSource } = frame;
  const [a, b, c, d, e, f, g, h, i] = toSource;
  const isWhole = g === 0 && h === 0 && i === 1 && [a, b, c, d, e, f].every(Number.isInteger);
  if (isWhole && a === 1 && e === 1 && c === 0 && f === 0 && width === source.width && height === source.height)
    return source;
  const data = new Uint8ClampedArray(width * height * 4);
  if (isWhole) copyWhole(source, frame, data);
  else interpolate(source, frame, data);
  return makeRaster(width, height, data);
}

function copyWhole(source: Raster, { width, height, toSource }: Frame, out: Uint8ClampedArray): void {
  const from = new Uint32Array(source.data.buffer, source.data.byteOffset, source.width * source.height);
  const to = new Uint32Array(out.buffer);
  const [a, b, c, d, e, f] = toSource;
  for (let y = 0; y < height; y++) {
    // Pixel centres are at .5; the sums are whole again after rounding down.
    let sx = Math.floor(a * 0.5 + b * (y + 0.5) + c);
    let sy = Math.floor(d * 0.5 + e * (y + 0.5) + f);
    for (let x = 0, o = y * width; x < width; x++, o++, sx += a, sy += d)
      if (sx >= 0 && sy >= 0 && sx < source.width && sy < source.height) to[o] = from[sy * source.width + sx];
  }
}

function interpolate(source: Raster, { width, height, toSource }: Frame, out: Uint8ClampedArray): void {
  const { data, width: sw, height: sh } = source;
  const [a, b, c, d, e, f, g, h, i] = toSource;
  const weightX = new Float64Array(4);
  const weightY = new Float64Array(4);
  const sums = new Float64Array(4);
  const least = new Float64Array(4);
  const most = new Float64Array(4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const fx = x + 0.5;
      const fy = y + 0.5;
      const w = g * fx + h * fy + i;
      const sx = (a * fx + b * fy + c) / w - 0.5;
      const sy = (d * fx + e * fy + f) / w - 0.5;
      if (!(sx > -1 && sy > -1 && sx < sw && sy < sh)) continue;
      const ix = Math.floor(sx);
      const iy = Math.floor(sy);
      cubicWeights(sx - ix, weightX);
      cubicWeights(sy - iy, weightY);
      sums.fill(0);
      least.fill(255);
      most.fill(0);
      for (let v = 0; v < 4; v++) {
        const py = iy + v - 1;
        for (let u = 0; u < 4; u++) {
          const px = ix + u - 1;
          const isNear = (u === 1 || u === 2) && (v === 1 || v === 2);
          if (px < 0 || py < 0 || px >= sw || py >= sh) {
            if (isNear) least.fill(0);
            continue;
          }
          const o = (py * sw + px) * 4;
          const alpha = data[o + 3];
          const share = alpha / 255;
          const weight = weightX[u] * weightY[v];
          for (let channel = 0; channel < 4; channel++) {
            // Colours count as far as they are there: alpha is multiplied in while mixing.
            const value = channel === 3 ? alpha : data[o + channel] * share;
            sums[channel] += weight * value;
            if (!isNear) continue;
            if (value < least[channel]) least[channel] = value;
            if (value > most[channel]) most[channel] = value;
          }
        }
      }
      const alpha = Math.min(most[3], Math.max(least[3], sums[3]));
      if (alpha < 0.5) continue;
      const o = (y * width + x) * 4;
      for (let channel = 0; channel < 3; channel++)
        out[o + channel] = (Math.min(most[channel], Math.max(least[channel], sums[channel])) * 255) / alpha;
      out[o + 3] = alpha;
    }
}

function cubicWeights(t: number, out: Float64Array): void {
  const t2 = t * t;
  const t3 = t2 * t;
  out[0] = (-t3 + 2 * t2 - t) / 2;
  out[1] = (3 * t3 - 5 * t2 + 2) / 2;
  out[2] = (-3 * t3 + 4 * t2 + t) / 2;
  out[3] = (t3 - t2) / 2;
}
