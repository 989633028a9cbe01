// Areas filled with stones: in rows, or following the edge inwards; and strewn, fewer and fewer on their way.
import {
  closed,
  crossRows,
  fromFrame,
  holdsPlace,
  insetRings,
  measureLine,
  type Ring,
  ringInFrame,
  toFrame,
} from "../area/index.ts";
import { boundsOfAll, lengthOf } from "../geometry/index.ts";
import { sineAndCosine } from "../raster/index.ts";
import { diameterOf, type StoneSize } from "../trade/index.ts";
import { setRows } from "./along.ts";
import type { Gaps, Setting } from "./stones.ts";

export interface FillNumbers {
  readonly size: StoneSize;
  readonly spotId: string;
  readonly angleDeg: number;
  readonly gaps: Gaps;
}

/** Rows of hexagons lie nearer than stones in a row: half the root of three. */
const HEXAGON_ROWS = Math.sqrt(3) / 2;
/** Rows are tried at so many offsets each way, and those that hold most are taken. */
const OFFSETS = 6;

/** Sets rows of stones that lie inside an area, at the offset at which most do. */
export function fillInRows(
  rings: readonly Ring[],
  pattern: "hexagons" | "squares",
  numbers: FillNumbers,
  setting: Setting,
): void {
  const { size, spotId, angleDeg, gaps } = numbers;
  const pitch = diameterOf(size) + gaps.gapMm;
  const angle = sineAndCosine(angleDeg);
  const turned = insetRings(rings, diameterOf(size) / 2).map((ring) => ringInFrame(ring, angle));
  if (turned.length === 0) return;
  const down = pattern === "hexagons" ? pitch * HEXAGON_ROWS : pitch;
  const shift = pattern === "hexagons" ? pitch / 2 : 0;
  let best: number[] = [];
  for (let v = 0; v < OFFSETS; v++)
    for (let u = 0; u < OFFSETS; u++) {
      const places = placesInRows(turned, {
        pitch,
        down,
        shift,
        acrossBy: (u / OFFSETS) * pitch,
        downBy: (v / OFFSETS) * down,
      });
      if (places.length > best.length) best = places;
    }
  for (const places of inLines(best, 1.5 * pitch)) {
    const points = places.flatMap(([across, along]) => fromFrame({ angle }, across, along));
    const row = setting.numberOf({ line: measureLine(points), isClosed: false, size, spotId, fixed: [] });
    for (let i = 0; i < points.length; i += 2) setting.trySet({ x: points[i], y: points[i + 1], size, spotId, row });
  }
}

/** Places x, y of rows, one after the other, as the parts of each that have no more than a distance between two. */
function inLines(places: readonly number[], mostMm: number): (readonly [number, number])[][] {
  const lines: (readonly [number, number])[][] = [];
  for (let i = 0; i < places.length; i += 2) {
    const [x, y] = [places[i], places[i + 1]];
    const line = lines[lines.length - 1];
    const last = line?.[line.length - 1];
    if (last && last[1] === y && x - last[0] <= mostMm) line.push([x, y]);
    else lines.push([[x, y]]);
  }
  return lines;
}

interface Lattice {
  readonly pitch: number;
  readonly down: number;
  /** By how much every second row is moved. */
  readonly shift: number;
  readonly acrossBy: number;
  readonly downBy: number;
}

function placesInRows(rings: readonly Ring[], { pitch, down, shift, acrossBy, downBy }: Lattice): number[] {
  const { top, bottom } = boundsOfAll(rings);
  // Rows are counted from the area's top, moved in by a part of their distance.
  const first = top + downBy + NOUGHT_MM;
  const count = Math.max(0, Math.floor((bottom - NOUGHT_MM - first) / down) + 1);
  const { left, right, row } = crossRows(rings, first, down, count);
  const places: number[] = [];
  for (let s = 0; s < row.length; s++) {
    const off = acrossBy + (row[s] % 2) * shift;
    for (let k = Math.ceil((left[s] - off) / pitch - NOUGHT_MM); k * pitch + off <= right[s] + NOUGHT_MM; k++)
      places.push(k * pitch + off, first + row[s] * down);
  }
  return places;
}

/** Rows stay clear of the very edge by so much, mm. */
const NOUGHT_MM = 1e-6;

/** Sets rows along the edge, one inside the other, and what is left in the middle. */
export function fillFromEdge(rings: readonly Ring[], numbers: FillNumbers, setting: Setting): void {
  const { size, spotId, gaps } = numbers;
  const pitch = diameterOf(size) + gaps.gapMm;
  for (let inset = diameterOf(size) / 2; ; inset += pitch) {
    const lines = insetRings(rings, inset);
    if (lines.length === 0) break;
    setRows(
      lines.map((ring) => ({ line: measureLine(closed(ring)), isClosed: true, size, spotId, fixed: [] })),
      setting,
      gaps,
    );
  }
  fillLeft(rings, numbers, setting);
}

/** How finely places for what is left are looked for, as a share of a stone. */
const LOOK_SHARE = 0.12;

/** Sets stones wherever one more has room, from place to place. */
export function fillLeft(rings: readonly Ring[], { size, spotId }: FillNumbers, setting: Setting): void {
  const inner = insetRings(rings, diameterOf(size) / 2);
  if (inner.length === 0) return;
  const step = diameterOf(size) * LOOK_SHARE;
  const { top, bottom } = boundsOfAll(inner);
  const { left, right, row } = crossRows(inner, top + step / 2, step, Math.ceil((bottom - top) / step));
  for (let s = 0; s < row.length; s++)
    for (let x = left[s]; x <= right[s]; x += step)
      setting.trySet({ x, y: top + (row[s] + 0.5) * step, size, spotId, row: -1 });
}

/** Places tried round each stone before it is taken for hemmed in (Bridson 2007). */
const TRIES = 24;

/**
 * Strews stones (Poisson discs: Bridson, Fast Poisson disk sampling in arbitrary dimensions, 2007): at one side of the area as near
 * as the gap has it, at the other so many times as far, along `angleDeg`.
 */
export function strew(rings: readonly Ring[], numbers: FillNumbers, times: number, setting: Setting): void {
  const { size, spotId, angleDeg, gaps } = numbers;
  const inner = insetRings(rings, diameterOf(size) / 2);
  if (inner.length === 0) return;
  const angle = sineAndCosine(angleDeg);
  const { left, right } = boundsOfAll(inner.map((ring) => ringInFrame(ring, angle)));
  const pitch = diameterOf(size) + gaps.gapMm;
  const far = (x: number, y: number) => {
    const share = (toFrame({ angle }, { x, y }).x - left) / (right - left || 1);
    return pitch * (1 + (times - 1) * Math.min(1, Math.max(0, share)));
  };
  const random = makeRandom(1);
  // Squares as wide as stones are apart at most: what is too near lies in one of nine.
  const squares = new Map<string, (readonly [number, number])[]>();
  const squareOf = (x: number, y: number) => [Math.floor(x / (pitch * times)), Math.floor(y / (pitch * times))];
  const isOpen = (x: number, y: number) => {
    if (!holdsPlace(inner, { x, y }) || !setting.isFree(x, y, size)) return false;
    const own = far(x, y);
    const [column, row] = squareOf(x, y);
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++)
        for (const [px, py] of squares.get(`${column + dx} ${row + dy}`) ?? [])
          if (lengthOf(px - x, py - y) < own) return false;
    return true;
  };
  const put = (x: number, y: number) => {
    setting.set({ x, y, size, spotId, row: -1 });
    const key = squareOf(x, y).join(" ");
    squares.set(key, [...(squares.get(key) ?? []), [x, y]]);
    return [x, y] as const;
  };
  // Each part that hangs together begins at its first corner.
  for (const ring of inner) {
    const open = isOpen(ring[0], ring[1]) || setting.isFree(ring[0], ring[1], size) ? [put(ring[0], ring[1])] : [];
    while (open.length > 0) {
      const k = Math.floor(random() * open.length);
      const [x, y] = open[k];
      let found: readonly [number, number] | null = null;
      for (let t = 0; t < TRIES && !found; t++) {
        const { cos: ux, sin: uy } = sineAndCosine(random() * 360 - 180);
        const away = far(x, y) * (1 + random());
        if (isOpen(x + away * ux, y + away * uy)) found = put(x + away * ux, y + away * uy);
      }
      if (found) open.push(found);
      else open.splice(k, 1);
    }
  }
}

/** The same numbers from 0 to 1 everywhere (Park & Miller 1988). */
function makeRandom(seed: number): () => number {
  let state = seed * 48271;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}
