// Ways inside an area, from row to row: straight as long as they stay in it, and hidden by the rows that are sewn later.
import { heightOf, type Rows, within } from "./rows.ts";

/** Ways keep so far from an area's edges, mm. */
const WAY_INSET_MM = 0.5;

/** A place on a segment, x in the rows' frame. */
export interface Spot {
  readonly segment: number;
  readonly x: number;
}

/**
 * A way between two places as points x, y in the rows' frame, both included, through cells for which `isOpen` holds (the first
 * may be any); null if there is none.
 */
export function wayInside(rows: Rows, from: Spot, to: Spot, isOpen: (cell: number) => boolean): number[] | null {
  const chain = cellsBetween(rows, rows.cell[from.segment], rows.cell[to.segment], isOpen);
  if (!chain) return null;
  const passed = segmentsAlong(rows, chain, from.segment, to.segment);
  const way = [from.x, heightOf(rows, rows.row[from.segment])];
  let [x, last] = [from.x, from.segment];
  for (const segment of passed) {
    // Along the row to where the next lies under it, and only then over to that.
    const next = within(rows, [last, segment], x, WAY_INSET_MM);
    if (next !== x) way.push(next, heightOf(rows, rows.row[last]));
    way.push(next, heightOf(rows, rows.row[segment]));
    [x, last] = [next, segment];
  }
  way.push(to.x, heightOf(rows, rows.row[to.segment]));
  return way;
}

/** Neighbouring cells from one to another, breadth first; null if they do not hang together. */
function cellsBetween({ cells }: Rows, from: number, to: number, isOpen: (cell: number) => boolean): number[] | null {
  const before = new Map<number, number>([[from, -1]]);
  const open = [from];
  for (let k = 0; k < open.length && !before.has(to); k++)
    for (const next of [...cells[open[k]].above, ...cells[open[k]].below])
      if (!before.has(next) && (isOpen(next) || next === to)) {
        before.set(next, open[k]);
        open.push(next);
      }
  if (!before.has(to)) return null;
  const chain: number[] = [];
  for (let cell = to; cell >= 0; cell = before.get(cell) ?? -1) chain.push(cell);
  return chain.reverse();
}

/** The segments on the way through a chain of cells, without the first. */
function segmentsAlong({ cells, row }: Rows, chain: readonly number[], from: number, to: number): number[] {
  const passed: number[] = [];
  let at = from;
  chain.forEach((cell, k) => {
    const { segments, above } = cells[cell];
    const next = chain[k + 1];
    const isUp = next !== undefined && above.includes(next);
    const goal = next === undefined ? to : isUp ? segments[0] : segments[segments.length - 1];
    // A cell has one segment in each of its rows.
    const indexOf = (segment: number) => row[segment] - row[segments[0]];
    const step = indexOf(at) <= indexOf(goal) ? 1 : -1;
    for (let i = indexOf(at); ; i += step) {
      if (k > 0 || segments[i] !== from) passed.push(segments[i]);
      if (segments[i] === goal) break;
    }
    if (next === undefined) return;
    const own = cells[next].segments;
    at = isUp ? own[own.length - 1] : own[0];
  });
  return passed;
}
