// How much of every pixel closed paths cover, exactly for straight sides: areas under each side are summed along rows (signed
// area accumulation, as font rasterisers do it).
import { type CubicPath, flattenPath } from "../../geometry/index.ts";

/** Shares (0..1) of pixels, row by row. */
export interface Coverage {
  readonly width: number;
  readonly height: number;
  readonly cover: Float32Array;
}

const FLAT_PX = 0.05;

/** Paths in pixels; what any of them winds round is covered, holes wind the other way. Beyond the edges nothing is. */
export function coverPaths(paths: readonly CubicPath[], width: number, height: number): Coverage {
  const stride = width + 1;
  const sums = new Float32Array(stride * height);
  for (const path of paths) {
    const line = flattenPath(path, FLAT_PX);
    for (let i = 0; i + 3 < line.length; i += 2)
      addSide(sums, stride, height, line[i], line[i + 1], line[i + 2], line[i + 3]);
  }
  const cover = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    let sum = 0;
    for (let x = 0; x < width; x++) {
      sum += sums[y * stride + x];
      cover[y * width + x] = Math.min(1, Math.abs(sum));
    }
  }
  return { width, height, cover };
}

/** Adds what lies right of a side: to each pixel of its rows the change of the covered area. */
function addSide(
  sums: Float32Array,
  stride: number,
  height: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): void {
  if (y0 === y1) return;
  const sign = y0 < y1 ? 1 : -1;
  const [topX, topY, bottomX, bottomY] = sign > 0 ? [x0, y0, x1, y1] : [x1, y1, x0, y0];
  const slope = (bottomX - topX) / (bottomY - topY);
  for (let row = Math.max(0, Math.floor(topY)); row < Math.min(height, Math.ceil(bottomY)); row++) {
    const from = Math.max(row, topY);
    const to = Math.min(row + 1, bottomY);
    const high = sign * (to - from);
    const a = topX + (from - topY) * slope;
    const b = topX + (to - topY) * slope;
    addStep(sums, row * stride, stride - 1, Math.min(a, b), Math.max(a, b), high);
  }
}

/** A step of a side across one row, from `left` to `right`: it covers what of each pixel lies right of it, and all beyond. */
function addStep(sums: Float32Array, o: number, width: number, left: number, right: number, high: number): void {
  if (right <= 0) sums[o] += high;
  if (right <= 0 || left >= width) return;
  const each = right > left ? high / (right - left) : 0;
  if (left < 0) sums[o] -= each * left;
  const first = Math.max(0, Math.floor(left));
  for (let x = first; x < width && (x < right || x === first); x++) {
    const [enter, leave] = [Math.max(left, x), Math.min(right, x + 1)];
    const crossed = right > left ? each * (leave - enter) : high;
    const share = (enter + leave) / 2 - x;
    sums[o + x] += crossed * (1 - share);
    sums[o + x + 1] += crossed * share;
  }
}

/** Area of what both cover by what either does, 0..1. */
export function overlapOf(a: Float32Array, b: Float32Array): number {
  let both = 0;
  let either = 0;
  for (let i = 0; i < a.length; i++) {
    const [one, other] = [a[i], b[i]];
    both += Math.min(one, other);
    either += Math.max(one, other);
  }
  return either === 0 ? 0 : both / either;
}
