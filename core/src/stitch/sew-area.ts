// One area as it is sewn: in fills, satin, runs or bean stitches, each with what lies under it.
import type { Point } from "../raster/index.ts";
import type { Area } from "./area.ts";
import type { Columns } from "./columns.ts";
import { sewFill } from "./fill.ts";
import { beanOf, divideLine } from "./needle.ts";
import { columnWidths, middleLine, type PullAt, sewSatin, sewZigzag } from "./satin.ts";
import { STRIDE } from "./stations.ts";
import { Sewing, type Strand } from "./thread.ts";
import { walkColumns, type Stretch } from "./walk.ts";

/** How an area is sewn. */
export const SEWN_AS = ["fill", "satin", "run", "bean", "none"] as const;
export type SewnAs = (typeof SEWN_AS)[number];

/** All numbers that an area is sewn by, mm and degrees. */
export interface SewNumbers {
  readonly as: SewnAs;
  readonly angleDeg: number;
  readonly spacingMm: number;
  readonly stitchMm: number;
  readonly runMm: number;
  readonly beanMm: number;
  readonly passes: 3 | 5;
  readonly pullMm: number;
  readonly splitMm: number;
  readonly hasUnderlay: boolean;
}

/** Up to this width a run along its middle lies under satin; from there on a zigzag, a turn every so far, so far inside (from memory). */
const MIDDLE_RUN_MM = 2.5;
const ZIGZAG_MM = 2;
const ZIGZAG_INSET_MM = 0.4;

/** Sews an area from near one place to near another. */
export function sewArea(
  area: Area,
  columns: Columns,
  numbers: SewNumbers,
  pullAt: PullAt,
  from: Point,
  to: Point,
): readonly Strand[] {
  if (numbers.as === "none") return [];
  if (numbers.as === "fill" || columns.columns.length === 0) {
    const { angleDeg, spacingMm, stitchMm, runMm: wayMm, hasUnderlay } = numbers;
    const underlay = { hasEdge: hasUnderlay, hasLattice: hasUnderlay };
    return sewFill(area.rings, { angleDeg, spacingMm, stitchMm, pullAt, wayMm, underlay }, from, to);
  }
  return sewColumns(columns, numbers, pullAt, from);
}

/** Every column out along its middle and back over it: under satin as underlay, under bean stitches as their first pass. */
function sewColumns(columns: Columns, numbers: SewNumbers, pullAt: PullAt, from: Point): readonly Strand[] {
  const sewing = new Sewing();
  const isSewn = new Set<number>();
  for (let start = nearestStation(columns, sewing.at ?? from, isSewn); start; ) {
    sewing.lift();
    const stretches = walkColumns(columns, start.column, start.station);
    for (const stretch of stretches) {
      isSewn.add(stretch.column);
      sewStretch(sewing, columns, stretch, numbers, pullAt);
    }
    isSewn.add(start.column);
    start = nearestStation(columns, sewing.at ?? from, isSewn);
  }
  return sewing.strands;
}

function sewStretch(
  sewing: Sewing,
  { columns }: Columns,
  { way, column, from, to }: Stretch,
  numbers: SewNumbers,
  pullAt: PullAt,
): void {
  const one = columns[column];
  const middle = () => divideLine(middleLine(one, from, to), numbers.as === "bean" ? numbers.beanMm : numbers.runMm);
  if (way === "out") {
    const isWide = numbers.as === "satin" && numbers.hasUnderlay && middleWidth(columnWidths(one)) > MIDDLE_RUN_MM;
    const zigzag = isWide ? sewZigzag(one, from, to, ZIGZAG_MM, ZIGZAG_INSET_MM) : [];
    sewing.add(numbers.as === "satin" ? "underlay" : "cover", zigzag.length > 0 ? zigzag : middle());
  } else if (numbers.as === "satin") {
    const { spacingMm, splitMm } = numbers;
    sewing.add("cover", sewSatin(one, from, to, { spacingMm, pullAt, splitMm }));
  } else sewing.add("cover", numbers.as === "bean" ? beanOf(middle(), numbers.passes) : middle());
}

function middleWidth(widths: Float64Array): number {
  return widths.slice().sort()[widths.length >> 1];
}

/** The station nearest to a place, of columns that are not sewn; null if all are. */
function nearestStation(
  { columns }: Columns,
  { x, y }: Point,
  isSewn: ReadonlySet<number>,
): { column: number; station: number } | null {
  let best: { column: number; station: number; away: number } | null = null;
  columns.forEach(({ stations }, column) => {
    if (isSewn.has(column)) return;
    for (let i = 0; i < stations.length; i += STRIDE) {
      const [dx, dy] = [(stations[i] + stations[i + 2]) / 2 - x, (stations[i + 1] + stations[i + 3]) / 2 - y];
      const away = dx * dx + dy * dy;
      if (!best || away < best.away) best = { column, station: i / STRIDE, away };
    }
  });
  return best;
}
