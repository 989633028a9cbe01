// How a boundary runs up to a corner or a junction: the line, or where its points say so the parabola, through those beside
// it. What the pixels show at the meeting point itself is rounded off; the sides are followed there from farther out.
import { mainDirection } from "../../geometry/index.ts";

/** A point on a line and its unit direction. */
export interface Line {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

/** A side: with `a` measured along its line from its point, it lies `offset + slope a + bend a²` to the left of it. */
export interface Side extends Line {
  readonly offset: number;
  readonly slope: number;
  readonly bend: number;
  /** How far the points lie off it, root mean square. */
  readonly offPx: number;
}

/** A bend is believed if it brings the points nearer by this many times what chance would. */
const BELIEF = 4;
/** A side may turn by at most this much (as a slope) from its middle to the meeting point: a parabola is no round arc. */
const MOST_TURN = 0.5;
/** How far beyond its points a side is followed, px. */
const BEYOND_PX = 2;
/** Points never lie nearer to their line than this, px: bytes are not finer. */
const FINEST_PX = 0.01;

/**
 * The line or parabola through `count` points, at least two, of x, y pairs: point `first` and each so many `step`s on; the last
 * joins the first.
 */
export function fitSide(points: Float64Array, count: number, first: number, step: 1 | -1 = 1): Side {
  const n = points.length / 2;
  let x = 0;
  let y = 0;
  for (let k = 0; k < count; k++) {
    const p = ((first + k * step + 2 * n) % n) * 2;
    x += points[p] / count;
    y += points[p + 1] / count;
  }
  let xx = 0;
  let xy = 0;
  let yy = 0;
  for (let k = 0; k < count; k++) {
    const p = ((first + k * step + 2 * n) % n) * 2;
    const u = points[p] - x;
    const v = points[p + 1] - y;
    xx += u * u;
    xy += u * v;
    yy += v * v;
  }
  const [dx, dy] = mainDirection(xx, xy, yy);
  const off2 = Math.max(0, xx * dy * dy - 2 * xy * dx * dy + yy * dx * dx);
  const straight = { x, y, dx, dy, offset: 0, slope: 0, bend: 0, offPx: Math.sqrt(off2 / count) };
  if (count < 6) return straight;
  // The line's own sums vanish: along it, across it, and their product.
  const s2 = xx * dx * dx + 2 * xy * dx * dy + yy * dy * dy;
  let s3 = 0;
  let s4 = 0;
  let t = 0;
  for (let k = 0; k < count; k++) {
    const p = ((first + k * step + 2 * n) % n) * 2;
    const u = points[p] - x;
    const v = points[p + 1] - y;
    const a = u * dx + v * dy;
    s3 += a * a * a;
    s4 += a * a * a * a;
    t += a * a * (v * dx - u * dy);
  }
  const bend = t / (s4 - (s2 * s2) / count - (s3 * s3) / s2);
  const bent2 = Math.max(0, off2 - bend * t);
  const chance2 = Math.max(bent2 / (count - 3), FINEST_PX * FINEST_PX);
  const reach = Math.sqrt((3 * s2) / count) + BEYOND_PX;
  if (!(off2 - bent2 > BELIEF * BELIEF * chance2) || Math.abs(2 * bend) * reach > MOST_TURN) return straight;
  return { ...straight, offset: (-bend * s2) / count, slope: (-bend * s3) / s2, bend, offPx: Math.sqrt(bent2 / count) };
}

/** The line that touches a side where it passes a place. */
export function touchingLine(side: Side, x: number, y: number): Line {
  if (side.bend === 0) return side;
  const a = (x - side.x) * side.dx + (y - side.y) * side.dy;
  const across = side.offset + a * (side.slope + a * side.bend);
  const rise = side.slope + 2 * a * side.bend;
  const length = Math.sqrt(1 + rise * rise);
  return {
    x: side.x + a * side.dx - across * side.dy,
    y: side.y + a * side.dy + across * side.dx,
    dx: (side.dx - rise * side.dy) / length,
    dy: (side.dy + rise * side.dx) / length,
  };
}
