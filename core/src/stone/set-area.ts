// How each area is set: along its outline, in the middle of its strokes, filled, strewn, or not at all.
import type { Area, Columns } from "../area/index.ts";
import type { PlanarMap } from "../trace/index.ts";
import { diameterOf, type StoneSize } from "../trade/index.ts";
import { setRows } from "./along.ts";
import { makeKeepInside } from "./design-edge.ts";
import { type FillNumbers, fillFromEdge, fillInRows, fillLeft, strew } from "./fill.ts";
import { rowsInMiddle } from "./middle.ts";
import { rowsInside, rowsOnOutlines } from "./outline.ts";
import { type Gaps, Setting } from "./stones.ts";
import type { Pattern, SetAs } from "./ways.ts";

/** All numbers that an area is set by. */
export interface SetNumbers {
  readonly as: SetAs;
  readonly size: StoneSize;
  /** Of fills. */
  readonly pattern: Pattern;
  readonly angleDeg: number;
  /** Whether smaller stones lie in what a fill's leave. */
  readonly isMixed: boolean;
  /** Of outlines: on the line, or touching it from within. */
  readonly isInside: boolean;
  /** Scattered stones lie so many times as far apart at their thin side as at their dense one. */
  readonly thinning: number;
}

export interface ChosenArea extends Area {
  readonly columns: Columns;
  readonly numbers: SetNumbers;
  /** Which sizes there are of its stones, the smallest first. */
  readonly sizes: readonly StoneSize[];
  /** Lettering, or a speck, that no stone is small enough for. */
  readonly isUnread: boolean;
}

export interface SetRules {
  readonly gaps: Gaps;
  /** How much of a stone's width may lie over the design's edge. */
  readonly overShare: number;
}

/** A hole to the garment that is smaller than so many stones square has no row round it: it would be closed by it (our own). */
const HOLE_STONES = 1;

/** Sets all areas: rows before fills, since those take what is left; among rows the smaller areas first, since they lie on top. */
export function setAreas(
  areas: readonly ChosenArea[],
  map: PlanarMap,
  widthMm: number,
  { gaps, overShare }: SetRules,
): Setting {
  const setting = new Setting(gaps.leastMm);
  const bySize = [...areas].sort((one, other) => one.areaMm2 - other.areaMm2);
  const of = (as: SetAs) => bySize.filter(({ numbers }) => numbers.as === as);
  const onLine = of("outline").filter(({ numbers }) => !numbers.isInside);
  // Lettering, and what is filled, is seen as it is: no row of what it lies on goes round it.
  // Nor round what is too small for stones of its own.
  const specks = of("none").filter(({ isUnread }) => isUnread);
  const outlined = onLine.map(({ face, spotId, numbers: { size } }) => ({ face, spotId, size }));
  const faces = new Set(areas.map(({ face }) => face));
  // Nor round holes that a stone would close.
  const mmPerPx = widthMm / map.width;
  const leastMm2 = HOLE_STONES * Math.min(...outlined.map(({ size }) => (diameterOf(size) + gaps.gapMm) ** 2));
  const holes = map.faces.flatMap(({ areaPx }, face) =>
    !faces.has(face) && areaPx * mmPerPx * mmPerPx < leastMm2 ? [face] : [],
  );
  const standing = new Set([...[...of("middle"), ...of("fill"), ...specks].map(({ face }) => face), ...holes]);
  const keepInside = makeKeepInside(map, widthMm, (face) => faces.has(face), overShare);
  setRows(
    [
      ...of("middle").flatMap(({ columns, spotId, numbers }) => rowsInMiddle(columns, spotId, numbers.size)),
      ...rowsOnOutlines(map, widthMm, outlined, standing).flatMap(keepInside),
      ...of("outline").flatMap(({ rings, spotId, numbers: { size, isInside } }) =>
        isInside ? rowsInside(rings, spotId, size) : [],
      ),
    ],
    setting,
    gaps,
  );
  for (const area of [...of("fill"), ...of("scatter")]) fillArea(area, gaps, setting);
  return setting;
}

function fillArea({ rings, spotId, numbers, sizes }: ChosenArea, gaps: Gaps, setting: Setting): void {
  const { as, size, angleDeg, pattern, isMixed, thinning } = numbers;
  const own: FillNumbers = { size, spotId, angleDeg, gaps };
  if (as === "scatter") {
    strew(rings, own, thinning, setting);
    return;
  }
  if (pattern === "edge") fillFromEdge(rings, own, setting);
  else fillInRows(rings, pattern, own, setting);
  if (!isMixed) return;
  // Each smaller size in turn, the larger first.
  const smaller = sizes.filter((one) => diameterOf(one) < diameterOf(size)).reverse();
  for (const one of smaller) fillLeft(rings, { ...own, size: one }, setting);
}
