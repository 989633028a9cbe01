// Straight lines across an area: what of them lies in it.
import { boundsOfAll } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";
import type { Ring } from "./area.ts";

/** Where each segment begins and ends, and in which row it is. */
export interface Segments {
  readonly left: Float64Array;
  readonly right: Float64Array;
  readonly row: Int32Array;
}

/** What lies inside rings on `count` lines along x, the first at `top`, `spacingMm` apart: from left to right, row by row. */
export function crossRows(rings: readonly Ring[], top: number, spacingMm: number, count: number): Segments {
  const crossings: number[][] = Array.from({ length: count }, () => []);
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j], ring[j + 1], ring[i], ring[i + 1]];
      const [first, last] = [Math.min(ay, by), Math.max(ay, by)].map((y) => Math.ceil((y - top) / spacingMm));
      for (let row = Math.max(0, first); row < Math.min(count, last); row++)
        crossings[row].push(ax + ((top + row * spacingMm - ay) / (by - ay)) * (bx - ax));
    }
  const [left, right, row]: [number[], number[], number[]] = [[], [], []];
  crossings.forEach((xs, r) => {
    xs.sort((a, b) => a - b);
    for (let i = 0; i + 1 < xs.length; i += 2) {
      left.push(xs[i]);
      right.push(xs[i + 1]);
      row.push(r);
    }
  });
  return { left: Float64Array.from(left), right: Float64Array.from(right), row: Int32Array.from(row) };
}

/** Heights at which a place inside an area is looked for, as shares of its own. */
const HEIGHTS = [0.5, 0.37, 0.63, 0.2, 0.8, 0.05, 0.95];

/** A place well inside an area: the middle of its widest stretch at one of some heights. */
export function placeInside(rings: readonly Ring[]): Point {
  const { top, bottom } = boundsOfAll(rings);
  let best = { x: rings[0][0], y: rings[0][1], width: 0 };
  for (const share of HEIGHTS) {
    const y = top + share * (bottom - top);
    const { left, right } = crossRows(rings, y, 1, 1);
    left.forEach((from, i) => {
      if (right[i] - from > best.width) best = { x: (from + right[i]) / 2, y, width: right[i] - from };
    });
  }
  return { x: best.x, y: best.y };
}
