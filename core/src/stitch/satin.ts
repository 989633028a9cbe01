// Satin: thread to and fro across a column, from rail to rail.
import { type Column, offsetOf } from "../area/index.ts";
import { lengthOf } from "../geometry/index.ts";
import { LEAST_STITCH_MM } from "./needle.ts";

/**
 * By how much a row or column is sewn longer than its area at an end, since thread pulls cloth together, mm: asked for at a
 * place PULL_LOOK_MM beyond the end.
 */
export type PullAt = (x: number, y: number) => number;
export const PULL_LOOK_MM = 0.4;

export interface SatinNumbers {
  /** From one needle point to the next on the same rail, the outer one in a bend, mm. */
  readonly spacingMm: number;
  readonly pullAt: PullAt;
  /** Wider, and a stitch across is parted. */
  readonly splitMm: number;
}

/**
 * On the inner rail of a bend: nearer than this share of the spacing, and a stitch is drawn short, by a share of the width. With
 * every other one short, those that are left lie as far apart as on the outer rail (from memory; larger shares our own).
 */
const CROWDED = 0.5;
const SHARES = [0, 0.3, 0.5, 0.7];
/** So many needle points back on the same rail are looked at. */
const LOOK_BACK = 5;
/** A column is sewn at least this wide: a stitch has to have a length. */
const LEAST_WIDTH_MM = LEAST_STITCH_MM + 0.1;
/** Towards a pointed end sewing stops where the column itself is narrower. */
const POINT_MM = 0.25;
/** Parted stitches go down at these shares of the way in turn, so that no groove comes of it (our own). */
const PARTED = [0, 0.33, -0.17, 0.17, -0.33];

/** Needle points of the column from one station to another, either way. */
export function sewSatin(column: Column, from: number, to: number, numbers: SatinNumbers): number[] {
  const out: number[] = [];
  const onRail: (readonly [number, number])[][] = [[], []];
  let [side, stitches] = [0, 0];
  eachRung(column, from, to, numbers.spacingMm / 2, (rung) => {
    const wide = widened(rung, numbers.pullAt);
    if (!wide) return;
    const [x, y, farX, farY, width] = side === 0 ? wide : [wide[2], wide[3], wide[0], wide[1], wide[4]];
    const near = onRail[side];
    const drawn = (share: number) => [x + share * (farX - x), y + share * (farY - y)] as const;
    const isFree = (share: number) =>
      near.every(([nx, ny]) => {
        const [px, py] = drawn(share);
        return lengthOf(px - nx, py - ny) >= CROWDED * numbers.spacingMm;
      });
    const shares = SHARES.filter((share) => width * (1 - share) > LEAST_WIDTH_MM);
    const needle = drawn(shares.find(isFree) ?? shares.at(-1) ?? 0);
    near.push(needle);
    if (near.length > LOOK_BACK) near.shift();
    part(out, needle, numbers.splitMm, stitches++);
    out.push(...needle);
    side = 1 - side;
  });
  return out;
}

/** A rung: ax, ay, bx, by. */
type Rung = readonly [number, number, number, number];

/** Visits rungs from one station to another, both included, wherever the outer rail has come on by `stepMm`. */
function eachRung(column: Column, from: number, to: number, stepMm: number, visit: (rung: Rung) => void): void {
  const { stations } = column;
  const step = from <= to ? 1 : -1;
  const rungAt = (k: number, t: number): Rung => {
    const [i, j] = [offsetOf(column, k), offsetOf(column, t > 0 ? k + step : k)];
    const at = (o: number) => stations[i + o] + t * (stations[j + o] - stations[i + o]);
    return [at(0), at(1), at(2), at(3)];
  };
  visit(rungAt(from, 0));
  let [passed, wanted] = [0, stepMm];
  for (let k = from; k !== to; k += step) {
    const more = advance(column, k, k + step);
    for (; passed + more >= wanted; wanted += stepMm) visit(rungAt(k, (wanted - passed) / more));
    passed += more;
  }
  if (passed > wanted - stepMm / 2) visit(rungAt(to, 0));
}

/** How far the outer of both rails comes on from one station to the next, square to the rung. */
function advance(column: Column, from: number, to: number): number {
  const { stations } = column;
  const [i, j] = [offsetOf(column, from), offsetOf(column, to)];
  const [rx, ry] = [
    stations[i + 2] - stations[i] + stations[j + 2] - stations[j],
    stations[i + 3] - stations[i + 1] + stations[j + 3] - stations[j + 1],
  ];
  const length = lengthOf(rx, ry) || 1;
  const onward = (o: number) =>
    Math.abs((stations[j + o] - stations[i + o]) * ry - (stations[j + o + 1] - stations[i + o + 1]) * rx) / length;
  return Math.max(onward(0), onward(2));
}

/** The ends of a rung, wider by the pull at both, and how wide that is; null at a point of the column. */
function widened([ax, ay, bx, by]: Rung, pullAt: PullAt): readonly [number, number, number, number, number] | null {
  const width = lengthOf(bx - ax, by - ay);
  if (width < POINT_MM) return null;
  const [ux, uy] = [(bx - ax) / width, (by - ay) / width];
  const a = pullAt(ax - ux * PULL_LOOK_MM, ay - uy * PULL_LOOK_MM);
  const b = pullAt(bx + ux * PULL_LOOK_MM, by + uy * PULL_LOOK_MM);
  // What would be too short for a stitch is widened to both sides.
  const more = Math.max(0, LEAST_WIDTH_MM - width - a - b) / 2;
  const [ahead, behind] = [a + more, b + more];
  return [ax - ux * ahead, ay - uy * ahead, bx + ux * behind, by + uy * behind, width + ahead + behind];
}

/** A stitch that would be too long goes down on its way. */
function part(out: number[], [x, y]: readonly [number, number], splitMm: number, turn: number): void {
  if (out.length === 0) return;
  const [fromX, fromY] = [out[out.length - 2], out[out.length - 1]];
  const parts = Math.ceil(lengthOf(x - fromX, y - fromY) / splitMm);
  const off = PARTED[turn % PARTED.length];
  for (let k = 1; k < parts; k++) {
    const t = (k + off) / parts;
    out.push(fromX + t * (x - fromX), fromY + t * (y - fromY));
  }
}

/** An open zigzag inside a column, `insetMm` from its rails, a turn every `spacingMm` along it. */
export function sewZigzag(column: Column, from: number, to: number, spacingMm: number, insetMm: number): number[] {
  const out: number[] = [];
  let side = 0;
  eachRung(column, from, to, spacingMm / 2, (rung) => {
    const narrow = widened(rung, () => -insetMm);
    if (!narrow) return;
    out.push(narrow[side * 2], narrow[side * 2 + 1]);
    side = 1 - side;
  });
  return out;
}
