// Rows: where a fill's threads lie in an area, and the cells in which they can be sewn to and fro without lifting. Cells end
// where a row parts or two become one: boustrophedon decomposition, Choset & Pignon 1997.
import { type Angle, angleOf, crossRows, type Ring, ringInFrame, toFrame } from "../area/index.ts";
import { boundsOfAll } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";

/**
 * Rows across an area. They are laid in a frame turned so that they run along x; `toFrame` and `fromFrame` turn points. Segments
 * are numbered row by row, from left to right.
 */
export interface Rows {
  readonly angle: Angle;
  readonly spacingMm: number;
  /** y of the first row, in the frame. */
  readonly top: number;
  /** Of each segment: where it begins and ends, in which row, and in which cell it is. */
  readonly left: Float64Array;
  readonly right: Float64Array;
  readonly row: Int32Array;
  readonly cell: Int32Array;
  readonly cells: readonly Cell[];
}

/** Segments one under the other. */
export interface Cell {
  readonly segments: readonly number[];
  /** Cells whose last rows lie over this one's first, and those whose first lie under its last. */
  readonly above: readonly number[];
  readonly below: readonly number[];
}

/** y of a row in the frame. */
export function heightOf({ top, spacingMm }: Rows, row: number): number {
  return top + row * spacingMm;
}

/** Rows of an area at an angle, `spacingMm` apart or a little more or less, so that they fill it from edge to edge. */
export function cutRows(rings: readonly Ring[], angleDeg: number, spacingMm: number): Rows {
  const angle = angleOf(angleDeg);
  const turned = rings.map((ring) => ringInFrame(ring, angle));
  const { top: least, bottom: most } = boundsOfAll(turned);
  const count = Math.max(1, Math.round((most - least) / spacingMm));
  const spacing = (most - least) / count;
  const top = least + spacing / 2;
  const parts = crossRows(turned, top, spacing, count);
  return { angle, spacingMm: spacing, top, ...parts, ...findCells(parts) };
}

function findCells({ left, right, row }: Pick<Rows, "left" | "right" | "row">): Pick<Rows, "cell" | "cells"> {
  const n = row.length;
  const over: number[][] = Array.from({ length: n }, () => []);
  const under: number[][] = Array.from({ length: n }, () => []);
  // Two rows are gone through side by side, each from left to right.
  for (let s = 0, t = 0; s < n; s++) {
    while (t < n && row[t] <= row[s]) t++;
    for (let u = t; u < n && row[u] === row[s] + 1 && left[u] < right[s]; u++) {
      if (right[u] <= left[s]) {
        t = u;
        continue;
      }
      over[u].push(s);
      under[s].push(u);
    }
  }
  const cell = new Int32Array(n).fill(-1);
  const lists: number[][] = [];
  for (let s = 0; s < n; s++) {
    const above = over[s].length === 1 ? over[s][0] : -1;
    if (above >= 0 && under[above].length === 1) cell[s] = cell[above];
    else {
      cell[s] = lists.length;
      lists.push([]);
    }
    lists[cell[s]].push(s);
  }
  const cells = lists.map((segments) => ({
    segments,
    above: over[segments[0]].map((s) => cell[s]),
    below: under[segments[segments.length - 1]].map((s) => cell[s]),
  }));
  return { cell, cells };
}

/** The segment that lies nearest to a place, and where on it; null if there is none. Ends are kept clear by `insetMm`. */
export function nearestSegment(rows: Rows, place: Point, insetMm: number): { segment: number; x: number } | null {
  const { x, y } = toFrame(rows, place);
  let best: { segment: number; x: number; away: number } | null = null;
  for (let s = 0; s < rows.row.length; s++) {
    const at = within(rows, [s], x, insetMm);
    const away = (at - x) ** 2 + (heightOf(rows, rows.row[s]) - y) ** 2;
    if (!best || away < best.away) best = { segment: s, x: at, away };
  }
  return best;
}

/** The place on a segment, or on what several have in common, that is nearest to x, its ends kept clear as far as it is long enough. */
export function within({ left, right }: Rows, segments: readonly number[], x: number, insetMm: number): number {
  let [from, to] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
  for (const segment of segments) {
    from = Math.max(from, left[segment]);
    to = Math.min(to, right[segment]);
  }
  const inset = Math.min(insetMm, (to - from) / 3);
  return Math.min(to - inset, Math.max(from + inset, x));
}
