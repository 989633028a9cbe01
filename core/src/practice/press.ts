// A heat press: layers as they came off the cutter, laid on a shirt one on the other, slipped and shrunk.
import type { Mask } from "./weed.ts";

/** How one layer comes to lie: moved, mm, and shrunk towards its middle by a share. */
export interface Laid {
  readonly mask: Mask;
  readonly dxMm: number;
  readonly dyMm: number;
  readonly shrinkShare: number;
}

/** The number of the uppermost layer at each place, from 1; 0: bare shirt. */
export function pressLayers(layers: readonly Laid[]): {
  readonly width: number;
  readonly height: number;
  readonly top: Uint8Array;
} {
  const [first] = layers;
  if (!first) return { width: 0, height: 0, top: new Uint8Array(0) };
  const { width, height, perMm } = first.mask;
  const top = new Uint8Array(width * height);
  layers.forEach(({ mask, dxMm, dyMm, shrinkShare }, k) => {
    const [cx, cy] = middleOf(mask);
    const scale = 1 / (1 - shrinkShare);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        // Where on the film this place of the shirt is.
        const u = Math.round(cx + (x - dxMm * perMm - cx) * scale);
        const v = Math.round(cy + (y - dyMm * perMm - cy) * scale);
        if (u >= 0 && v >= 0 && u < width && v < height && mask.data[v * width + u] === 1) top[y * width + x] = k + 1;
      }
  });
  return { width, height, top };
}

/** The middle of a mask's own bounds, pixels. */
function middleOf({ width, height, data }: Mask): [number, number] {
  let [left, right, upper, lower] = [width, 0, height, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (data[y * width + x] === 1) {
        left = Math.min(left, x);
        right = Math.max(right, x);
        upper = Math.min(upper, y);
        lower = Math.max(lower, y);
      }
  return [(left + right) / 2, (upper + lower) / 2];
}
