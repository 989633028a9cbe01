// Stones in one row along the middle of strokes: where strokes fork one stone lies in the fork, and rows start from it.
import { type Column, type Columns, columnWidths, measureLine, middleLine, STATION_MM, STRIDE } from "../area/index.ts";
import { lengthOf } from "../geometry/index.ts";
import { diameterOf, type StoneSize } from "../trade/index.ts";
import type { Row } from "./stones.ts";

/** A row ends so far before the end of its stroke, as a share of a stone: the last stone touches it from within. */
const END_SHARE = 0.5;
/** Where a stroke meets another is looked for along its own run this far from there, and on the other to both sides, times its width. */
const RUN_SHARES = [0.4, 1.4] as const;
const REACH_SHARE = 1.2;

type Joint = Columns["joints"][number];

export function rowsInMiddle({ columns, joints }: Columns, spotId: string, size: StoneSize): Row[] {
  const middles = columns.map((column) => middleLine(column, 0, lastOf(column)));
  const fixed: number[][] = columns.map(() => []);
  /** Of each column where it begins and ends in another's middle. */
  const meets: [readonly [number, number] | null, readonly [number, number] | null][] = columns.map(() => [null, null]);
  for (const joint of joints) {
    const through = joint.find(({ column, station }) => columns[column].isClosed || isInner(columns[column], station));
    if (!through) continue;
    for (const branch of joint) {
      if (branch === through || isInner(columns[branch.column], branch.station)) continue;
      const k = forkOn(columns, middles, through, branch);
      const line = middles[through.column];
      meets[branch.column][branch.station === 0 ? 0 : 1] = [line[k * 2], line[k * 2 + 1]];
      fixed[through.column].push(measureLine(line).along[k]);
    }
  }
  return columns.flatMap((column, c): Row[] => {
    if (column.isClosed) return [{ line: measureLine(middles[c]), isClosed: true, size, spotId, fixed: fixed[c] }];
    const { points, from } = trimmed(middles[c], meets[c][0], meets[c][1], END_SHARE * diameterOf(size));
    if (points.length === 0) return [];
    return [{ line: measureLine(points), isClosed: false, size, spotId, fixed: fixed[c].map((at) => at - from) }];
  });
}

/** A column's last station. */
export function lastOf({ stations }: Column): number {
  return stations.length / STRIDE - 1;
}

function isInner(column: Column, station: number): boolean {
  return station > 0 && station < lastOf(column);
}

/** The point of a column's middle, by number, that lies on the run of a stroke that ends there. */
function forkOn(
  columns: readonly Column[],
  middles: readonly number[][],
  through: Joint[number],
  branch: Joint[number],
): number {
  const [own, other] = [middles[branch.column], middles[through.column]];
  const width = columnWidths(columns[branch.column])[Math.floor(lastOf(columns[branch.column]) / 2)];
  const pointAt = (share: number) => {
    const steps = Math.round((share * width) / STATION_MM);
    const k = branch.station === 0 ? Math.min(steps, own.length / 2 - 1) : Math.max(0, own.length / 2 - 1 - steps);
    return [own[k * 2], own[k * 2 + 1]];
  };
  const [[nearX, nearY], [farX, farY]] = RUN_SHARES.map(pointAt);
  const [dx, dy] = [nearX - farX, nearY - farY];
  const length = lengthOf(dx, dy) || 1;
  const reach = Math.round((REACH_SHARE * width) / STATION_MM);
  let [best, off] = [through.station, Number.POSITIVE_INFINITY];
  for (
    let k = Math.max(0, through.station - reach);
    k <= Math.min(other.length / 2 - 1, through.station + reach);
    k++
  ) {
    const one = Math.abs((other[k * 2] - nearX) * dy - (other[k * 2 + 1] - nearY) * dx) / length;
    if (one < off) [best, off] = [k, one];
  }
  return best;
}

/** The line from another's middle or from inside its own end, to the same at its other end; its middle alone if nothing is left. */
function trimmed(
  points: readonly number[],
  before: readonly number[] | null,
  after: readonly number[] | null,
  endMm: number,
): { points: number[]; from: number } {
  const { along } = measureLine(points);
  const whole = along[along.length - 1];
  const [from, to] = [before ? 0 : endMm, after ? whole : whole - endMm];
  const kept = Array.from(along.keys()).flatMap((k) =>
    along[k] >= from && along[k] <= to ? [points[k * 2], points[k * 2 + 1]] : [],
  );
  if (kept.length > 0 || before || after) return { points: [...(before ?? []), ...kept, ...(after ?? [])], from };
  // A stroke shorter than a stone is one.
  const k = along.findIndex((at) => at >= whole / 2);
  return { points: [points[k * 2], points[k * 2 + 1]], from };
}
