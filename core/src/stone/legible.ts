// Which stones can write a stroke: the largest whose rows still keep apart from each other where strokes run side by side.
import { type Columns, columnWidths } from "../area/index.ts";
import { diameterOf, STONE_SIZES, type StoneSize } from "../trade/index.ts";
import { setRows } from "./along.ts";
import { rowsInMiddle } from "./middle.ts";
import type { SetRules } from "./set-area.ts";
import { type Gaps, Setting } from "./stones.ts";

/** Of the stones that its middle lines would hold so many at least are set where a stroke reads (our own). */
const READS_SHARE = 0.9;
/** A stone is no wider than a stroke by more than this factor: words would run together (our own). */
const WIDER = 1.25;

/** The largest stone with which strokes can be read, one row to each; null: not even the smallest. */
export function largestThatReads(
  columns: Columns,
  { gaps, overShare }: SetRules,
  sizes: readonly StoneSize[] = STONE_SIZES,
): StoneSize | null {
  const widths = columns.columns.flatMap((column) => [...columnWidths(column)]).sort((a, b) => a - b);
  const width = widths[widths.length >> 1] ?? 0;
  // What lies over both edges of a stroke lies over the design's.
  const wider = Math.min(WIDER, 1 / (1 - 2 * Math.min(overShare, 0.49)));
  const fitting = sizes.filter((size) => diameterOf(size) <= wider * width).reverse();
  return fitting.find((size) => reads(columns, size, gaps)) ?? null;
}

function reads(columns: Columns, size: StoneSize, gaps: Gaps): boolean {
  const rows = rowsInMiddle(columns, "", size);
  const pitch = diameterOf(size) + gaps.gapMm;
  const wanted = rows.reduce((sum, { line, isClosed }) => {
    const steps = line.along[line.along.length - 1] / pitch;
    return sum + (isClosed ? steps : steps + 1);
  }, 0);
  // Where rows meet one stone serves both.
  const shared = rows.reduce((sum, { fixed }) => sum + fixed.length, 0);
  const setting = new Setting(gaps.leastMm);
  setRows(rows, setting, gaps);
  return rows.length > 0 && setting.stones.length >= READS_SHARE * (wanted - shared);
}

/**
 * One size for all strokes of a job, so that few are needed: the largest that at least so many of them (by length, 0..1) can be read
 * with; null if none can.
 */
export function sizeForAll(
  strokes: readonly { readonly largest: StoneSize | null; readonly lengthMm: number }[],
  share: number,
): StoneSize | null {
  const whole = strokes.reduce((sum, { lengthMm }) => sum + lengthMm, 0);
  const readWith = (size: StoneSize) =>
    strokes.reduce(
      (sum, { largest, lengthMm }) =>
        largest !== null && diameterOf(largest) >= diameterOf(size) ? sum + lengthMm : sum,
      0,
    );
  return [...STONE_SIZES].reverse().find((size) => whole > 0 && readWith(size) >= share * whole) ?? null;
}
