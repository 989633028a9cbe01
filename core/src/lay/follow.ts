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
    if (following >= 0) next[last(half)] = first(following);
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
  const oldVertices = map.vertices.length / 2;
  for (const [vertex, halves] of leaving) {
    const old = vertex < oldVertices ? halves.filter((half) => arcs[half >> 1].strand.edge !== null) : [];
    if (old.length > 0) closeBare(arcs, old, next);
    if (touched.has(vertex)) turnRound(arcs, halves, old, next);
  }
  return next;
}

function addTo(lists: Map<number, number[]>, key: number, value: number): void {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
}

/**
 * All halves that leave a vertex, by their direction: who comes in turns left, to the next one clockwise on the screen. The
 * map's own keep the order that they have, even if they leave so close to each other that their directions say otherwise.
 */
function turnRound(arcs: readonly Arc[], halves: readonly number[], old: readonly number[], next: Int32Array): void {
  const sorted = byDirection(arcs, halves);
  const isOld = new Set(old);
  const round: number[] = [];
  for (let half = old[0]; half !== undefined && !round.includes(half) && isOld.has(half); half = next[half ^ 1])
    round.push(half);
  const ordered = round.length === old.length && round.length > 2 ? insertInto(round, sorted) : sorted;
  ordered.forEach((half, k) => {
    next[half ^ 1] = ordered[(k + 1) % ordered.length];
  });
}

/** Halves in the order `round`, the others each after the one that comes before it in `sorted`. */
function insertInto(round: readonly number[], sorted: readonly number[]): number[] {
  const own = new Set(round);
  const after = new Map<number, number[]>(round.map((half) => [half, [half]]));
  const first = sorted.findIndex((half) => own.has(half));
  let last = round[0];
  for (let k = 0; k < sorted.length; k++) {
    const half = sorted[(first + k) % sorted.length];
    if (own.has(half)) last = half;
    else after.get(last)?.push(half);
  }
  return round.flatMap((half) => after.get(half) ?? []);
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
