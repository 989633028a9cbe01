// Ways from area to area that nobody sees: under what is sewn later, or along what is sewn already in the same colour.
import { type Area, crossRows } from "../area/index.ts";
import { boundsOfAll } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";

/** Side of a cell of the grid on which ways are looked for, mm. */
const CELL_MM = 0.5;
/**
 * A way over what is sewn already is less welcome than one that will be covered; one over bare cloth beside either is for
 * narrow gaps alone (our own).
 */
const COST = { later: 1, along: 1.6, rim: 5 };
/** A way may be longer than the straight one by this factor, and by so much, mm (our own). */
const LONGER = 2.5;
const LONGER_MM = 15;

/** Which area lies in each cell; -1: none. */
export interface WayGrid {
  readonly width: number;
  readonly height: number;
  readonly area: Int32Array;
}

/** `areas` lie in a design of `widthMm` by `heightMm`; cells have their places in the list. */
export function makeWayGrid(areas: readonly Area[], widthMm: number, heightMm: number): WayGrid {
  const [width, height] = [Math.ceil(widthMm / CELL_MM) + 1, Math.ceil(heightMm / CELL_MM) + 1];
  const area = new Int32Array(width * height).fill(-1);
  areas.forEach(({ rings }, i) => {
    // Only the rows that it lies in: there may be hundreds of areas.
    const { top, bottom } = boundsOfAll(rings);
    const first = Math.max(0, Math.floor(top / CELL_MM));
    const count = Math.max(0, Math.min(height, Math.ceil(bottom / CELL_MM) + 1) - first);
    const { left, right, row } = crossRows(rings, (first + 0.5) * CELL_MM, CELL_MM, count);
    for (let s = 0; s < row.length; s++) {
      const [from, to] = [Math.ceil(left[s] / CELL_MM - 0.5), Math.floor(right[s] / CELL_MM - 0.5)];
      for (let x = Math.max(0, from); x <= Math.min(width - 1, to); x++) area[(first + row[s]) * width + x] = i;
    }
  });
  return { width, height, area };
}

/** The area at a place, mm; -1: none. */
export function areaAt({ width, height, area }: WayGrid, x: number, y: number): number {
  const [cx, cy] = [Math.floor(x / CELL_MM), Math.floor(y / CELL_MM)];
  return cx < 0 || cy < 0 || cx >= width || cy >= height ? -1 : area[cy * width + cx];
}

/** What of an area a way may go over: covered later, along what is there, or not at all. */
export type Cover = "later" | "along" | "no";

/**
 * A hidden way between two places as points x, y, mm, both included, over narrow gaps between areas if it may; null if there is
 * none that is short enough (A*: Hart, Nilsson & Raphael 1968).
 */
export function findHiddenWay(
  { width, height, area }: WayGrid,
  from: Point,
  to: Point,
  coverOf: (area: number) => Cover,
  crossesGaps: boolean,
): number[] | null {
  const cellOf = ({ x, y }: Point) => {
    const [cx, cy] = [Math.floor(x / CELL_MM), Math.floor(y / CELL_MM)];
    return Math.min(height - 1, Math.max(0, cy)) * width + Math.min(width - 1, Math.max(0, cx));
  };
  const [start, goal] = [cellOf(from), cellOf(to)];
  const [goalX, goalY] = [goal % width, Math.floor(goal / width)];
  const straight = (cell: number) => {
    const [dx, dy] = [Math.abs((cell % width) - goalX), Math.abs(Math.floor(cell / width) - goalY)];
    return Math.max(dx, dy) + (Math.SQRT2 - 1) * Math.min(dx, dy);
  };
  const isBeside = (a: number, b: number) =>
    Math.max(Math.abs((a % width) - (b % width)), Math.abs(Math.floor(a / width) - Math.floor(b / width))) <= 1;
  /** Whether a bare cell lies beside one that a way may go over: gaps of two such are narrow. */
  const isRim = (x: number, y: number) => {
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        const [nx, ny] = [x + dx, y + dy];
        if (nx < 0 || ny < 0 || nx >= width || ny >= height) continue;
        const near = area[ny * width + nx];
        if (near >= 0 && coverOf(near) !== "no") return true;
      }
    return false;
  };
  const most = straight(start) * LONGER + LONGER_MM / CELL_MM;
  const cost = new Map<number, number>([[start, 0]]);
  const before = new Map<number, number>();
  const open = new Heap();
  open.push(start, straight(start));
  const isDone = new Set<number>();
  for (let cell = open.pop(); cell >= 0; cell = open.pop()) {
    if (cell === goal) return trail(before, goal, from, to, width);
    if (isDone.has(cell)) continue;
    isDone.add(cell);
    const [x, y] = [cell % width, Math.floor(cell / width)];
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        const [nx, ny] = [x + dx, y + dy];
        if ((dx === 0 && dy === 0) || nx < 0 || ny < 0 || nx >= width || ny >= height) continue;
        const next = ny * width + nx;
        // Both ends lie on edges, where the middle of a cell may be outside: bare cells beside them count as if sewn.
        const isEnd = crossesGaps && (isBeside(next, goal) || isBeside(next, start));
        const own = next === goal ? "along" : area[next] >= 0 ? coverOf(area[next]) : isEnd ? "along" : "no";
        const cover = own === "no" && crossesGaps && area[next] < 0 && isRim(nx, ny) ? "rim" : own;
        if (cover === "no") continue;
        const step = (dx !== 0 && dy !== 0 ? Math.SQRT2 : 1) * COST[cover];
        const total = (cost.get(cell) ?? 0) + step;
        if (total >= (cost.get(next) ?? Number.POSITIVE_INFINITY) || total + straight(next) > most) continue;
        cost.set(next, total);
        before.set(next, cell);
        open.push(next, total + straight(next));
      }
  }
  return null;
}

function trail(before: ReadonlyMap<number, number>, goal: number, from: Point, to: Point, width: number): number[] {
  const cells: number[] = [];
  for (let cell: number | undefined = goal; cell !== undefined; cell = before.get(cell)) cells.push(cell);
  // The first and the last cell are where the places themselves are.
  const inner = cells.reverse().slice(1, -1);
  const middles = inner.flatMap((cell) => [
    ((cell % width) + 0.5) * CELL_MM,
    (Math.floor(cell / width) + 0.5) * CELL_MM,
  ]);
  return [from.x, from.y, ...middles, to.x, to.y];
}

/** Cells by cost, the cheapest first (binary heap: Williams 1964). */
class Heap {
  private readonly cells: number[] = [];
  private readonly costs: number[] = [];

  push(cell: number, cost: number): void {
    const { cells, costs } = this;
    let i = cells.length;
    cells.push(cell);
    costs.push(cost);
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (costs[up] <= cost) break;
      cells[i] = cells[up];
      costs[i] = costs[up];
      i = up;
    }
    cells[i] = cell;
    costs[i] = cost;
  }

  /** -1: empty. */
  pop(): number {
    const { cells, costs } = this;
    const top = cells[0] ?? -1;
    const [cell, cost] = [cells.pop(), costs.pop()];
    const n = cells.length;
    if (n === 0 || cell === undefined || cost === undefined) return top;
    let i = 0;
    for (;;) {
      let down = 2 * i + 1;
      if (down >= n) break;
      if (down + 1 < n && costs[down + 1] < costs[down]) down++;
      if (costs[down] >= cost) break;
      cells[i] = cells[down];
      costs[i] = costs[down];
      i = down;
    }
    cells[i] = cell;
    costs[i] = cost;
    return top;
  }
}
