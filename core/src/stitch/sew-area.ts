// One area as it is sewn: in fills, satin, runs or bean stitches, each with what lies under it.
import {
  type Area,
  type Column,
  type Columns,
  columnWidths,
  insetRings,
  middleLine,
  nearestFirst,
  type Ring,
  STRIDE,
} from "../area/index.ts";
import type { Point } from "../raster/index.ts";
import { sewBorder } from "./border.ts";
import { sewFill } from "./fill.ts";
import { type Corners, mitred } from "./mitre.ts";
import { beanOf, divideLine } from "./needle.ts";
import { type PullAt, sewSatin, sewZigzag } from "./satin.ts";
import type { SewnAs } from "./sewn-as.ts";
import { Sewing, type Strand } from "./thread.ts";
import { type Stretch, walkColumns } from "./walk.ts";

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
  readonly corners: Corners;
  readonly hasUnderlay: boolean;
  readonly latticeMm: number;
  readonly border: {
    readonly kind: "none" | "satin" | "bean";
    readonly widthMm: number;
    readonly spotId: string | null;
  };
}

/** The line that holds an applique's cloth lies so far inside its edge, and its border is at least so wide, mm (our own). */
const TACK_INSET_MM = 1;
const APPLIQUE_BORDER_MM = 3;
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
  if (numbers.as === "applique") return sewApplique(area, numbers, from);
  if (numbers.as === "fill" || columns.columns.length === 0) {
    const { angleDeg, spacingMm, stitchMm, runMm, hasUnderlay, latticeMm } = numbers;
    const underlay = hasUnderlay ? { latticeMm } : null;
    return sewFill(
      area.rings,
      { angleDeg, spacingMm, stitchMm, pullAt, runMm, underlay, turnsInside: false },
      from,
      to,
    );
  }
  return sewColumns(columns, numbers, pullAt, from);
}

/** A line that shows where cloth is laid, a stop; a line that holds it, a stop; and a satin border over its edge. */
function sewApplique({ rings }: Area, numbers: SewNumbers, from: Point): readonly Strand[] {
  const sewing = new Sewing();
  const runs = (lines: readonly Ring[]) => {
    for (const line of nearestFirst(lines, sewing.at ?? from)) {
      sewing.lift();
      sewing.add("guide", divideLine(line, numbers.runMm));
    }
    sewing.stop();
  };
  runs(rings);
  runs(insetRings(rings, TACK_INSET_MM));
  const widthMm = Math.max(APPLIQUE_BORDER_MM, numbers.border.kind === "satin" ? numbers.border.widthMm : 0);
  return [
    ...sewing.strands,
    ...sewBorders(rings, { ...numbers, border: { kind: "satin", widthMm, spotId: null } }, () => 0, sewing.at ?? from),
  ];
}

/** Borders along all outlines of an area. */
export function sewBorders(
  rings: readonly Ring[],
  numbers: SewNumbers,
  pullAt: PullAt,
  from: Point,
): readonly Strand[] {
  const { border, spacingMm, beanMm, corners } = numbers;
  const { kind, widthMm } = border;
  if (kind === "none") return [];
  return nearestFirst(rings, from).map((line) => [
    { kind: "border", needles: sewBorder(line.subarray(0, -2), { kind, widthMm, spacingMm, beanMm, corners }, pullAt) },
  ]);
}

/** Every column out along its middle and back over it: under satin as underlay, under bean stitches as their first pass. */
function sewColumns(columns: Columns, numbers: SewNumbers, pullAt: PullAt, from: Point): readonly Strand[] {
  const sewing = new Sewing();
  const isMitred = numbers.as === "satin" && numbers.corners === "mitred";
  // What is mitred has the same stations; underlay goes round.
  const forksOn = (c: number) => columns.joints.flat().flatMap((joint) => (joint.column === c ? joint.station : []));
  const covered = isMitred ? columns.columns.map((column, c) => mitred(column, forksOn(c))) : columns.columns;
  const isSewn = new Set<number>();
  for (let start = nearestStation(columns, sewing.at ?? from, isSewn); start; ) {
    sewing.lift();
    const stretches = walkColumns(columns, start.column, start.station);
    for (const stretch of stretches) {
      isSewn.add(stretch.column);
      const column = columns.columns[stretch.column];
      if (stretch.way === "out") sewUnder(sewing, column, stretch, numbers);
      else sewOver(sewing, covered[stretch.column], stretch, numbers, pullAt);
    }
    isSewn.add(start.column);
    start = nearestStation(columns, sewing.at ?? from, isSewn);
  }
  return sewing.strands;
}

/** Out: underlay, or the first pass of lines. */
function sewUnder(sewing: Sewing, column: Column, { from, to }: Stretch, numbers: SewNumbers): void {
  const isSatin = numbers.as === "satin";
  const isWide = isSatin && numbers.hasUnderlay && middleWidth(columnWidths(column)) > MIDDLE_RUN_MM;
  const zigzag = isWide ? sewZigzag(column, from, to, ZIGZAG_MM, ZIGZAG_INSET_MM) : [];
  sewing.add(isSatin ? "underlay" : "cover", zigzag.length > 0 ? zigzag : alongMiddle(column, from, to, numbers));
}

/** Back: what is seen. */
function sewOver(sewing: Sewing, column: Column, { from, to }: Stretch, numbers: SewNumbers, pullAt: PullAt): void {
  const { as, spacingMm, splitMm, passes } = numbers;
  if (as === "satin") sewing.add("cover", sewSatin(column, from, to, { spacingMm, pullAt, splitMm }));
  else {
    const line = alongMiddle(column, from, to, numbers);
    sewing.add("cover", as === "bean" ? beanOf(line, passes) : line);
  }
}

function alongMiddle(column: Column, from: number, to: number, { as, beanMm, runMm }: SewNumbers): number[] {
  return divideLine(middleLine(column, from, to), as === "bean" ? beanMm : runMm);
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
