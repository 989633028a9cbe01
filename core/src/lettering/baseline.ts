// What letters stand on: a straight line, an arc, or a curve. y points down, lengths are in any one unit.
import { type CubicPath, flattenPath, isClosed, lengthOf } from "../geometry/index.ts";
import { type Point, turn } from "../raster/index.ts";

export type Baseline =
  | {
      readonly kind: "line";
      /** Where the text is anchored: its left end, middle or right end, as it is aligned. */
      readonly at: Point;
      /** Direction of reading there, of length 1. */
      readonly along: Point;
      /** Arched over a centre below it, or hanging under one above it if negative; null: straight. */
      readonly radius: number | null;
    }
  | {
      readonly kind: "curve";
      readonly path: CubicPath;
      /** Where on it the text is anchored, as a share of its length. */
      readonly share: number;
      /** How far above it letters stand. */
      readonly gap: number;
    };

/** A place on a baseline and the direction of reading there, of length 1. */
export interface Stand {
  readonly x: number;
  readonly y: number;
  readonly cos: number;
  readonly sin: number;
}

/** Where to stand `s` along from the anchor, on the line that is `drop` below the first. */
export type StandOn = (s: number, drop: number) => Stand;

const DEG = 180 / Math.PI;

/** Lines of an arch are never bent tighter than this. */
export function standsOn(baseline: Baseline, leastRadius: number): StandOn {
  if (baseline.kind === "curve") return standsOnCurve(baseline);
  const { at, along, radius } = baseline;
  if (radius === null)
    return (s, drop) => ({
      x: at.x + along.x * s - along.y * drop,
      y: at.y + along.y * s + along.x * drop,
      cos: along.x,
      sin: along.y,
    });
  const centre = { x: at.x - along.y * radius, y: at.y + along.x * radius };
  return (s, drop) => {
    const inner = radius > 0 ? Math.max(leastRadius, radius - drop) : Math.min(-leastRadius, radius - drop);
    const { sin, cos } = turn((s / inner) * DEG);
    const [dx, dy] = [along.x * cos - along.y * sin, along.x * sin + along.y * cos];
    return { x: centre.x + dy * inner, y: centre.y - dx * inner, cos: dx, sin: dy };
  };
}

/** How finely curves are followed, in shares of their length. */
const CURVE_SHARE = 1e-6;

function standsOnCurve({ path, share, gap }: Extract<Baseline, { kind: "curve" }>): StandOn {
  const rough = lengths(flattenPath(path, Number.POSITIVE_INFINITY)).at(-1) ?? 0;
  const points = flattenPath(path, Math.max(1e-6, rough * CURVE_SHARE));
  const sums = lengths(points);
  const whole = sums.at(-1) || 1;
  const isRing = isClosed(path);
  const place = (s: number): Stand => {
    const at = isRing ? s - whole * Math.floor(s / whole) : s;
    let i = 0;
    let last = sums.length - 2;
    while (i < last) {
      const middle = (i + last + 1) >> 1;
      if (sums[middle] <= at) i = middle;
      else last = middle - 1;
    }
    const o = i * 2;
    const [dx, dy] = [points[o + 2] - points[o], points[o + 3] - points[o + 1]];
    const length = lengthOf(dx, dy) || 1;
    // Beyond an end it goes on straight.
    const on = at - sums[i];
    const [cos, sin] = [dx / length, dy / length];
    return { x: points[o] + cos * on, y: points[o + 1] + sin * on, cos, sin };
  };
  return (s, drop) => {
    const { x, y, cos, sin } = place(whole * share + s);
    return { x: x - sin * (drop - gap), y: y + cos * (drop - gap), cos, sin };
  };
}

/** How long a line of points is up to each of them. */
function lengths(points: ArrayLike<number>): number[] {
  const out = [0];
  for (let i = 2; i + 1 < points.length; i += 2)
    out.push(out[out.length - 1] + lengthOf(points[i] - points[i - 2], points[i + 1] - points[i - 1]));
  return out;
}

/** The arc from one point through another to a third as a baseline anchored in its middle; straight if they are in line. */
export function arcThrough(from: Point, over: Point, to: Point): Extract<Baseline, { kind: "line" }> {
  const chord = lengthOf(to.x - from.x, to.y - from.y) || 1;
  const straight = { x: (to.x - from.x) / chord, y: (to.y - from.y) / chord };
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  const [ux, uy] = [over.x - middle.x, over.y - middle.y];
  const [t, up] = [ux * straight.x + uy * straight.y, ux * straight.y - uy * straight.x];
  const half = chord / 2;
  if (Math.abs(up) < half * FLAT_SHARE) return { kind: "line", at: middle, along: straight, radius: null };
  // The centre is as far from the middle point as from the ends: it lies `below` the chord.
  const below = (half * half - t * t - up * up) / (2 * up);
  const radius = Math.sqrt(half * half + below * below) * (up > 0 ? 1 : -1);
  const rise = radius - below;
  return {
    kind: "line",
    at: { x: middle.x + straight.y * rise, y: middle.y - straight.x * rise },
    along: straight,
    radius,
  };
}

/** Arcs that rise less, in shares of half their chord, are lines. */
const FLAT_SHARE = 0.004;
