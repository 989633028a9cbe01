// Which half of an arc follows which on the ring of the area at its left. Halves are numbered as the map's: twice the arc, one
// more if it is travelled backwards.
import { nextHalfEdges, type PlanarMap } from "../trace/index.ts";
import type { Arc, Arrangement } from "./arrange.ts";

/** The half that follows each one, hugging what lies on the left. */
export function followHalves(map: PlanarMap, arrangement: Arrangement): Int32Array {
  const { arcs, touched, arcsOfEdge } = arrangement;
  const next = new Int32Array(arcs.length * 2).fill(-1);
  // Where nothing was laid all stays as it was.
  const old = nextHalfEdges(map);
  const first = (half: number) => {
    const own = arcsOfEdge[half >> 1];
    return (half & 1) === 0 ? own[0] * 2 : own[own.length - 1] * 2 + 1;
  };
  const last = (half: number) => first(half ^ 1) ^ 1;
  old.forEach((following, half) => {
    const end = endOf(arcs, last(half));
    if (following >= 0 && !touched.has(end)) next[last(half)] = first(following);
  });
  const leaving = new Map<number, number[]>();
  arcs.forEach(({ start, end }, k) => {
    if (start < 0) {
      next[2 * k] = 2 * k;
      next[2 * k + 1] = 2 * k + 1;
      return;
    }
    addTo(leaving, start, 2 * k);
    addTo(leaving, end, 2 * k + 1);
  });
  for (const [vertex, halves] of leaving)
    if (touched.has(vertex)) turnRound(arcs, halves, next);
    else closeBare(arcs, halves, next);
  return next;
}

function addTo(lists: Map<number, number[]>, key: number, value: number): void {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
}

export function endOf(arcs: readonly Arc[], half: number): number {
  const { start, end } = arcs[half >> 1];
  return (half & 1) === 0 ? end : start;
}

/** All halves that leave a vertex, by their direction: who comes in turns left, to the next one clockwise on the screen. */
function turnRound(arcs: readonly Arc[], halves: readonly number[], next: Int32Array): void {
  const sorted = byDirection(arcs, halves);
  sorted.forEach((half, k) => {
    next[half ^ 1] = sorted[(k + 1) % sorted.length];
  });
}

/** At an old vertex only what borders on nothing is not known from the faces. */
function closeBare(arcs: readonly Arc[], halves: readonly number[], next: Int32Array): void {
  const open = halves.filter((half) => next[half ^ 1] < 0);
  if (open.length === 0) return;
  const followed = new Set(halves.map((half) => next[half ^ 1]));
  const free = halves.filter((half) => !followed.has(half));
  if (open.length === 1 && free.length === 1) {
    next[open[0] ^ 1] = free[0];
    return;
  }
  const sorted = byDirection(arcs, halves);
  for (const half of open) {
    const from = sorted.indexOf(half);
    for (let k = 1; k <= sorted.length; k++) {
      const other = sorted[(from + k) % sorted.length];
      if (!free.includes(other)) continue;
      next[half ^ 1] = other;
      break;
    }
  }
}

/** Halves that leave a vertex in the order of their directions, clockwise on the screen from the right. */
function byDirection(arcs: readonly Arc[], halves: readonly number[]): number[] {
  const directionOf = (half: number) => ((half & 1) === 0 ? arcs[half >> 1].leaves : arcs[half >> 1].arrives);
  return halves.toSorted((a, b) => {
    const [[ax, ay], [bx, by]] = [directionOf(a), directionOf(b)];
    const isLower = (x: number, y: number) => y < 0 || (y === 0 && x < 0);
    if (isLower(ax, ay) !== isLower(bx, by)) return isLower(ax, ay) ? 1 : -1;
    return ay * bx - ax * by;
  });
}
