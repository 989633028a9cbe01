// Straight parts of a boundary that otherwise bends smoothly: the sides of a rounded box, the flanks of a letter. Found
// before curves are fitted, so that they stay straight and give the curves beside them their directions. Our own method;
// a line's fit over any stretch costs the same, from running sums.
import { lengthOf, mainDirection } from "../../geometry/index.ts";
import { distanceAcross } from "../read/index.ts";

/** A straight part between two points of the run, as a point on its line and the unit direction of travel. */
export interface Straight {
  readonly from: number;
  readonly to: number;
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

/** Fewer points than this say nothing about straightness. */
const LEAST = 16;
/** The middle third may lie off the outer two by this share of what single points may. */
const BEND_SHARE = 0.35;
/** So many points at either end, taken together, may lie this many times that off the line. */
const END = 4;
const END_OFF = 1.5;
/** Beyond its ends the boundary must leave the line by this many times that: a wide arc leaves it more slowly. */
const LEAVING = 6;

/** Distances from a line at which the way of the curve beside it is read, px. */
const NEAR_PX = 0.25;
const FAR_PX = 1.2;

/**
 * The straight parts of points[from..to] (x, y pairs about a pixel apart), in order and without overlaps. `offPx`: how far
 * their points lie off the line, root mean square. What meets a corner at an end of the run need not leave the line there.
 */
export function findStraights(points: Float64Array, from: number, to: number, offPx: number): Straight[] {
  if (to - from + 1 < LEAST) return [];
  const lines = new RunningLines(points, from, to);
  const found: Straight[] = [];
  let least = from;
  for (let start = from; start + LEAST - 1 <= to; ) {
    if (!lines.isStraight(start, start + LEAST - 1, offPx)) {
      start += 2;
      continue;
    }
    const end = farthest(start + LEAST - 1, to, (i) => lines.isStraight(start, i, offPx));
    const begin = least < start && lines.isStraight(start - 1, end, offPx) ? start - 1 : start;
    const line = lines.between(begin, end);
    if (leaves(points, line, begin, -1, from, to, offPx) && leaves(points, line, end, 1, from, to, offPx)) {
      const a = touchPoint(points, line, begin, -1, from, to);
      const b = touchPoint(points, line, end, 1, from, to);
      const { x, y, dx, dy } = b - a + 1 >= LEAST ? lines.between(a, b) : line;
      if (b - a + 1 >= LEAST / 2) found.push({ from: a, to: b, x, y, dx, dy });
      least = end;
    }
    start = end;
  }
  return found;
}

/**
 * The straight part, up to points `a` and `b` beyond its ends where all points between lie within `mostPx` of the line to
 * them, and within `offPx`, root mean square; else null.
 */
export function stretchStraight(
  points: Float64Array,
  straight: Straight,
  a: number,
  b: number,
  offPx: number,
  mostPx: number,
): Straight | null {
  const endAt = (i: number, isNew: boolean): readonly [number, number] => {
    const { x, y, dx, dy } = straight;
    const along = (points[i * 2] - x) * dx + (points[i * 2 + 1] - y) * dy;
    return isNew ? [points[i * 2], points[i * 2 + 1]] : [x + along * dx, y + along * dy];
  };
  const [x, y] = endAt(a, a < straight.from);
  const [ex, ey] = endAt(b, b > straight.to);
  const length = lengthOf(ex - x, ey - y);
  const [dx, dy] = [(ex - x) / length, (ey - y) / length];
  let sum2 = 0;
  for (let i = a + 1; i < b; i++) {
    const off = distanceAcross(x, y, ex, ey, points[i * 2], points[i * 2 + 1]);
    if (off > mostPx) return null;
    sum2 += off * off;
  }
  return sum2 <= (b - a) * offPx * offPx ? { from: a, to: b, x, y, dx, dy } : null;
}

/** The last index from `first` to `last` that still holds, by doubling the step and then halving the gap. */
function farthest(first: number, last: number, holds: (i: number) => boolean): number {
  let good = first;
  let bad = last + 1;
  for (let step = 2; good + step <= last; step *= 2) {
    if (!holds(good + step)) {
      bad = good + step;
      break;
    }
    good += step;
  }
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    if (holds(middle)) good = middle;
    else bad = middle;
  }
  return good;
}

interface Line {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
  readonly off2: number;
  readonly length: number;
}

/** Whether the boundary turns away from a line beyond its end, or the run ends there. */
function leaves(
  points: Float64Array,
  { x, y, dx, dy, length }: Line,
  end: number,
  sign: number,
  from: number,
  to: number,
  offPx: number,
): boolean {
  const reach = Math.max(4, length / 4);
  const startX = points[end * 2];
  const startY = points[end * 2 + 1];
  for (let i = end + sign; i >= from && i <= to; i += sign) {
    const px = points[i * 2];
    const py = points[i * 2 + 1];
    if (lengthOf(px - startX, py - startY) < reach) continue;
    return Math.abs((px - x) * dy - (py - y) * dx) >= LEAVING * offPx;
  }
  return true;
}

/**
 * Where a line touches the curve that goes on beyond its end, as an index: the line was followed as far as noise allows. The
 * distance of an arc from its tangent grows with the square of the way, so that the roots of two distances point at it.
 */
function touchPoint(
  points: Float64Array,
  { x, y, dx, dy }: Line,
  end: number,
  sign: number,
  from: number,
  to: number,
): number {
  const along = (i: number) => sign * ((points[i * 2] - x) * dx + (points[i * 2 + 1] - y) * dy);
  const away = (i: number) => Math.abs((points[i * 2] - x) * dy - (points[i * 2 + 1] - y) * dx);
  let near = end;
  while (near >= from && near <= to && away(near) < NEAR_PX) near += sign;
  let far = near;
  while (far >= from && far <= to && away(far) < FAR_PX) far += sign;
  if (far < from || far > to || far === near) return end;
  const rootNear = Math.sqrt(away(near));
  const touch = along(near) - (rootNear * (along(far) - along(near))) / (Math.sqrt(away(far)) - rootNear);
  let i = end;
  while (i - sign > from && i - sign < to && along(i) > touch) i -= sign;
  return i;
}

/** Lines by least squares through any stretch of a run. */
class RunningLines {
  private readonly sums: Float64Array;
  private readonly x0: number;
  private readonly y0: number;

  constructor(
    private readonly points: Float64Array,
    private readonly from: number,
    to: number,
  ) {
    this.x0 = points[from * 2];
    this.y0 = points[from * 2 + 1];
    this.sums = new Float64Array((to - from + 2) * 5);
    for (let i = from; i <= to; i++) {
      const o = (i - from) * 5;
      const x = points[i * 2] - this.x0;
      const y = points[i * 2 + 1] - this.y0;
      this.sums[o + 5] = this.sums[o] + x;
      this.sums[o + 6] = this.sums[o + 1] + y;
      this.sums[o + 7] = this.sums[o + 2] + x * x;
      this.sums[o + 8] = this.sums[o + 3] + x * y;
      this.sums[o + 9] = this.sums[o + 4] + y * y;
    }
  }

  /** The line through points a..b, pointing from a to b. */
  between(a: number, b: number): Line {
    const { sums } = this;
    const i = (a - this.from) * 5;
    const j = (b + 1 - this.from) * 5;
    const n = b - a + 1;
    const mx = (sums[j] - sums[i]) / n;
    const my = (sums[j + 1] - sums[i + 1]) / n;
    const xx = (sums[j + 2] - sums[i + 2]) / n - mx * mx;
    const xy = (sums[j + 3] - sums[i + 3]) / n - mx * my;
    const yy = (sums[j + 4] - sums[i + 4]) / n - my * my;
    const [dx, dy] = mainDirection(xx, xy, yy);
    const wayX = this.points[b * 2] - this.points[a * 2];
    const wayY = this.points[b * 2 + 1] - this.points[a * 2 + 1];
    const sign = dx * wayX + dy * wayY < 0 ? -1 : 1;
    return {
      x: mx + this.x0,
      y: my + this.y0,
      dx: dx * sign,
      dy: dy * sign,
      off2: Math.max(0, xx * dy * dy - 2 * xy * dx * dy + yy * dx * dx),
      length: lengthOf(wayX, wayY),
    };
  }

  isStraight(a: number, b: number, offPx: number): boolean {
    const { x, y, dx, dy, off2 } = this.between(a, b);
    if (off2 > offPx * offPx) return false;
    // On a long line the start of a bend hardly shows in the mean.
    const across = (x - this.x0) * -dy + (y - this.y0) * dx;
    if (Math.abs(this.across(a, a + END - 1, dx, dy) - across) > END_OFF * offPx) return false;
    if (Math.abs(this.across(b - END + 1, b, dx, dy) - across) > END_OFF * offPx) return false;
    const third = Math.floor((b - a + 1) / 3);
    const outer = (this.across(a, a + third - 1, dx, dy) + this.across(b - third + 1, b, dx, dy)) / 2;
    return Math.abs(this.across(a + third, b - third, dx, dy) - outer) <= BEND_SHARE * offPx;
  }

  /** Mean place of points a..b across a direction. */
  private across(a: number, b: number, dx: number, dy: number): number {
    const i = (a - this.from) * 5;
    const j = (b + 1 - this.from) * 5;
    return ((this.sums[j + 1] - this.sums[i + 1]) * dx - (this.sums[j] - this.sums[i]) * dy) / (b - a + 1);
  }
}
