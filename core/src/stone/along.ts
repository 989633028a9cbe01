// Stones along a line: one on each corner, the others evenly between.
import { findCorners, type MeasuredLine, pointAlong } from "../area/index.ts";
import { lengthOf } from "../geometry/index.ts";
import { diameterOf } from "../trade/index.ts";
import type { Gaps, Row, Setting, Stone } from "./stones.ts";

/** A line turns here, and wants a stone, from this angle on: cosine of 25 degrees (our own). */
const CORNER_COSINE = 0.906;
/** An end, where lines mostly meet, comes before corners that turn by less than this: cosine of 60 degrees (our own). */
const END_COSINE = 0.5;
/** ... within so much of a stone to both sides: what is rounder is followed evenly (our own). */
const CORNER_SHARE = 0.15;
/**
 * From here on legs of a corner are too near for a stone on each beside the corner's: cosine of 120 degrees; and how many steps away
 * room is looked for (our own).
 */
const ACUTE_COSINE = -0.5;
const SHOULDER = 4;
/** How exactly the place of a stone on a line is found, as a share of how far it may lie off it. */
const LOOK_SHARE = 0.02;
/** How finely a line is looked at for what lies in its way already, mm. */
const LOOK_MM = 0.1;
/** A stone that lies no farther off a line than this share of its width is one of its row. */
const ON_SHARE = 0.3;
/** Rounds at most in which distances are made even. */
const ROUNDS = 24;
/** So many counts are tried beside the nearest. */
const COUNTS = 2;

/** A stone that lies on a row, its own or another's, and where along it. */
export interface Held {
  readonly at: number;
  readonly stone: Stone;
}

/** Sets stones on the corners of several rows, the sharpest first, then between them. */
export function setRows(rows: readonly Row[], setting: Setting, gaps: Gaps): void {
  const wanted = rows.flatMap((row) => cornersOf(row).map((corner) => ({ ...corner, row })));
  wanted.sort((one, other) => one.cosine - other.cosine);
  const set = wanted.filter(({ at, row }) => trySetAt(row, at, setting));
  for (const { at, cosine, row } of set)
    if (cosine >= -1 && cosine < ACUTE_COSINE) setShoulders(row, at, setting, gaps);
  for (const row of rows) setBetween(row, lyingOn(row, setting), setting, gaps);
}

function trySetAt(row: Row, at: number, setting: Setting): Stone | null {
  const [x, y] = onLine(row)(at);
  return setting.trySet({ x, y, size: row.size, spotId: row.spotId, row: setting.numberOf(row) });
}

/** On both legs of a sharp corner the first stone that has room beside the other's, as far from the corner here as there. */
function setShoulders(row: Row, at: number, setting: Setting, { gapMm }: Gaps): void {
  const { line, isClosed, size } = row;
  const whole = line.along[line.along.length - 1];
  const on = onLine(row);
  const pitch = diameterOf(size) + gapMm;
  for (let leg = pitch; leg < SHOULDER * pitch; leg += LOOK_MM) {
    const [before, after] = [isClosed ? (at - leg + whole) % whole : at - leg, at + leg];
    if (before < 0 || (!isClosed && after > whole)) return;
    const [[ax, ay], [bx, by]] = [on(before), on(after)];
    if (lengthOf(bx - ax, by - ay) < pitch) continue;
    if (setting.isFree(ax, ay, size) && setting.isFree(bx, by, size))
      for (const place of [before, after]) trySetAt(row, place, setting);
    return;
  }
}

/** Stones that lie on a row already, its own and others', in their order along it. */
export function lyingOn(row: Row, setting: Setting): Held[] {
  const whole = row.line.along[row.line.along.length - 1];
  const on = pointAlong(row.line);
  const within = ON_SHARE * diameterOf(row.size);
  const found = new Map<Stone, { at: number; away: number }>();
  const look = (at: number, reach: number) => {
    const [x, y] = on(at);
    for (const stone of setting.near(x, y, reach)) {
      const away = lengthOf(stone.x - x, stone.y - y);
      if (away < (found.get(stone)?.away ?? Number.POSITIVE_INFINITY)) found.set(stone, { at, away });
    }
  };
  const count = Math.max(1, Math.ceil(whole / within));
  for (let k = 0; k <= count; k++) look((k / count) * whole, 1.5 * within);
  // Then each more exactly.
  for (const [stone, { at: rough }] of found)
    for (let at = Math.max(0, rough - within); at <= Math.min(whole, rough + within); at += within * LOOK_SHARE) {
      const [x, y] = on(at);
      const away = lengthOf(stone.x - x, stone.y - y);
      if (away < (found.get(stone)?.away ?? 0)) found.set(stone, { at, away });
    }
  return [...found]
    .flatMap(([stone, { at, away }]) => (away <= within ? [{ at, stone }] : []))
    .sort((one, other) => one.at - other.at);
}

/** Where a row wants a stone before all others: places that were given, its corners by sharpness, its ends among them. */
function cornersOf({ line, isClosed, size, fixed }: Row): { at: number; cosine: number }[] {
  const whole = line.along[line.along.length - 1];
  const turnMm = CORNER_SHARE * diameterOf(size);
  const given = fixed.map((at) => ({ at, cosine: -2 }));
  const found = (on: MeasuredLine) =>
    findCorners(on, CORNER_COSINE, turnMm).map(({ index, comes, goes }) => ({
      at: on.along[sharpestNear(on, index, turnMm)],
      cosine: comes[0] * goes[0] + comes[1] * goes[1],
    }));
  if (!isClosed) return [...given, ...found(line), { at: 0, cosine: END_COSINE }, { at: whole, cosine: END_COSINE }];
  const n = line.points.length;
  const twice = Array.from({ length: 2 * n - 2 }, (_, i) => line.points[i % (n - 2)]);
  return [
    ...given,
    ...found(measureTwice(line, twice))
      .filter(({ at }) => at >= whole / 2 && at < (whole * 3) / 2)
      .map(({ at, cosine }) => ({ at: at % whole, cosine })),
  ];
}

/** The very point of a corner: where the line turns most, from one part of it to the next, if it does so at once. */
function sharpestNear({ points, along }: MeasuredLine, index: number, withinMm: number): number {
  let [best, least] = [index, CORNER_COSINE];
  for (const step of [-1, 1])
    for (let i = index; i > 0 && i < along.length - 1 && Math.abs(along[i] - along[index]) <= withinMm; i += step) {
      const [cx, cy] = [points[i * 2] - points[i * 2 - 2], points[i * 2 + 1] - points[i * 2 - 1]];
      const [gx, gy] = [points[i * 2 + 2] - points[i * 2], points[i * 2 + 3] - points[i * 2 + 1]];
      const cosine = (cx * gx + cy * gy) / (lengthOf(cx, cy) * lengthOf(gx, gy) || 1);
      if (cosine < least - NOUGHT_MM) [best, least] = [i, cosine];
    }
  return best;
}

function measureTwice({ along }: MeasuredLine, points: readonly number[]): MeasuredLine {
  const [n, whole] = [along.length - 1, along[along.length - 1]];
  return {
    points,
    along: Float64Array.from({ length: points.length / 2 }, (_, i) => along[i % n] + Math.floor(i / n) * whole),
  };
}

/** Stones between those that are held, or all round where none is. */
function setBetween(row: Row, held: readonly Held[], setting: Setting, gaps: Gaps): void {
  const whole = row.line.along[row.line.along.length - 1];
  if (held.length === 0) {
    setStretch(row, 0, whole, [], setting, gaps);
    return;
  }
  held.forEach(({ at, stone }, i) => {
    const next = held[i + 1];
    if (next) setStretch(row, at, next.at, [stone, next.stone], setting, gaps);
    else if (row.isClosed) setStretch(row, at, held[0].at + whole, [stone, held[0].stone], setting, gaps);
  });
  if (row.isClosed) return;
  const [first, last] = [held[0], held[held.length - 1]];
  if (first.at > 0) setStretch(row, 0, first.at, [first.stone], setting, gaps);
  if (last.at < whole) setStretch(row, last.at, whole, [last.stone], setting, gaps);
}

/** Stones evenly along a stretch whose ends are stones, or free; in parts where other stones lie in its way. */
function setStretch(row: Row, from: number, to: number, ends: readonly Stone[], setting: Setting, gaps: Gaps): void {
  const { size } = row;
  const at = onLine(row);
  const isFree = (along: number) => setting.isFree(...at(along), size, ends);
  for (const [start, end] of freeParts(from, to, isFree)) {
    const isStone = (along: number) =>
      ends.some((stone) => lengthOf(stone.x - at(along)[0], stone.y - at(along)[1]) < LOOK_MM / 10);
    for (const along of spaceEvenly(at, start, end, diameterOf(size), gaps)) {
      if (!isStone(along)) trySetAt(row, along, setting);
    }
  }
}

/** A place along a row; round a closed one distances are counted on. */
export function onLine({ line, isClosed }: Row): (along: number) => readonly [number, number] {
  const whole = line.along[line.along.length - 1];
  const on = pointAlong(line);
  return (along) => on(isClosed && along > whole ? along - whole : along);
}

/** The parts of a stretch at which stones can lie. */
function freeParts(from: number, to: number, isFree: (along: number) => boolean): [number, number][] {
  const count = Math.max(1, Math.ceil((to - from) / LOOK_MM));
  const parts: [number, number][] = [];
  let start = Number.NaN;
  for (let k = 0; k <= count; k++) {
    const along = from + ((to - from) * k) / count;
    const isOpen = isFree(along);
    if (isOpen && Number.isNaN(start)) start = along;
    if (!isOpen && !Number.isNaN(start)) {
      parts.push([start, from + ((to - from) * (k - 1)) / count]);
      start = Number.NaN;
    }
  }
  if (!Number.isNaN(start)) parts.push([start, to]);
  return parts;
}

/**
 * Distances along a line at which stones lie evenly, each as far from the last as the straight line between them is long, both
 * ends among them; only the first where both have no room. Of a round stretch the last is the first again.
 */
export function spaceEvenly(
  at: (along: number) => readonly [number, number],
  from: number,
  to: number,
  diameterMm: number,
  { gapMm, leastMm }: Gaps,
): number[] {
  const wanted = diameterMm + gapMm;
  const nearest = Math.max(1, Math.round((to - from) / wanted));
  let best: { off: number; places: number[] } | null = null;
  for (let count = Math.max(1, nearest - COUNTS); count <= nearest + 1; count++) {
    const { places, shortest, mean } = evenPlaces(at, from, to, count);
    const off = Math.abs(mean - wanted);
    if (shortest >= diameterMm + leastMm - NOUGHT_MM && (!best || off < best.off)) best = { off, places };
  }
  return best?.places ?? [from];
}

/** What numbers lose on the way, mm. */
const NOUGHT_MM = 1e-6;
/** Chords are even when they differ by no more than this share; few rounds do for that. */
const EVEN = 1e-4;

/** So many steps from one end to the other: where chords are longer than the mean the way between is made shorter, again and again. */
export function evenPlaces(
  at: (along: number) => readonly [number, number],
  from: number,
  to: number,
  count: number,
): { places: number[]; shortest: number; mean: number } {
  const ways = new Float64Array(count).fill((to - from) / count);
  for (let round = 0; ; round++) {
    const places = [from];
    const chords = new Float64Array(count);
    let [x, y] = at(from);
    for (let k = 0; k < count; k++) {
      places.push(k === count - 1 ? to : places[k] + ways[k]);
      const [nextX, nextY] = at(places[k + 1]);
      chords[k] = lengthOf(nextX - x, nextY - y);
      [x, y] = [nextX, nextY];
    }
    const [shortest, longest] = [Math.min(...chords), Math.max(...chords)];
    const mean = chords.reduce((sum, chord) => sum + chord, 0) / count;
    if (round === ROUNDS || longest - shortest <= EVEN * mean) return { places, shortest, mean };
    let sum = 0;
    for (let k = 0; k < count; k++) {
      ways[k] *= chords[k] > 0 ? mean / chords[k] : 1;
      sum += ways[k];
    }
    for (let k = 0; k < count; k++) ways[k] *= (to - from) / sum;
  }
}
