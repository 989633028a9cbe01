// Points as x, y pairs in one flat array.
import { lengthOf } from "./vector.ts";

/** Visits each point in order. */
export function eachPoint(points: ArrayLike<number>, visit: (x: number, y: number) => void): void {
  for (let i = 0; i + 1 < points.length; i += 2) visit(points[i], points[i + 1]);
}

/** Length of the line through points. */
export function lengthAlong(points: ArrayLike<number>): number {
  let length = 0;
  for (let i = 2; i + 1 < points.length; i += 2)
    length += lengthOf(points[i] - points[i - 2], points[i + 1] - points[i - 1]);
  return length;
}

export interface Bounds {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The box around points; of none, one that lies nowhere (left beyond right). A curve lies in the box of its control points. */
export function boundsOf(points: ArrayLike<number>): Bounds {
  let left = Number.POSITIVE_INFINITY;
  let top = Number.POSITIVE_INFINITY;
  let right = Number.NEGATIVE_INFINITY;
  let bottom = Number.NEGATIVE_INFINITY;
  for (let i = 0; i + 1 < points.length; i += 2) {
    left = Math.min(left, points[i]);
    right = Math.max(right, points[i]);
    top = Math.min(top, points[i + 1]);
    bottom = Math.max(bottom, points[i + 1]);
  }
  return { left, top, right, bottom };
}

/** The box around several lines or curves. */
export function boundsOfAll(lines: readonly ArrayLike<number>[]): Bounds {
  return boundsOf(lines.map(boundsOf).flatMap(({ left, top, right, bottom }) => [left, top, right, bottom]));
}

/** Whether a place lies inside the closed line through points (even-odd); a repeated last point changes nothing. */
export function isInLine(points: ArrayLike<number>, x: number, y: number): boolean {
  let isInside = false;
  const n = points.length;
  for (let i = 0; i < n; i += 2) {
    const k = (i + 2) % n;
    if (points[i + 1] > y === points[k + 1] > y) continue;
    const t = (y - points[i + 1]) / (points[k + 1] - points[i + 1]);
    if (points[i] + t * (points[k] - points[i]) > x) isInside = !isInside;
  }
  return isInside;
}
