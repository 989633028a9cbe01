// Borders: a narrow satin column, or bean stitches, along outlines.
import {
  type Column,
  closed,
  findCorners,
  isInMiddle,
  measureLine,
  pointAlong,
  type Ring,
  STATION_MM,
  STRIDE,
} from "../area/index.ts";
import { lengthOf } from "../geometry/index.ts";
import { BENT, type Corners, LONGEST, NARROWEST_MM, TURN_COSINE } from "./mitre.ts";
import { beanOf, divideLine } from "./needle.ts";
import { type PullAt, sewSatin } from "./satin.ts";

/** A rail's direction is taken from the outline this far before and after, mm: it turns round a corner, and does not break. */
const AHEAD_MM = 0.35;

/** A border's needle points along one ring. */
export function sewBorder(
  ring: Ring,
  {
    kind,
    widthMm,
    spacingMm,
    beanMm,
    corners,
  }: { kind: "satin" | "bean"; widthMm: number; spacingMm: number; beanMm: number; corners: Corners },
  pullAt: PullAt,
): number[] {
  if (kind === "bean") return beanOf(divideLine(closed(ring), beanMm), 3);
  const column = columnAlong(ring, widthMm, corners);
  const last = column.stations.length / STRIDE - 1;
  return last < 2 ? [] : sewSatin(column, 0, last, { spacingMm, pullAt, splitMm: Number.POSITIVE_INFINITY });
}

/** A closed column of one width along a ring, half of it on either side. */
export function columnAlong(ring: Ring, widthMm: number, corners: Corners): Column {
  const line = measureLine(closed(ring));
  const whole = line.along[line.along.length - 1];
  const on = pointAlong(line);
  const at = (distance: number) => on(((distance % whole) + whole) % whole);
  const mitres = corners === "mitred" ? findBends(ring, whole, widthMm) : [];
  const count = Math.max(3, Math.round(whole / STATION_MM));
  const stations = new Float64Array((count + 1) * STRIDE);
  let next = 0;
  for (let k = 0; k <= count; k++) {
    const d = (k / count) * whole;
    while (next < mitres.length && mitres[next].at < d) next++;
    // Round the ring the corner before the first is the last.
    const [before, after] = [mitres[next - 1] ?? mitres.at(-1), mitres[next] ?? mitres[0]];
    const sinceMm = before ? (d - before.at + whole) % whole : whole;
    const untilMm = after ? (after.at - d + whole) % whole : whole;
    if (after && untilMm <= after.legMm) stations.set(rungAt(after, -untilMm), k * STRIDE);
    else if (before && sinceMm <= before.legMm) stations.set(rungAt(before, sinceMm), k * STRIDE);
    else {
      const [x, y] = at(d);
      const [[fromX, fromY], [toX, toY]] = [at(d - Math.min(AHEAD_MM, sinceMm)), at(d + Math.min(AHEAD_MM, untilMm))];
      const length = lengthOf(toX - fromX, toY - fromY) || 1;
      const [nx, ny] = [((toY - fromY) / length) * (widthMm / 2), ((fromX - toX) / length) * (widthMm / 2)];
      stations.set([x + nx, y + ny, x - nx, y - ny], k * STRIDE);
    }
  }
  return { stations, isClosed: true };
}

/** A mitred corner of a border: where its rails turn, and how far along the outline the mitre reaches to both sides. */
interface Bend {
  readonly at: number;
  readonly legMm: number;
  readonly comes: readonly [number, number];
  readonly goes: readonly [number, number];
  readonly outer: readonly [number, number];
  readonly inner: readonly [number, number];
  /** Whether the outer rail is the first of a station. */
  readonly isFirst: boolean;
}

function findBends(ring: Ring, whole: number, widthMm: number): Bend[] {
  if (widthMm < NARROWEST_MM) return [];
  const twice = measureLine([...ring, ...ring, ring[0], ring[1]]);
  const on = pointAlong(twice);
  const bends = findCorners(twice, TURN_COSINE).flatMap(({ at, comes, goes }): Bend[] => {
    if (!isInMiddle(at, 2 * whole)) return [];
    const cosine = comes[0] * goes[0] + comes[1] * goes[1];
    // Half the width, times the tangent of half the turn, and by its cosine.
    const tangent = Math.sqrt((1 - cosine) / (1 + cosine));
    const legMm = (widthMm / 2) * tangent;
    if (!(tangent <= LONGEST)) return [];
    const [x, y] = on(at);
    const isStraight = [comes, goes].every(([ux, uy], k) => {
      const [fx, fy] = on(at + (k === 0 ? -legMm : legMm));
      return Math.abs(ux * (fy - y) - uy * (fx - x)) < BENT * widthMm;
    });
    if (!isStraight) return [];
    const [dx, dy] = [comes[0] - goes[0], comes[1] - goes[1]];
    const out = ((widthMm / 2) * Math.sqrt(2 / (1 + cosine))) / lengthOf(dx, dy);
    return [
      {
        ...{ at: at % whole, legMm, comes, goes, isFirst: comes[0] * goes[1] - comes[1] * goes[0] > 0 },
        outer: [x + dx * out, y + dy * out],
        inner: [x - dx * out, y - dy * out],
      },
    ];
  });
  const sorted = bends.sort((a, b) => a.at - b.at);
  // Each needs its own stretch of the outline.
  return sorted.filter((bend, i) => {
    const before = sorted[i - 1] ?? sorted[sorted.length - 1];
    const away = (bend.at - before.at + whole) % whole || whole;
    return away >= bend.legMm + before.legMm;
  });
}

/** The rung of a mitred corner that stands so far along the outline from it. */
function rungAt({ legMm, comes, goes, outer, inner, isFirst }: Bend, mm: number): readonly number[] {
  const [ux, uy] = mm < 0 ? comes : goes;
  const t = Math.abs(mm) / legMm;
  const out = [outer[0] + 2 * mm * ux, outer[1] + 2 * mm * uy];
  const cut = [outer[0] + t * (inner[0] - outer[0]), outer[1] + t * (inner[1] - outer[1])];
  return isFirst ? [...out, ...cut] : [...cut, ...out];
}
