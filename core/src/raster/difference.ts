// Where a result differs from the source, and how much.

import type { Rgb } from "../colour/index.ts";
import { ciede2000, rgbToLab } from "../colour/index.ts";
import type { Raster } from "./raster.ts";

/**
 * CIEDE2000 of every pixel between two pictures of one size, both laid on `ground`, rounded and at most 255. Colour pairs
 * repeat from pixel to pixel: the last one's answer is kept.
 */
export function mapDifference(one: Raster, other: Raster, ground: Rgb): Uint8Array {
  const out = new Uint8Array(one.width * one.height);
  const a = one.data;
  const b = other.data;
  const under = (data: Uint8ClampedArray, i: number, c: number) =>
    data[i + 3] === 255 ? data[i + c] : Math.round((data[i + c] * data[i + 3] + ground[c] * (255 - data[i + 3])) / 255);
  let lastKey = -1;
  let lastValue = 0;
  for (let p = 0, i = 0; p < out.length; p++, i += 4) {
    const [ar, ag, ab] = [under(a, i, 0), under(a, i, 1), under(a, i, 2)];
    const [br, bg, bb] = [under(b, i, 0), under(b, i, 1), under(b, i, 2)];
    if (ar === br && ag === bg && ab === bb) continue;
    // Six bytes fit a double exactly.
    const key = ((ar * 256 + ag) * 256 + ab) * 16777216 + (br * 256 + bg) * 256 + bb;
    if (key !== lastKey) {
      lastKey = key;
      lastValue = Math.min(255, Math.round(ciede2000(rgbToLab([ar, ag, ab]), rgbToLab([br, bg, bb]))));
    }
    out[p] = lastValue;
  }
  return out;
}
