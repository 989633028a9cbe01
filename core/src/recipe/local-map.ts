// How a map between pictures moves what is near a place.
import { type Homography, mapPoint, type Point } from "../raster/index.ts";

/** A linear map, row by row. */
export type Matrix = readonly [number, number, number, number];

/** How a map moves what is near a place. */
export function localMap(map: Homography, { x, y }: Point): Matrix {
  const at = mapPoint(map, { x, y });
  const [right, down] = [mapPoint(map, { x: x + 1, y }), mapPoint(map, { x, y: y + 1 })];
  return [right.x - at.x, down.x - at.x, right.y - at.y, down.y - at.y];
}

export function scaleAt(map: Homography, at: Point): number {
  const [a, b, c, d] = localMap(map, at);
  return Math.sqrt(Math.abs(a * d - b * c));
}

export function times([a, b, c, d]: Matrix, [e, f, g, h]: Matrix): Matrix {
  return [a * e + b * g, a * f + b * h, c * e + d * g, c * f + d * h];
}

export function inverse([a, b, c, d]: Matrix): Matrix {
  const by = a * d - b * c;
  return [d / by, -b / by, -c / by, a / by];
}

/** Whether a map turns what is near a place over, as a mirror does. */
export function turnsOver(map: Homography, at: Point): boolean {
  const [a, b, c, d] = localMap(map, at);
  return a * d - b * c < 0;
}
