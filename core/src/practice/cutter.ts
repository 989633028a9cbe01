// A roll cutter that does what a file says: where its blade is at any time, and what a person at it would see go wrong.
import type { Plot, Stroke } from "./read-plot.ts";

/** Something wrong with a cut, and where, mm. */
export interface CutFault {
  readonly kind: "open" | "doubled" | "off the roll" | "not understood";
  readonly text: string;
  readonly x: number;
  readonly y: number;
}

/** The machine: how far across its roll goes, and how fast its blade is. */
export interface Cutter {
  /** Across, y; null: as wide as need be. */
  readonly rollWidthMm: number | null;
  readonly cutMmPerS: number;
  readonly travelMmPerS: number;
  readonly liftS: number;
}

export const USUAL_CUTTER: Cutter = { rollWidthMm: null, cutMmPerS: 200, travelMmPerS: 400, liftS: 0.25 };

/** A way of the tool, straight, with when it begins and ends. */
export interface Move {
  readonly fromS: number;
  readonly toS: number;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  /** 0: lifted; else the tool that is down. */
  readonly tool: number;
}

/** What does not close by more than this was not cut through, mm; and lines nearer than this are one line cut twice. */
const CLOSED_MM = 0.1;
const DOUBLED_MM = 0.1;
/** Cutting on over a contour's start by up to this is meant, mm. */
const OVERCUT_MM = 1.6;
/** A line that another follows for less than this only crosses or touches it, mm. */
const FOLLOWS_MM = 2;
/** Lines follow each other if they run within this of the same way (cosine of 8 degrees). */
const SAME_WAY = 0.99;
/** What a file may be off the roll by rounding, mm. */
const EDGE_MM = 0.05;
const CELL_MM = 2;

/** All ways of the tool in turn. */
export function playPlot({ strokes }: Plot, { cutMmPerS, travelMmPerS, liftS }: Cutter): Move[] {
  const moves: Move[] = [];
  let [time, x, y] = [0, 0, 0];
  const go = (x1: number, y1: number, tool: number) => {
    const length = Math.hypot(x1 - x, y1 - y);
    const toS = time + length / (tool === 0 ? travelMmPerS : cutMmPerS);
    moves.push({ fromS: time, toS, x0: x, y0: y, x1, y1, tool });
    [time, x, y] = [toS, x1, y1];
  };
  for (const { points, tool } of strokes) {
    go(points[0] ?? 0, points[1] ?? 0, 0);
    time += liftS;
    for (let i = 2; i + 1 < points.length; i += 2) go(points[i] ?? 0, points[i + 1] ?? 0, tool);
  }
  return moves;
}

/** Cuts that do not close, are made twice, or leave the roll, in the order in which the blade comes to them. */
export function findFaults(plot: Plot, cutter: Cutter): CutFault[] {
  const cuts = plot.strokes.filter(({ tool }) => tool === 1);
  return [
    ...plot.unknown.map((name): CutFault => ({ kind: "not understood", text: `no instruction ${name}`, x: 0, y: 0 })),
    ...cuts.flatMap(openIn),
    ...doubledIn(cuts),
    ...cuts.flatMap((cut) => offRollIn(cut, cutter)),
  ];
}

/** The points of a stroke up to where it is back at its start, whether it cuts on over that or not; null: it never is. */
export function ringOf({ points }: Stroke): readonly number[] | null {
  const [x0 = 0, y0 = 0] = points;
  let isAway = false;
  for (let i = 2; i + 1 < points.length; i += 2) {
    const [ax = 0, ay = 0, bx = 0, by = 0] = points.slice(i - 2, i + 2);
    if (isAway && i > 4 && distanceTo(x0, y0, ax, ay, bx, by) <= CLOSED_MM) return points.slice(0, i);
    if (Math.hypot(bx - x0, by - y0) > CLOSED_MM) isAway = true;
  }
  return null;
}

/** One straight cut parts waste; anything else that does not close was meant to. */
function openIn(cut: Stroke): CutFault[] {
  const { points } = cut;
  if (points.length <= 4 || ringOf(cut)) return [];
  const [x = 0, y = 0] = points;
  const gap = Math.hypot((points.at(-2) ?? 0) - x, (points.at(-1) ?? 0) - y);
  return [{ kind: "open", text: `a contour stays open by ${gap.toFixed(2)} mm`, x, y }];
}

function offRollIn({ points }: Stroke, { rollWidthMm }: Cutter): CutFault[] {
  for (let i = 0; i + 1 < points.length; i += 2) {
    const [x = 0, y = 0] = points.slice(i, i + 2);
    const over = Math.max(-x, -y, rollWidthMm === null ? 0 : y - rollWidthMm);
    if (over > EDGE_MM) return [{ kind: "off the roll", text: `${over.toFixed(1)} mm off the roll`, x, y }];
  }
  return [];
}

interface Side {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly length: number;
  readonly stroke: number;
  /** How far along its stroke it begins, mm, and how long that is. */
  readonly along: number;
  readonly whole: number;
}

/** Places where a cut runs along another, or along itself beyond its overcut: one for each stroke that does. */
function doubledIn(cuts: readonly Stroke[]): CutFault[] {
  const sides = cuts.flatMap(sidesOf);
  const cells = new Map<string, Side[]>();
  for (const side of sides)
    eachCell(side, (key) => {
      const cell = cells.get(key);
      if (cell) cell.push(side);
      else cells.set(key, [side]);
    });
  const followed = new Map<number, { length: number; x: number; y: number }>();
  for (const side of sides) {
    const [x, y] = [(side.x0 + side.x1) / 2, (side.y0 + side.y1) / 2];
    const near = cells.get(keyOf(x, y)) ?? [];
    if (!near.some((other) => isBefore(other, side) && runsAlong(side, other, x, y))) continue;
    const sum = followed.get(side.stroke) ?? { length: 0, x, y };
    sum.length += side.length;
    followed.set(side.stroke, sum);
  }
  return [...followed.values()]
    .filter(({ length }) => length > FOLLOWS_MM)
    .map(({ length, x, y }) => ({ kind: "doubled", text: `a line is cut twice over ${length.toFixed(1)} mm`, x, y }));
}

/** Whether a side was cut before another, and is not what that one cuts over on purpose at its own start. */
function isBefore(other: Side, side: Side): boolean {
  if (other.stroke !== side.stroke) return other.stroke < side.stroke;
  const isOvercut = side.whole - side.along < OVERCUT_MM && other.along < OVERCUT_MM;
  return !isOvercut && side.along - other.along > FOLLOWS_MM;
}

function runsAlong(side: Side, other: Side, x: number, y: number): boolean {
  const cosine =
    ((side.x1 - side.x0) * (other.x1 - other.x0) + (side.y1 - side.y0) * (other.y1 - other.y0)) /
    (side.length * other.length);
  return Math.abs(cosine) > SAME_WAY && distanceTo(x, y, other.x0, other.y0, other.x1, other.y1) < DOUBLED_MM;
}

/** A stroke's sides, parted so that none is longer than a cell. */
function sidesOf({ points }: Stroke, stroke: number): Side[] {
  const sides: Omit<Side, "whole">[] = [];
  let along = 0;
  for (let i = 2; i + 1 < points.length; i += 2) {
    const [x0 = 0, y0 = 0, x1 = 0, y1 = 0] = points.slice(i - 2, i + 2);
    const length = Math.hypot(x1 - x0, y1 - y0);
    const parts = Math.ceil(length / (CELL_MM / 2));
    for (let k = 0; k < parts; k++) {
      const at = (t: number) => [x0 + (x1 - x0) * t, y0 + (y1 - y0) * t] as const;
      const [[ax, ay], [bx, by]] = [at(k / parts), at((k + 1) / parts)];
      sides.push({ x0: ax, y0: ay, x1: bx, y1: by, length: length / parts, stroke, along });
      along += length / parts;
    }
  }
  return sides.map((side) => ({ ...side, whole: along }));
}

const keyOf = (x: number, y: number) => `${Math.floor(x / CELL_MM)} ${Math.floor(y / CELL_MM)}`;

/** Cells that a side lies in or near. */
function eachCell({ x0, y0, x1, y1 }: Side, visit: (key: string) => void): void {
  const keys = new Set<string>();
  for (const x of [Math.min(x0, x1) - DOUBLED_MM, Math.max(x0, x1) + DOUBLED_MM])
    for (const y of [Math.min(y0, y1) - DOUBLED_MM, Math.max(y0, y1) + DOUBLED_MM]) keys.add(keyOf(x, y));
  for (const key of keys) visit(key);
}

function distanceTo(x: number, y: number, x0: number, y0: number, x1: number, y1: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0];
  const length2 = dx * dx + dy * dy;
  const t = length2 > 0 ? Math.min(1, Math.max(0, ((x - x0) * dx + (y - y0) * dy) / length2)) : 0;
  return Math.hypot(x - x0 - t * dx, y - y0 - t * dy);
}
