// Known outlines for the tests of areas and of what is made in them.
import type { Ring } from "./area.ts";

export const ring = (...points: readonly number[]): Ring => Float64Array.from(points);

/** Turns from x to y, as holes do. */
export function circle(x: number, y: number, radius: number, count = 180): Ring {
  return Float64Array.from({ length: count * 2 }, (_, i) => {
    const angle = (Math.floor(i / 2) / count) * 2 * Math.PI;
    return i % 2 === 0 ? x + radius * Math.cos(angle) : y + radius * Math.sin(angle);
  });
}

export function backwards(one: Ring): Ring {
  return Float64Array.from({ length: one.length }, (_, i) => one[one.length - 2 - (i - (i % 2)) + (i % 2)]);
}
