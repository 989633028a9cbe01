// Ways inside an area, from row to row: straight as long as they stay in it, and hidden by the rows that are sewn later.
import { heightOf, type Rows, within } from "./rows.ts";

/** Ways keep so far from an area's edges, mm. */
const WAY_INSET_MM = 0.5;
/** From an edge they first go so far along the row, mm: a stitch's least length, wherever the row's thread itself ends. */
const OFF_EDGE_MM = 0.75;

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
  const passed = [from.segment, ...segmentsAlong(rows, chain, from.segment, to.segment)];
  const top = heightOf(rows, rows.row[from.segment]);
  const way = [from.x, top];
  // Away from the edge first: a long stitch that slants off it would be seen beside the rows.
  const inner = within(rows, [from.segment], from.x, OFF_EDGE_MM);
  if (inner !== from.x) way.push(inner, top);
  // Where it turns back, from row upon row to row under row, a straight stretch ends.
  for (let first = 0; first < passed.length - 1; ) {
    const step = rows.row[passed[first + 1]] - rows.row[passed[first]];
    let last = first + 1;
    while (last + 1 < passed.length && rows.row[passed[last + 1]] - rows.row[passed[last]] === step) last++;
    const isEnd = last + 1 === passed.length;
    const x = isEnd ? to.x : turnAt(rows, passed[last - 1], passed[last], passed[last + 1]);
    way.push(...straightWay(way.slice(-2), gatesAlong(rows, passed.slice(first, last + 1), x)));
    first = last;
  }
  if (passed.length === 1) way.push(to.x, heightOf(rows, rows.row[to.segment]));
  return way;
}

/** Where a way turns back in a row: between what it comes from and what it goes to. */
function turnAt(rows: Rows, before: number, turn: number, after: number): number {
  const middle = (rows.left[turn] + rows.right[turn]) / 2;
  const [x, toX] = [before, after].map((segment) => within(rows, [segment, turn], middle, WAY_INSET_MM));
  return within(rows, [turn], (x + toX) / 2, WAY_INSET_MM);
}

/** What a way has to pass: anywhere between two x at a height. */
interface Gate {
  readonly y: number;
  readonly from: number;
  readonly to: number;
}

/** Gates through segments one under the other, or one over the other: each, and what it has in common with the next; at last x. */
function gatesAlong(rows: Rows, segments: readonly number[], x: number): Gate[] {
  const gates = segments.slice(1).flatMap((segment, k): Gate[] => {
    const y = heightOf(rows, rows.row[segment]);
    const before = heightOf(rows, rows.row[segments[k]]);
    return [gate(rows, [segments[k], segment], (before + y) / 2), gate(rows, [segment], y)];
  });
  gates[gates.length - 1] = { ...gates[gates.length - 1], from: x, to: x };
  return gates;
}

function gate(rows: Rows, segments: readonly number[], y: number): Gate {
  return {
    y,
    from: within(rows, segments, Number.NEGATIVE_INFINITY, WAY_INSET_MM),
    to: within(rows, segments, Number.POSITIVE_INFINITY, WAY_INSET_MM),
  };
}

/** The shortest way from a place through gates, without the place: straight on as far as it is seen, and on from the post in its way. */
function straightWay([startX, startY]: readonly number[], gates: readonly Gate[]): number[] {
  const way: number[] = [];
  let [x, y] = [startX, startY];
  for (let next = 0; next < gates.length; ) {
    // Slants that pass all gates so far, and which gate bounds each.
    let [least, most] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
    let [leastAt, mostAt, k] = [next, next, next];
    for (; k < gates.length; k++) {
      const far = Math.abs(gates[k].y - y);
      const [from, to] = [(gates[k].from - x) / far, (gates[k].to - x) / far];
      if (from > most || to < least) break;
      if (from >= least) [least, leastAt] = [from, k];
      if (to <= most) [most, mostAt] = [to, k];
    }
    const isOver = k === gates.length;
    const isRight = !isOver && (gates[k].from - x) / Math.abs(gates[k].y - y) > most;
    const post = isOver ? gates.length - 1 : isRight ? mostAt : leastAt;
    [x, y] = [isRight ? gates[post].to : gates[post].from, gates[post].y];
    way.push(x, y);
    next = post + 1;
  }
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
