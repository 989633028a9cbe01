// Stations of a column: the two rails of a strip, matched point by point, evened out so that rungs lie square across.
import { lengthOf } from "../geometry/index.ts";
import { type MeasuredLine, measureLine, pointAlong } from "./measured-line.ts";

/** Stations are this far apart along the middle, mm: a quarter of a thread. */
export const STATION_MM = 0.1;
/** Numbers of a station: x, y on one rail, then on the other. */
export const STRIDE = 4;

/** Two points across from each other: ax, ay, bx, by. */
export type Pair = readonly [number, number, number, number];

/** Which points lie across from each other is evened out over this share of the width to both sides (our own). */
const EVEN_SHARE = 0.6;

/**
 * Pairs along a strip, rungs slanting as they were found, as stations at even distances whose rungs are square to the middle as
 * far as rails allow. Rails stay where they are; so do the ends. `stationOf` says where a pair has come to lie.
 */
export function evenOut(
  pairs: readonly Pair[],
  isClosed: boolean,
): { readonly stations: Float64Array; stationOf(pair: number): number } {
  const a = railOf(pairs, 0);
  const b = railOf(pairs, 2);
  const middles = Array.from(a.along, (along, i) => (along + b.along[i]) / 2);
  const whole = middles[middles.length - 1];
  const count = Math.max(2, Math.round(whole / STATION_MM) + 1);
  const [wholeA, wholeB] = [a.along[pairs.length - 1], b.along[pairs.length - 1]];
  // How far rail A is ahead of the middle: what slants a rung. Round a ring one rail is longer, which is no slant.
  const drift = isClosed ? (wholeA - wholeB) / 2 / (whole || 1) : 0;
  const ahead = new Float64Array(count);
  for (let k = 0, i = 0; k < count; k++) {
    const at = (k / (count - 1)) * whole;
    while (i < pairs.length - 2 && middles[i + 1] < at) i++;
    const t = Math.min(1, Math.max(0, (at - middles[i]) / (middles[i + 1] - middles[i] || 1)));
    const atA = a.along[i] + t * (a.along[i + 1] - a.along[i]);
    ahead[k] = atA - at - drift * at;
  }
  const reach = Math.round((EVEN_SHARE * middleWidth(pairs)) / STATION_MM);
  const even = smooth(ahead, reach, isClosed);
  const stations = new Float64Array(count * STRIDE);
  const [onA, onB] = [pointAlong(a), pointAlong(b)];
  for (let k = 0; k < count; k++) {
    const at = (k / (count - 1)) * whole;
    const off = even[k] + drift * at;
    stations.set([...onA(at + off), ...onB(at - off)], k * STRIDE);
  }
  return {
    stations,
    stationOf: (pair) => Math.round((middles[Math.min(pair, pairs.length - 1)] / (whole || 1)) * (count - 1)),
  };
}

function railOf(pairs: readonly Pair[], from: 0 | 2): MeasuredLine {
  return measureLine(Float64Array.from(pairs.flatMap((pair) => [pair[from], pair[from + 1]])));
}

function middleWidth(pairs: readonly Pair[]): number {
  const widths = pairs.map(([ax, ay, bx, by]) => lengthOf(bx - ax, by - ay)).sort((one, other) => one - other);
  return widths[widths.length >> 1];
}

/** Means over `reach` values to both sides; of an open row fewer near its ends, so that those stay. */
function smooth(values: Float64Array, reach: number, isRound: boolean): Float64Array {
  const n = values.length;
  const sums = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) sums[i + 1] = sums[i] + values[i];
  // The last of a round row is its first again.
  const period = n - 1;
  const sumUpTo = (i: number) => {
    const turns = Math.floor(i / period);
    return turns * sums[period] + sums[i - turns * period];
  };
  return values.map((_, i) => {
    const span = isRound ? Math.min(reach, period >> 1) : Math.min(reach, i, n - 1 - i);
    if (!isRound) return (sums[i + span + 1] - sums[i - span]) / (2 * span + 1);
    return (sumUpTo(i + span + 1) - sumUpTo(i - span)) / (2 * span + 1);
  });
}
