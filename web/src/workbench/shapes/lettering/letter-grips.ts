// Grips of a line of lettering: where they are, and what dragging one makes of the line.
import { boundsOfAll, lengthOf } from "@plain-palette/core/geometry";
import { arcThrough, type Baseline, type Lettering, type Stand } from "@plain-palette/core/lettering";
import type { Frame, Point } from "@plain-palette/core/raster";
import { LETTERING_LIMITS, type LetteringEntry } from "@plain-palette/core/recipe";
import type { LetteringView } from "../../../compute/messages.ts";
import type { GripKind, LetteringDrag } from "./lettering-desk.ts";
import { baselineToEntry, perPrepared, toClient, wayToClient } from "./places.ts";

export interface Grip extends Point {
  readonly kind: GripKind;
}

export const GRIP_WORDS: Readonly<Record<GripKind, string>> = {
  turn: "Turn",
  size: "Size",
  width: "Width",
  slant: "Slant",
  bend: "Bend",
  spacing: "Between letters",
  leading: "Between lines",
  outline: "Line round them",
  shadow: "Shadow",
  "letter-turn": "Turn the letter",
  "letter-size": "Size of the letter",
};

/** Above the capitals, and off the ends, in cap heights. */
const SLANT_UP = 1.45;
const BEND_DOWN = 0.5;
const OFF_END = 0.45;

/** A place beside a stand: along the line, and up from it. */
const beside = ({ x, y, cos, sin }: Stand, along: number, up: number): Point => ({
  x: x + cos * along + sin * up,
  y: y + sin * along - cos * up,
});

/** What a line of lettering, or the letter of it that is picked, can be taken hold of by. */
export function gripsOf({ set, baselines, letters, dress }: LetteringView, letter: number | null): Grip[] {
  const picked = letters.find(({ at }) => at === letter);
  if (picked) return letterGrips(picked);
  const [first] = baselines;
  const [start, middle, end] = [first?.[0], first?.[first.length >> 1], first?.at(-1)];
  const last = baselines.at(-1)?.[0];
  if (!start || !middle || !end || !last) return [];
  const cap = set.capHeight;
  const isFree = set.baseline.kind === "line";
  return [
    ...(isFree ? [{ kind: "turn" as const, ...beside(start, -OFF_END * cap, cap / 2) }] : []),
    { kind: "size", ...beside(end, 0, cap) },
    { kind: "width", ...beside(end, 0, cap / 2) },
    { kind: "spacing", ...beside(end, 0, 0) },
    { kind: "slant", ...beside(middle, Math.tan((set.slantDeg * Math.PI) / 180) * SLANT_UP * cap, SLANT_UP * cap) },
    ...(isFree ? [{ kind: "bend" as const, ...beside(middle, 0, -BEND_DOWN * cap) }] : []),
    ...(baselines.length > 1 ? [{ kind: "leading" as const, ...beside(last, -OFF_END * cap, 0) }] : []),
    ...(dress.outline ? [{ kind: "outline" as const, ...beside(start, 0, cap + dress.outline.width) }] : []),
    ...(dress.shadow ? [{ kind: "shadow" as const, x: start.x + dress.shadow.dx, y: start.y + dress.shadow.dy }] : []),
  ];
}

/** At the corner of the letter's box, and above it. */
function letterGrips({ paths }: LetteringView["letters"][number]): Grip[] {
  if (paths.length === 0) return [];
  const { left, top, right, bottom } = boundsOfAll(paths);
  return [
    { kind: "letter-size", x: right, y: top },
    { kind: "letter-turn", x: (left + right) / 2, y: top - (bottom - top) * 0.35 },
  ];
}

function middleOfLetter({ letters }: LetteringView, at: number | null): Point {
  const { left, top, right, bottom } = boundsOfAll(letters.find((one) => one.at === at)?.paths ?? []);
  return { x: (left + right) / 2, y: (top + bottom) / 2 };
}

const clamp = (value: number, { min, max }: { min: number; max: number }) => Math.min(max, Math.max(min, value));
const tenth = (value: number) => Math.round(value * 10) / 10;

/** The entry as a drag makes it. */
export function dragged(
  { from, to, holds }: LetteringDrag,
  frame: Frame,
  letter: number | null,
): LetteringEntry | null {
  if (holds.kind === "box" || holds.kind === "loop") return null;
  const { entry, view } = holds;
  const { set, baselines } = view;
  const anchor = anchorOf(view);
  const along = (at: Point) => (at.x - anchor.x) * anchor.cos + (at.y - anchor.y) * anchor.sin;
  const up = (at: Point) => (at.x - anchor.x) * anchor.sin - (at.y - anchor.y) * anchor.cos;
  const put = (baseline: Baseline) => ({ ...entry, baseline: baselineToEntry(baseline, frame) });
  switch (holds.kind) {
    case "line":
      return moved(entry, set, to.x - from.x, to.y - from.y, frame);
    case "letter":
      return letter === null ? entry : nudged(entry, view, letter, { dx: to.x - from.x, dy: to.y - from.y });
    case "letter-turn": {
      const middle = middleOfLetter(view, letter);
      const turnDeg = ((angle(middle, to) - angle(middle, from)) * 180) / Math.PI;
      return letter === null ? entry : nudged(entry, view, letter, { turnDeg });
    }
    case "letter-size": {
      const middle = middleOfLetter(view, letter);
      const far = (at: Point) => lengthOf(at.x - middle.x, at.y - middle.y);
      return letter === null ? entry : nudged(entry, view, letter, { factor: far(to) / (far(from) || 1) });
    }
    case "outline": {
      const { outline } = entry;
      const by = (up(to) - up(from)) * perPrepared(frame, anchor);
      return outline && { ...entry, outline: { ...outline, widthPx: Math.max(0.02, outline.widthPx + by) } };
    }
    case "shadow": {
      const { shadow } = entry;
      const way = wayToClient(frame, anchor, to.x - from.x, to.y - from.y);
      return shadow && { ...entry, shadow: { ...shadow, dx: shadow.dx + way.x, dy: shadow.dy + way.y } };
    }
    case "turn": {
      if (set.baseline.kind !== "line") return null;
      const by = angle(anchor, to) - angle(anchor, from);
      const { along: way } = set.baseline;
      const [cos, sin] = [Math.cos(by), Math.sin(by)];
      return put({ ...set.baseline, along: { x: way.x * cos - way.y * sin, y: way.x * sin + way.y * cos } });
    }
    case "size": {
      const by = lengthOf(to.x - anchor.x, to.y - anchor.y) / (lengthOf(from.x - anchor.x, from.y - anchor.y) || 1);
      return { ...entry, capPx: Math.max(0.5, entry.capPx * by) };
    }
    case "width": {
      const by = along(to) / (along(from) || 1);
      return { ...entry, widthPercent: tenth(clamp(entry.widthPercent * by, LETTERING_LIMITS.widthPercent)) };
    }
    case "spacing": {
      const gaps = Math.max(1, view.letters.length - baselines.length);
      const share = set.align === "middle" ? 2 : 1;
      const by = (100 * share * (along(to) - along(from))) / gaps / set.capHeight;
      return { ...entry, letterSpacing: tenth(clamp(entry.letterSpacing + by, LETTERING_LIMITS.letterSpacing)) };
    }
    case "slant": {
      const tangent = Math.tan((set.slantDeg * Math.PI) / 180) + (along(to) - along(from)) / (SLANT_UP * set.capHeight);
      const deg = (Math.atan(tangent) * 180) / Math.PI;
      return { ...entry, slantDeg: tenth(clamp(deg, LETTERING_LIMITS.slantDeg)) };
    }
    case "leading": {
      const rows = baselines.length - 1;
      const by = (100 * (up(from) - up(to))) / rows / set.capHeight;
      return { ...entry, lineSpacing: Math.round(clamp(entry.lineSpacing + by, LETTERING_LIMITS.lineSpacing)) };
    }
    case "bend":
      return bent(entry, view, up(to) - up(from), frame);
  }
}

const angle = (about: Point, { x, y }: Point) => Math.atan2(y - about.y, x - about.x);

/** Where the first line is anchored. */
function anchorOf({ set, baselines }: LetteringView): Stand {
  const row = baselines[0] ?? [];
  const at = { left: 0, middle: row.length >> 1, right: row.length - 1 }[set.align];
  return row[at] ?? { x: 0, y: 0, cos: 1, sin: 0 };
}

/** Moved on the table; along its curve, where it stands on one. */
export function moved(entry: LetteringEntry, set: Lettering, dx: number, dy: number, frame: Frame): LetteringEntry {
  const { baseline } = set;
  if (baseline.kind === "line")
    return {
      ...entry,
      baseline: baselineToEntry({ ...baseline, at: { x: baseline.at.x + dx, y: baseline.at.y + dy } }, frame),
    };
  const { path } = baseline;
  const curve = entry.baseline.kind === "curve" ? entry.baseline.curve : [];
  const [from, to] = [
    toClient(frame, { x: path[0] ?? 0, y: path[1] ?? 0 }),
    toClient(frame, { x: (path[0] ?? 0) + dx, y: (path[1] ?? 0) + dy }),
  ];
  const shifted = curve.map((v, i) => v + (i % 2 === 0 ? to.x - from.x : to.y - from.y));
  return entry.baseline.kind === "curve" ? { ...entry, baseline: { ...entry.baseline, curve: shifted } } : entry;
}

/** The arc through both ends of the line and its middle, that much higher. */
function bent(
  entry: LetteringEntry,
  { set, baselines }: LetteringView,
  by: number,
  frame: Frame,
): LetteringEntry | null {
  const row = baselines[0] ?? [];
  const [start, middle, end] = [row[0], row[row.length >> 1], row.at(-1)];
  if (!start || !middle || !end) return null;
  const arc = arcThrough(start, beside(middle, 0, by), end);
  if (set.align === "middle" || arc.radius === null) {
    const at = arc.radius === null && set.align !== "middle" ? (set.align === "left" ? start : end) : arc.at;
    return { ...entry, baseline: baselineToEntry({ ...arc, at }, frame) };
  }
  // Anchored at an end: the direction there.
  const half = Math.asin(Math.min(1, lengthOf(end.x - start.x, end.y - start.y) / 2 / Math.abs(arc.radius)));
  const turn = half * Math.sign(arc.radius) * (set.align === "left" ? -1 : 1);
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const { x, y } = arc.along;
  const at = set.align === "left" ? start : end;
  return {
    ...entry,
    baseline: baselineToEntry({ ...arc, at, along: { x: x * cos - y * sin, y: x * sin + y * cos } }, frame),
  };
}

/** A letter put right: moved by a way on the table, turned and grown. */
export function nudged(
  entry: LetteringEntry,
  view: LetteringView,
  at: number,
  { dx = 0, dy = 0, turnDeg = 0, factor = 1 }: { dx?: number; dy?: number; turnDeg?: number; factor?: number },
): LetteringEntry {
  const letter = view.letters.find((one) => one.at === at);
  if (!letter) return entry;
  const before = entry.nudges.find((one) => one.at === at) ?? { at, right: 0, down: 0, angleDeg: 0, scale: 1 };
  const cap = view.set.capHeight;
  const share = (value: number) => Number((value / cap).toFixed(5));
  const next = {
    at,
    right: before.right + share(dx * letter.cos + dy * letter.sin),
    down: before.down + share(dy * letter.cos - dx * letter.sin),
    angleDeg: tenth((before.angleDeg + turnDeg) % 360),
    scale: Math.min(10, Math.max(0.1, Number((before.scale * factor).toFixed(4)))),
  };
  return { ...entry, nudges: [...entry.nudges.filter((one) => one.at !== at), next] };
}

/** Nudges of a text after it was typed on: letters before and after what changed keep theirs. */
export function carryNudges(before: string, after: string, nudges: LetteringEntry["nudges"]): LetteringEntry["nudges"] {
  let head = 0;
  while (head < before.length && head < after.length && before[head] === after[head]) head++;
  let tail = 0;
  const most = Math.min(before.length, after.length) - head;
  while (tail < most && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail++;
  return nudges.flatMap((one) => {
    if (one.at < head) return [one];
    return one.at >= before.length - tail ? [{ ...one, at: one.at + after.length - before.length }] : [];
  });
}

/** Client's pixels to a millimetre on the garment where a line stands. */
export function perMm(view: Pick<LetteringView, "set">, frame: Frame, mmPerPx: number): number {
  const { baseline } = view.set;
  const at = baseline.kind === "line" ? baseline.at : { x: baseline.path[0] ?? 0, y: baseline.path[1] ?? 0 };
  return perPrepared(frame, at) / mmPerPx;
}
