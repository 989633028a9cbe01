// Which colours lie around a pixel.
import { MAX_FOUND } from "./palette.ts";

/** The labels met around one pixel, gathered without allocating. */
export interface Nearby {
  count: number;
  readonly list: Uint8Array;
  readonly seen: Uint8Array;
}

export function makeNearby(): Nearby {
  return { count: 0, list: new Uint8Array(MAX_FOUND), seen: new Uint8Array(256) };
}

/** Gathers the labels of colours within `radius` pixels of `p`, in eight directions. */
export function gatherNearby(
  nearby: Nearby,
  labels: Uint8Array,
  width: number,
  height: number,
  p: number,
  radius: number,
): void {
  for (let k = 0; k < nearby.count; k++) nearby.seen[nearby.list[k]] = 0;
  nearby.count = 0;
  const x = p % width;
  const y = (p - x) / width;
  const x0 = Math.max(0, x - radius);
  const x1 = Math.min(width - 1, x + radius);
  const y1 = Math.min(height - 1, y + radius);
  let last = MAX_FOUND;
  for (let v = Math.max(0, y - radius); v <= y1; v++) {
    for (let q = v * width + x0, end = v * width + x1; q <= end; q++) {
      const label = labels[q];
      // Labels come in runs.
      if (label === last) continue;
      last = label;
      if (label >= MAX_FOUND || nearby.seen[label] === 1) continue;
      nearby.seen[label] = 1;
      nearby.list[nearby.count++] = label;
    }
  }
}

/** The pixels within `radius` of `p`, itself included, row by row. */
export function around(p: number, radius: number, width: number, height: number): number[] {
  const x = p % width;
  const y = (p - x) / width;
  const pixels: number[] = [];
  for (let v = Math.max(0, y - radius); v <= Math.min(height - 1, y + radius); v++)
    for (let u = Math.max(0, x - radius); u <= Math.min(width - 1, x + radius); u++) pixels.push(v * width + u);
  return pixels;
}
