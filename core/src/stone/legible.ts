// Which stones can write a stroke: the largest whose rows still keep apart from each other where strokes run side by side.
import { type Columns, columnWidths, middleLine, pointAlong } from "../area/index.ts";
import { boundsOfAll } from "../geometry/index.ts";
import { diameterOf, STONE_SIZES, type StoneSize } from "../trade/index.ts";
import { setRows } from "./along.ts";
import { lastOf, rowsInMiddle } from "./middle.ts";
import type { SetRules } from "./set-area.ts";
import { type Gaps, Setting } from "./stones.ts";

/**
 * A letter reads if so much of its middle lines lies beside a stone, no farther than so many steps from stone to stone, and so many
 * of the stones that they would hold are set: else strokes side by side have become one (our own).
 */
const SEEN_SHARE = 0.9;
const BESIDE_SHARE = 0.75;
const FULL_SHARE = 0.8;
/** ... or less, in the smallest stones that there are. */
const LEAST_SHARE = 0.65;
/** How finely lines are looked at, in steps from stone to stone. */
const LOOK_SHARE = 0.1;
/** A stone is no wider than a stroke by more than this factor, if one so small reads (our own)... */
const WIDER = 1.25;
/** ... else the smallest that reads, as long as a letter is so many of them high: what is less is dots (our own). */
const STONES_HIGH = 5;

/** The largest stone with which strokes can be read, one row to each; null: not even the smallest. */
export function largestThatReads(
  columns: Columns,
  { gaps, overShare }: SetRules,
  sizes: readonly StoneSize[] = STONE_SIZES,
): StoneSize | null {
  const widths = columns.columns.flatMap((column) => [...columnWidths(column)]).sort((a, b) => a - b);
  const width = widths[widths.length >> 1] ?? 0;
  const fitting = sizes.filter((size) => diameterOf(size) <= WIDER * width).reverse();
  const found = fitting.find((size) => reads(columns, size, gaps, FULL_SHARE));
  if (found) return found;
  const { left, top, right, bottom } = boundsOfAll(columns.columns.map((one) => middleLine(one, 0, lastOf(one))));
  const most = Math.max(right - left, bottom - top) / STONES_HIGH;
  // What lies over both edges of a stroke lies over the design's.
  const isAllowed = (size: StoneSize) => diameterOf(size) * (1 - 2 * overShare) <= width && diameterOf(size) <= most;
  const smallest = fitting.at(-1) ?? sizes.filter(isAllowed)[0];
  return smallest && reads(columns, smallest, gaps, LEAST_SHARE) ? smallest : null;
}

/** Whether strokes read, if so much of the stones that they would hold has to be set. */
function reads(columns: Columns, size: StoneSize, gaps: Gaps, setShare: number): boolean {
  const rows = rowsInMiddle(columns, "", size);
  const pitch = diameterOf(size) + gaps.gapMm;
  const setting = new Setting(gaps.leastMm);
  setRows(rows, setting, gaps);
  const isBeside = (x: number, y: number) => setting.near(x, y, BESIDE_SHARE * pitch).length > 0;
  let [seen, all, wanted] = [0, 0, 0];
  for (const { line, isClosed, fixed } of rows) {
    const whole = line.along[line.along.length - 1];
    const on = pointAlong(line);
    for (let at = 0; at <= whole; at += LOOK_SHARE * pitch) {
      all++;
      if (isBeside(...on(at))) seen++;
    }
    // Where rows meet one stone serves both.
    wanted += whole / pitch + (isClosed ? 0 : 1) - fixed.length;
  }
  return all > 0 && seen >= SEEN_SHARE * all && setting.stones.length >= setShare * wanted;
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
