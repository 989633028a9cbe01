// Mitred corners: where a column turns sharply, each leg is sewn square across up to the line from the inner corner to the outer.
import {
  type Column,
  type Corner,
  findCorners,
  isInMiddle,
  type MeasuredLine,
  measureLine,
  pointAlong,
  STATION_MM,
  STRIDE,
  TURN_MM,
} from "../area/index.ts";
import { lengthOf } from "../geometry/index.ts";

/** How a column goes round a sharp corner: rungs cut off at a mitre, or spread like a fan. */
export const CORNERS = ["mitred", "rounded"] as const;
export type Corners = (typeof CORNERS)[number];

/** A corner is where a line turns by this much at least; cosine of 50 degrees (our own). */
export const TURN_COSINE = 0.643;
/** No mitre is longer along a leg than this, times the leg's width: a sharper point is turned round (about 127 degrees, our own). */
export const LONGEST = 2;
/** Nor shorter: what hardly turns needs none; and no leg is narrower, mm: a fan of a few stitches does as well (our own). */
const SHORTEST = 0.35;
export const NARROWEST_MM = 1.5;
/** A leg is straight if it leaves its line by no more than this, times its width. */
export const BENT = 0.12;
/** Before a mitre rungs turn square over so much of the leg, times its width. */
const SQUARE_OVER = 0.8;

/** A mitre of a column: the outer corner on one rail, the inner on the other, and how far it reaches along both legs. */
interface Mitre {
  /** Which rail is the outer: where its numbers begin in a station. */
  readonly rail: 0 | 2;
  /** Distances along the outer rail and along the inner. */
  readonly outerAt: number;
  readonly innerAt: number;
  readonly widthMm: number;
  readonly beforeMm: number;
  readonly afterMm: number;
}

/** The column with its sharp corners mitred, but for those at `forks`; as many stations as before, each near where it was. */
export function mitred(column: Column, forks: readonly number[]): Column {
  const count = column.stations.length / STRIDE;
  const period = column.isClosed ? count - 1 : count;
  // A ring is looked at twice round, so that a corner may lie where it begins.
  const seen = column.isClosed ? 2 * period + 1 : count;
  const rails = ([0, 2] as const).map((rail) =>
    measureLine(
      Float64Array.from({ length: seen * 2 }, (_, i) => column.stations[((i >> 1) % period) * STRIDE + rail + (i & 1)]),
    ),
  );
  const mitres = findMitres(rails, column.isClosed);
  if (mitres.length === 0) return column;
  const stations = column.stations.slice();
  const isFixed = new Uint8Array(period);
  for (const station of forks) isFixed[station % period] = 1;
  for (const mitre of mitres) layMitre(stations, isFixed, rails, mitre);
  if (column.isClosed) stations.copyWithin(period * STRIDE, 0, STRIDE);
  return { stations, isClosed: column.isClosed };
}

function findMitres(rails: readonly MeasuredLine[], isClosed: boolean): Mitre[] {
  const corners = rails.map((rail) => findCorners(rail, TURN_COSINE));
  return ([0, 2] as const).flatMap((rail) => {
    const [out, inn] = rail === 0 ? [0, 1] : [1, 0];
    const whole = rails[out].along[rails[out].along.length - 1];
    return corners[out].flatMap((corner) => {
      // Where both rounds meet they are the same place.
      if (isClosed && !isInMiddle(corner.at, whole)) return [];
      const mitre = mitreAt(corner, rail, rails[out], rails[inn]);
      // The inner rail has to turn there, too: at a fork, or beside a notch, one does alone.
      return mitre && corners[inn].some(({ at }) => Math.abs(at - mitre.innerAt) < TURN_MM) ? [mitre] : [];
    });
  });
}

/** The mitre at a corner of the outer rail; null if the column does not turn there, or not between straight legs. */
function mitreAt(
  { index, at, comes, goes }: Corner,
  rail: 0 | 2,
  outer: MeasuredLine,
  inner: MeasuredLine,
): Mitre | null {
  const [x, y] = [outer.points[index * 2], outer.points[index * 2 + 1]];
  const across = lengthOf(inner.points[index * 2] - x, inner.points[index * 2 + 1] - y);
  const reach = Math.ceil((LONGEST * across) / STATION_MM);
  let [nearest, away] = [index, Number.POSITIVE_INFINITY];
  for (let k = Math.max(0, index - reach); k <= Math.min(inner.along.length - 1, index + reach); k++) {
    const one = lengthOf(inner.points[k * 2] - x, inner.points[k * 2 + 1] - y);
    if (one < away) [nearest, away] = [k, one];
  }
  const [dx, dy] = [inner.points[nearest * 2] - x, inner.points[nearest * 2 + 1] - y];
  const [beforeMm, afterMm] = [-(dx * comes[0] + dy * comes[1]), dx * goes[0] + dy * goes[1]];
  const [turn, toInner] = [comes[0] * goes[1] - comes[1] * goes[0], comes[0] * dy - comes[1] * dx];
  const widths = [Math.abs(toInner), Math.abs(goes[0] * dy - goes[1] * dx)];
  const [least, most] = [Math.min(...widths), Math.max(...widths)];
  const isTurn = turn * toInner > 0 && least >= NARROWEST_MM;
  const isLong = Math.min(beforeMm, afterMm) >= SHORTEST * most && Math.max(beforeMm, afterMm) <= LONGEST * least;
  if (!isTurn || !isLong || at < beforeMm || at + afterMm > outer.along[outer.along.length - 1]) return null;
  for (let k = 0; k < outer.along.length; k++) {
    const far = outer.along[k] - at;
    if (far < -beforeMm || far > afterMm) continue;
    const [ux, uy] = far < 0 ? comes : goes;
    const off = ux * (outer.points[k * 2 + 1] - y) - uy * (outer.points[k * 2] - x);
    if (Math.abs(off) > BENT * least) return null;
  }
  return { rail, outerAt: at, innerAt: inner.along[nearest], widthMm: most, beforeMm, afterMm };
}

/** Lays the stations round a mitre anew: square across up to it, then cut off by it, and the same on its other side. */
function layMitre(stations: Float64Array, isFixed: Uint8Array, rails: readonly MeasuredLine[], mitre: Mitre): void {
  const { rail, outerAt, innerAt, widthMm, beforeMm, afterMm } = mitre;
  const [outer, inner] = rail === 0 ? rails : [rails[1], rails[0]];
  const [from, to] = [outerAt - beforeMm, outerAt + afterMm];
  const lead = SQUARE_OVER * widthMm;
  // Where rungs begin to turn: before the mitre on both rails.
  const first = Math.max(
    0,
    outer.along.findLastIndex((along, k) => along <= from - lead && inner.along[k] <= innerAt),
  );
  const found = outer.along.findIndex((along, k) => along >= to + lead && inner.along[k] >= innerAt);
  const end = found < 0 ? outer.along.length - 1 : found;
  if (outer.along[first] > from || outer.along[end] < to || inner.along[first] > innerAt || inner.along[end] < innerAt)
    return;
  const period = isFixed.length;
  for (let k = first; k <= end; k++) if (isFixed[k % period] === 1) return;
  const [ox, oy] = pointAlong(outer)(outerAt);
  const [ix, iy] = pointAlong(inner)(innerAt);
  const [onOuter, onInner] = [pointAlong(outer), pointAlong(inner)];
  const leadIn = from - outer.along[first];
  const leadOut = outer.along[end] - to;
  const whole = leadIn + beforeMm / 2 + afterMm / 2 + leadOut;
  const stationAt = (mm: number) => first + Math.round((mm / whole) * (end - first));
  const [square, corner, squareAgain] = [
    stationAt(leadIn),
    stationAt(leadIn + beforeMm / 2),
    stationAt(leadIn + beforeMm / 2 + afterMm / 2),
  ];
  if (corner <= square || squareAgain <= corner) return;
  const put = (k: number, out: readonly [number, number], inn: readonly [number, number]) => {
    stations.set(rail === 0 ? [...out, ...inn] : [...inn, ...out], (k % period) * STRIDE);
    isFixed[k % period] = 1;
  };
  const between = (a: number, b: number, t: number) => a + t * (b - a);
  for (let k = first; k <= end; k++) {
    if (k < square) {
      const t = (k - first) / (square - first);
      put(k, onOuter(between(outer.along[first], from, t)), onInner(between(inner.along[first], innerAt, t)));
    } else if (k <= squareAgain) {
      // What is left of the rung, from the outer rail to the mitre.
      const t = k <= corner ? (corner - k) / (corner - square) : (k - corner) / (squareAgain - corner);
      put(k, onOuter(outerAt + (k <= corner ? -beforeMm : afterMm) * t), [between(ox, ix, t), between(oy, iy, t)]);
    } else {
      const t = (k - squareAgain) / (end - squareAgain);
      put(k, onOuter(between(to, outer.along[end], t)), onInner(between(innerAt, inner.along[end], t)));
    }
  }
}
