// Stones that a person moved, added, took away or changed: each found again by its place after whatever came before.
import { measureLine } from "../area/index.ts";
import { lengthOf } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";
import { diameterOf } from "../trade/index.ts";
import { evenPlaces, lyingOn, onLine } from "./along.ts";
import type { HandEntry } from "./settings.ts";
import type { Row, Setting, Stone } from "./stones.ts";

/** Why an entry changes nothing. */
export const HAND_LOSSES = {
  gone: "finds no stone any more",
  room: "has no room without coming nearer than the least gap",
} as const;
export type HandLoss = keyof typeof HAND_LOSSES;

/** A stone is found by a place that is no farther from its middle than so many times its width: it may have moved (our own). */
const FOUND_SHARE = 0.75;
/** Looked for no farther than this, mm. */
const LOOK_MM = 6;
/** So many stones may give way to one: a wave that goes on has nowhere to go (our own). */
const MOST_PUSHES = 4000;
/** What gives way goes a little farther than it has to, mm: else stones in a crowd creep for ever (our own). */
const SLACK_MM = 0.03;
/** What numbers lose on the way, mm. */
const NOUGHT_MM = 1e-6;

/** Changes what is set, entry after entry; by id those that change nothing, and why. Places in entries become mm by `toMm`. */
export function applyByHand(
  setting: Setting,
  entries: readonly HandEntry[],
  gapMm: number,
  toMm: (place: Point) => Point,
): { id: string; why: HandLoss }[] {
  return entries.flatMap((entry) => {
    const why = entry.isOn ? applyEntry(setting, entry, gapMm, toMm) : null;
    return why ? [{ id: entry.id, why }] : [];
  });
}

function applyEntry(setting: Setting, entry: HandEntry, gapMm: number, toMm: (place: Point) => Point): HandLoss | null {
  if (entry.kind === "add") {
    const { size, spotId, givesWay } = entry;
    return put(setting, null, { ...toMm(entry.at), size, spotId, row: -1 }, givesWay);
  }
  const stone = stoneAt(setting, toMm(entry.at));
  if (!stone) return "gone";
  switch (entry.kind) {
    case "take":
      setting.take(stone);
      return null;
    case "move":
      return put(setting, stone, { ...stone, ...toMm(entry.to) }, entry.givesWay);
    case "change":
      return put(
        setting,
        stone,
        { ...stone, size: entry.size ?? stone.size, spotId: entry.spotId ?? stone.spotId },
        true,
      );
    case "shift":
      return shiftRow(setting, stone, (entry.halfGaps * gapMm) / 2);
    case "spread": {
      const last = stoneAt(setting, toMm(entry.to));
      return last && last !== stone ? spreadBetween(setting, stone, last) : "gone";
    }
  }
}

/** The stone at a place, or so near that it is meant. */
export function stoneAt(setting: Setting, { x, y }: Point): Stone | null {
  let [best, least]: [Stone | null, number] = [null, Number.POSITIVE_INFINITY];
  for (const stone of setting.near(x, y, LOOK_MM)) {
    const away = lengthOf(stone.x - x, stone.y - y);
    if (away < least && away <= FOUND_SHARE * diameterOf(stone.size)) [best, least] = [stone, away];
  }
  return best;
}

/** What was taken and set, to be taken back if it does not come out. */
class Attempt {
  private readonly done: { readonly before: Stone | null; readonly after: Stone | null }[] = [];

  constructor(private readonly setting: Setting) {}

  replace(before: Stone | null, after: Stone | null): void {
    if (before) this.setting.take(before);
    if (after) this.setting.set(after);
    this.done.push({ before, after });
  }

  takeBack(): void {
    for (const { before, after } of this.done.reverse()) {
      if (after) this.setting.take(after);
      if (before) this.setting.set(before);
    }
  }
}

/** One stone in place of another, or of none; others give way to it if they are to. */
function put(setting: Setting, before: Stone | null, after: Stone, givesWay: boolean): HandLoss | null {
  const attempt = new Attempt(setting);
  attempt.replace(before, after);
  const isDone = givesWay ? giveWay(setting, attempt, after) : setting.isFree(after.x, after.y, after.size, [after]);
  if (isDone) return null;
  attempt.takeBack();
  return "room";
}

/** Pushes what is too near to a stone away from it, and what is too near to that, and so on; the first stays where it is. */
function giveWay(setting: Setting, attempt: Attempt, first: Stone): boolean {
  const open = [first];
  for (let pushes = 0; open.length > 0; ) {
    const stone = open.shift() as Stone;
    // It may have been pushed on meanwhile.
    if (!setting.has(stone)) continue;
    for (const other of setting.near(stone.x, stone.y, LOOK_MM + diameterOf(stone.size))) {
      if (other === stone || !setting.has(stone)) continue;
      const wanted = (diameterOf(stone.size) + diameterOf(other.size)) / 2 + setting.leastMm;
      const away = lengthOf(other.x - stone.x, other.y - stone.y);
      if (away >= wanted - NOUGHT_MM) continue;
      if (++pushes > MOST_PUSHES) return false;
      // What was pushed against the first goes on beside it.
      const [from, to] = other === first ? [other, stone] : [stone, other];
      const [ux, uy] = away > 0 ? [(to.x - from.x) / away, (to.y - from.y) / away] : [1, 0];
      const pushed = { ...to, x: from.x + ux * (wanted + SLACK_MM), y: from.y + uy * (wanted + SLACK_MM) };
      attempt.replace(to, pushed);
      open.push(pushed);
    }
  }
  return true;
}

/** Moves all stones of a row along it. */
function shiftRow(setting: Setting, stone: Stone, byMm: number): HandLoss | null {
  const row: Row | undefined = setting.rows[stone.row];
  if (!row) return "gone";
  const whole = row.line.along[row.line.along.length - 1];
  const attempt = new Attempt(setting);
  const on = onLine(row);
  const moved = lyingOn(row, setting).flatMap(({ at, stone: one }) => {
    if (one.row !== stone.row) return [];
    const next = row.isClosed ? (at + byMm + whole) % whole : at + byMm;
    // Beyond a row's ends it goes on straight.
    const [x, y] = on(Math.min(whole, Math.max(0, next)));
    const over = next - Math.min(whole, Math.max(0, next));
    const [dx, dy] = over === 0 ? [0, 0] : endDirection(row, over > 0);
    return [{ one, after: { ...one, x: x + over * dx, y: y + over * dy } }];
  });
  for (const { one, after } of moved) attempt.replace(one, after);
  if (moved.every(({ after }) => setting.isFree(after.x, after.y, after.size, [after]))) return null;
  attempt.takeBack();
  return "room";
}

/** The way in which a row would go on at its end, or come at its beginning, pointing along it. */
function endDirection({ line: { points } }: Row, isEnd: boolean): readonly [number, number] {
  const n = points.length;
  if (n < 4) return [1, 0];
  const [ax, ay, bx, by] = isEnd
    ? [points[n - 4], points[n - 3], points[n - 2], points[n - 1]]
    : [points[0], points[1], points[2], points[3]];
  const length = lengthOf(bx - ax, by - ay) || 1;
  return [(bx - ax) / length, (by - ay) / length];
}

/** Stones between two come to lie evenly: along the row that both lie on, or straight from one to the other. */
function spreadBetween(setting: Setting, first: Stone, last: Stone): HandLoss | null {
  const straight = {
    line: measureLine([first.x, first.y, last.x, last.y]),
    ...{ isClosed: false, size: first.size, spotId: first.spotId, fixed: [] },
  };
  const rows = [first.row, last.row].flatMap((number) => setting.rows[number] ?? []);
  for (const row of [...rows, straight]) {
    const held = lyingOn(row, setting);
    const [from, to] = [first, last].map((stone) => held.find((one) => one.stone === stone)?.at);
    if (from === undefined || to === undefined) continue;
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    const whole = row.line.along[row.line.along.length - 1];
    const isRound = row.isClosed && high - low > whole / 2;
    const [start, end] = isRound ? [high, low + whole] : [low, high];
    const between = held
      .filter(({ at }) => (isRound ? at > high || at < low : at > low && at < high))
      .map(({ at, stone }) => ({ at: isRound && at < low ? at + whole : at, stone }))
      .sort((one, other) => one.at - other.at);
    const on = onLine(row);
    const { places } = evenPlaces(on, start, end, between.length + 1);
    const attempt = new Attempt(setting);
    const spread = between.map(({ stone }, k) => {
      const [x, y] = on(places[k + 1]);
      const after = { ...stone, x, y };
      attempt.replace(stone, after);
      return after;
    });
    if (spread.every((stone) => setting.isFree(stone.x, stone.y, stone.size, [stone]))) return null;
    attempt.takeBack();
    return "room";
  }
  return "gone";
}
