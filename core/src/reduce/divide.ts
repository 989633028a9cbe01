// A dividing line through touching parts of one colour: what lies on one side of it becomes a spot of its own.
import { fillSpans, type LabelMap, NONE } from "../raster/index.ts";
import { floodArea } from "./flood.ts";

/**
 * Divides the area that the line runs right through, and gives the smaller part (the other one if `isFlipped`) to `spot`.
 * Returns why it could not, or null. `isTaken` as for floodArea. The line is x, y pairs; pixels go by the side that their centres lie on.
 */
export function divideArea(
  map: LabelMap,
  line: readonly number[],
  isFlipped: boolean,
  spot: number,
  isTaken: Uint8Array,
): string | null {
  const crossed = crossPixels(line, map.width, map.height);
  if (crossed.size === 0) return "its line runs outside the picture";
  for (const area of crossedAreas(map, crossed, isTaken)) {
    const sides = splitArea(map, area, crossed, line);
    if (!sides) continue;
    const smaller = sides[0].length <= sides[1].length ? 0 : 1;
    for (const p of sides[isFlipped ? 1 - smaller : smaller]) map.data[p] = spot;
    return null;
  }
  return "its line does not run all the way through the area";
}

/** Areas that the line crosses: those it does not end in before those it does, most crossed first. */
function crossedAreas(map: LabelMap, crossed: ReadonlySet<number>, isTaken: Uint8Array): Int32Array[] {
  const list = [...crossed];
  const isSeen = new Set<number>();
  const found: { readonly area: Int32Array; readonly count: number; readonly hasEnd: boolean }[] = [];
  for (const p of list) {
    if (isSeen.has(p) || map.data[p] === NONE) continue;
    const area = floodArea(map, p, isTaken).pixels;
    let count = 0;
    for (const q of area)
      if (crossed.has(q)) {
        isSeen.add(q);
        count++;
      }
    const hasEnd = [list[0], list[list.length - 1]].some((end) => area.includes(end));
    found.push({ area, count, hasEnd });
  }
  found.sort((a, b) => Number(a.hasEnd) - Number(b.hasEnd) || b.count - a.count);
  return found.map(({ area }) => area);
}

/** What is in the box round an area: nothing of it, the area, the line through it. */
const OUT = 0;
const AREA = 1;
const LINE = 2;

/** The pixels of an area left and right of the line; null if the line does not part it. */
function splitArea(
  { width }: LabelMap,
  area: Int32Array,
  crossed: ReadonlySet<number>,
  line: readonly number[],
): readonly [number[], number[]] | null {
  const box = boxOf(area, width);
  const inBox = (p: number) => (Math.floor(p / width) - box.y) * box.width + (p % width) - box.x;
  const inMap = (q: number) => (Math.floor(q / box.width) + box.y) * width + (q % box.width) + box.x;
  const values = new Uint8Array(box.width * box.height).fill(OUT);
  for (const p of area) values[inBox(p)] = crossed.has(p) ? LINE : AREA;
  const isTaken = new Uint8Array(values.length);
  const sides: [number[], number[]] = [[], []];
  const sideAt = (p: number) => sideOf(line, (p % width) + 0.5, Math.floor(p / width) + 0.5);
  for (const p of area) {
    // One part of the area without the line; its pixels beside the line say which side it is on.
    const part: number[] = [];
    let balance = 0;
    const isArea = (value: number) => value === AREA;
    fillSpans({ values, width: box.width }, isTaken, inBox(p), isArea, (from, to) => {
      for (let q = from; q < to; q++) {
        const own = inMap(q);
        part.push(own);
        for (const beside of [q - 1, q + 1, q - box.width, q + box.width])
          if (values[beside] === LINE) balance += sideAt(own);
      }
    });
    const side = sides[balance >= 0 ? 0 : 1];
    for (const q of part) side.push(q);
  }
  if (sides[0].length === 0 || sides[1].length === 0) return null;
  for (const p of area) if (crossed.has(p)) sides[sideAt(p) >= 0 ? 0 : 1].push(p);
  return sides;
}

/** The box round pixels, with a pixel of nothing on every side, so that rows do not run into each other. */
function boxOf(area: Int32Array, width: number): { x: number; y: number; width: number; height: number } {
  let [left, right] = [width, 0];
  for (const p of area) {
    const x = p % width;
    if (x < left) left = x;
    if (x > right) right = x;
  }
  const top = Math.floor(area[0] / width);
  const bottom = Math.floor(area[area.length - 1] / width);
  return { x: left - 1, y: top - 1, width: right - left + 3, height: bottom - top + 3 };
}

/** All pixels that a line passes through, without diagonal gaps. */
function crossPixels(line: readonly number[], width: number, height: number): Set<number> {
  const pixels = new Set<number>();
  let last: { x: number; y: number } | null = null;
  const add = (x: number, y: number) => {
    if (x >= 0 && y >= 0 && x < width && y < height) pixels.add(y * width + x);
  };
  for (let i = 0; i + 3 < line.length; i += 2) {
    const dx = line[i + 2] - line[i];
    const dy = line[i + 3] - line[i + 1];
    const steps = Math.max(1, Math.ceil(Math.max(Math.abs(dx), Math.abs(dy)) * 4));
    for (let s = 0; s <= steps; s++) {
      const x = Math.floor(line[i] + (dx * s) / steps);
      const y = Math.floor(line[i + 1] + (dy * s) / steps);
      if (last && last.x !== x && last.y !== y) add(x, last.y);
      add(x, y);
      last = { x, y };
    }
  }
  return pixels;
}

/** 1 or -1 for the side of the line's nearest stretch that a place lies on. */
function sideOf(line: readonly number[], x: number, y: number): 1 | -1 {
  let best = Number.POSITIVE_INFINITY;
  let side: 1 | -1 = 1;
  for (let i = 0; i + 3 < line.length; i += 2) {
    const dx = line[i + 2] - line[i];
    const dy = line[i + 3] - line[i + 1];
    const length2 = dx * dx + dy * dy;
    if (length2 === 0) continue;
    const px = x - line[i];
    const py = y - line[i + 1];
    const t = Math.min(1, Math.max(0, (px * dx + py * dy) / length2));
    const d2 = (px - t * dx) ** 2 + (py - t * dy) ** 2;
    if (d2 >= best) continue;
    best = d2;
    side = dx * py - dy * px >= 0 ? 1 : -1;
  }
  return side;
}
