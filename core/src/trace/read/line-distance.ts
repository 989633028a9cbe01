// How far points lie from a polyline that runs along with them.
import { lengthOf } from "../../geometry/index.ts";

/** Distance of a place to the segment between points `i` and `j` of a polyline (x, y pairs). */
export function distanceToSegment(line: ArrayLike<number>, i: number, j: number, x: number, y: number): number {
  const o = i * 2;
  const dx = line[j * 2] - line[o];
  const dy = line[j * 2 + 1] - line[o + 1];
  const length2 = dx * dx + dy * dy;
  const t = length2 === 0 ? 0 : ((x - line[o]) * dx + (y - line[o + 1]) * dy) / length2;
  const u = Math.min(1, Math.max(0, t));
  return lengthOf(line[o] + u * dx - x, line[o + 1] + u * dy - y);
}

/** A point beside a junction may be read so far beyond it, px. */
const BEYOND_PX = 1.5;

/**
 * Distance of a place across the line between two others; infinite beyond its ends, as where a boundary comes back round a
 * thin tip.
 */
export function distanceAcross(x0: number, y0: number, x1: number, y1: number, x: number, y: number): number {
  const length = lengthOf(x1 - x0, y1 - y0);
  if (length === 0) return lengthOf(x - x0, y - y0);
  const along = ((x - x0) * (x1 - x0) + (y - y0) * (y1 - y0)) / length;
  if (along < -BEYOND_PX || along > length + BEYOND_PX) return Number.POSITIVE_INFINITY;
  return Math.abs((x - x0) * (y1 - y0) - (y - y0) * (x1 - x0)) / length;
}

/** How far ahead along the polyline the nearest place is looked for, px: what lies nearer by is another part of it. */
const AHEAD_PX = 6;

/**
 * Calls `tell` with the distance of every point to the polyline, both x, y pairs that run the same way. The search goes
 * along with the points, so that its cost follows their length; a closed line is entered where it is nearest.
 */
export function eachDistance(
  points: ArrayLike<number>,
  line: ArrayLike<number>,
  tell: (distance: number, i: number) => void,
): void {
  const segments = line.length / 2 - 1;
  const count = points.length / 2;
  if (segments < 1 || count === 0) return;
  const closes = line[0] === line[segments * 2] && line[1] === line[segments * 2 + 1];
  let at = 0;
  let entered = Number.POSITIVE_INFINITY;
  for (let i = 0; i < segments; i++) {
    const distance = distanceToSegment(line, i, i + 1, points[0], points[1]);
    if (distance < entered) {
      entered = distance;
      at = i;
    }
  }
  for (let k = 0; k < count; k++) {
    const x = points[k * 2];
    const y = points[k * 2 + 1];
    let best = distanceToSegment(line, at, at + 1, x, y);
    let bestAt = at;
    let way = 0;
    for (let step = 1; step < segments && way < AHEAD_PX; step++) {
      const i = closes ? (at + step) % segments : at + step;
      if (i >= segments) break;
      const distance = distanceToSegment(line, i, i + 1, x, y);
      way += lengthOf(line[i * 2 + 2] - line[i * 2], line[i * 2 + 3] - line[i * 2 + 1]);
      if (distance < best) {
        best = distance;
        bestAt = i;
        way = 0;
      }
    }
    at = bestAt;
    tell(best, k);
  }
}

/** Largest distance of any point of one polyline to another that runs along with it. */
export function distanceBetween(points: ArrayLike<number>, line: ArrayLike<number>): number {
  let most = 0;
  eachDistance(points, line, (distance) => {
    if (distance > most) most = distance;
  });
  return most;
}
