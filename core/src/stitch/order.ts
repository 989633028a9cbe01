// In which order the areas of a colour are sewn, so that ways between them are short: from the nearest to the nearest, then
// bettered by turning stretches round (2-opt: Croes 1958) until nothing is gained.
import type { Ring } from "../area/index.ts";
import { boundsOf, lengthOf } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";

/** Points of an outline that stand for it. */
const SAMPLES = 16;
/** Things are far apart from so many times the sum of their radii on. */
const FAR = 4;
/** Rounds of bettering at most: few are needed. */
const MOST_ROUNDS = 12;

/** Some points of an area's outlines, for measuring how far areas are apart. */
export function sampleOutline(rings: readonly Ring[]): Float64Array {
  const [ring] = rings;
  const n = ring.length / 2;
  const count = Math.min(SAMPLES, n);
  const out = new Float64Array(count * 2);
  for (let k = 0; k < count; k++) {
    const i = Math.floor((k * n) / count);
    out[k * 2] = ring[i * 2];
    out[k * 2 + 1] = ring[i * 2 + 1];
  }
  return out;
}

/** Of one list of points the one that is nearest to any of another, and how far that is. */
export function nearestOf(own: Float64Array, others: Float64Array): { place: Point; away: number } {
  let [best, most] = [0, Number.POSITIVE_INFINITY];
  for (let i = 0; i < own.length; i += 2)
    for (let j = 0; j < others.length; j += 2) {
      const [dx, dy] = [own[i] - others[j], own[i + 1] - others[j + 1]];
      const away = dx * dx + dy * dy;
      if (away < most) [best, most] = [i, away];
    }
  return { place: { x: own[best], y: own[best + 1] }, away: Math.sqrt(most) };
}

/** A circle that some points lie in. */
function circleRound(points: Float64Array): { x: number; y: number; radius: number } {
  const { left, top, right, bottom } = boundsOf(points);
  return { x: (left + right) / 2, y: (top + bottom) / 2, radius: lengthOf(right - left, bottom - top) / 2 };
}

/** An order for things at places, each given by points of its outline, that begins near `from`. */
export function orderShort(outlines: readonly Float64Array[], from: Point): number[] {
  const n = outlines.length;
  if (n < 2) return outlines.map((_, i) => i);
  const away = new Float64Array(n * n);
  const circles = outlines.map(circleRound);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < i; j++) {
      const [one, other] = [circles[i], circles[j]];
      const radii = one.radius + other.radius;
      const middles = lengthOf(one.x - other.x, one.y - other.y);
      // Of what is far apart it does not matter where it is nearest.
      away[i * n + j] = middles > FAR * radii ? middles - radii : nearestOf(outlines[i], outlines[j]).away;
      away[j * n + i] = away[i * n + j];
    }
  const start = Float64Array.from([from.x, from.y]);
  const first = outlines.map((outline) => nearestOf(outline, start).away);
  return better(fromNearest(away, first), away, first);
}

function fromNearest(away: Float64Array, first: readonly number[]): number[] {
  const n = first.length;
  const isTaken = new Uint8Array(n);
  const order: number[] = [];
  for (let last = -1; order.length < n; ) {
    let next = -1;
    for (let i = 0; i < n; i++) {
      if (isTaken[i] === 1) continue;
      const d = last < 0 ? first[i] : away[last * n + i];
      if (next < 0 || d < (last < 0 ? first[next] : away[last * n + next])) next = i;
    }
    isTaken[next] = 1;
    order.push(next);
    last = next;
  }
  return order;
}

function better(order: number[], away: Float64Array, first: readonly number[]): number[] {
  const n = order.length;
  const d = (i: number, j: number) => (i < 0 ? first[order[j]] : j >= n ? 0 : away[order[i] * n + order[j]]);
  for (let round = 0, isBetter = true; isBetter && round < MOST_ROUNDS; round++) {
    isBetter = false;
    for (let i = 0; i < n - 1; i++)
      for (let j = i + 1; j < n; j++) {
        const gain = d(i - 1, i) + d(j, j + 1) - d(i - 1, j) - (j + 1 < n ? away[order[i] * n + order[j + 1]] : 0);
        if (gain < 1e-9) continue;
        for (let a = i, b = j; a < b; a++, b--) [order[a], order[b]] = [order[b], order[a]];
        isBetter = true;
      }
  }
  return order;
}
