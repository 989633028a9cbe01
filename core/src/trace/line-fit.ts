// A straight line through some points of a boundary, by total least squares.
import { mainDirection } from "../geometry/index.ts";

/** A point on the line, its unit direction, and how far the points lie off it, root mean square. */
export interface FittedLine {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  readonly offLinePx: number;
}

/** The line through `count` points, at least one, of x, y pairs; `indexAt` says which point is the k-th. */
export function fitLine(points: Float64Array, count: number, indexAt: (k: number) => number): FittedLine {
  let x = 0;
  let y = 0;
  for (let k = 0; k < count; k++) {
    x += points[indexAt(k) * 2] / count;
    y += points[indexAt(k) * 2 + 1] / count;
  }
  let xx = 0;
  let xy = 0;
  let yy = 0;
  for (let k = 0; k < count; k++) {
    const u = points[indexAt(k) * 2] - x;
    const v = points[indexAt(k) * 2 + 1] - y;
    xx += u * u;
    xy += u * v;
    yy += v * v;
  }
  const [dx, dy] = mainDirection(xx, xy, yy);
  const across = xx * dy * dy - 2 * xy * dx * dy + yy * dx * dx;
  return { x, y, dx, dy, offLinePx: Math.sqrt(Math.max(0, across) / count) };
}
