// Where old letters stand, roughly, whatever they are set in: the lines and arcs along which their ink lies in the sharpest
// rows (projection profiles, as scans of text are straightened; here for arcs, too).

import { lengthOf, mainDirection } from "../../geometry/index.ts";
import { turn } from "../../raster/index.ts";
import { degreesOf } from "./angles.ts";
import type { OldLetters } from "./old-letters.ts";

/** A way of reading the ink: bent straight, it lies in a box of a frame along a line of reading. Grid pixels. */
export interface Guess {
  /** Box of the ink, u along the line of reading, v down from it. */
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  /** From the frame to the grid: a place, the direction of reading there, and how much the line bends (1 / radius). */
  at(u: number, v: number): Anchor;
}

export interface Anchor {
  readonly x: number;
  readonly y: number;
  readonly cos: number;
  readonly sin: number;
  readonly bend: number;
}

/** Ink as places from its middle. */
interface Ink {
  readonly middleX: number;
  readonly middleY: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
}

/** A line of reading through the ink's middle; bend is 1 / radius, positive over a centre below. */
interface Reading {
  readonly cos: number;
  readonly sin: number;
  readonly deg: number;
  readonly bend: number;
}

/** Directions and bends that are looked at: degrees off the writing's own; the writing's length by the distance of its middle from the centre, which is nearer than its letters are. */
const MOST_DEG = 24;
const STEP_DEG = 3;
const MOST_BEND = 5.2;
const STEP_BEND = 0.13;
/** So many guesses are kept, none near another. */
const GUESSES = 3;
/** Writing that is less long than this, in its heights, has no direction of its own. */
const LONG = 1.6;
/** Ink is looked at in so many places. */
const MOST_PLACES = 1500;
/** Rows of the profile, in shares of a letter's height. */
const ROW_SHARE = 0.06;

/** The best guesses, and that it is straight and level. */
export function guessPlaces(old: OldLetters): Guess[] {
  const ink = inkOf(old, 1);
  const few = inkOf(old, Math.ceil(Math.sqrt(ink.x.length / MOST_PLACES)));
  const { deg, length } = directionOf(ink);
  const readings: (Reading & { sharpness: number })[] = [];
  for (let off = -MOST_DEG; off <= MOST_DEG; off += STEP_DEG)
    for (let share = -MOST_BEND; share <= MOST_BEND + 1e-9; share += STEP_BEND) {
      const bend = Math.abs(share) < STEP_BEND / 2 ? 0 : share / length;
      const reading = { ...turn(deg + off), deg: deg + off, bend };
      readings.push({ ...reading, sharpness: sharpnessOf(few, reading, old.letterHeight * ROW_SHARE) });
    }
  readings.sort((a, b) => b.sharpness - a.sharpness);
  const kept: Reading[] = [];
  for (const one of readings) {
    if (kept.length === GUESSES) break;
    const isNear = (other: Reading) =>
      Math.abs(other.deg - one.deg) < 2 * STEP_DEG && Math.abs(other.bend - one.bend) * length < 3 * STEP_BEND;
    if (!kept.some(isNear)) kept.push(one);
  }
  const level = { cos: 1, sin: 0, deg: 0, bend: 0 };
  return [...kept, level].map((reading) => guessAlong(ink, reading));
}

function inkOf({ cover, width, height }: OldLetters, step: number): Ink {
  const [x, y]: [number[], number[]] = [[], []];
  for (let row = 0; row < height; row += step)
    for (let column = 0; column < width; column += step)
      if (cover[row * width + column] >= 0.5) {
        x.push(column + 0.5);
        y.push(row + 0.5);
      }
  const mean = (values: readonly number[]) => values.reduce((sum, v) => sum + v, 0) / (values.length || 1);
  const [middleX, middleY] = [mean(x), mean(y)];
  return { middleX, middleY, x: Float64Array.from(x, (v) => v - middleX), y: Float64Array.from(y, (v) => v - middleY) };
}

/** The direction of long writing, to the right, and how long it is. */
function directionOf({ x, y }: Ink): { deg: number; length: number } {
  let [xx, xy, yy] = [0, 0, 0];
  x.forEach((v, i) => {
    xx += v * v;
    xy += v * y[i];
    yy += y[i] * y[i];
  });
  const [dx, dy] = mainDirection(xx, xy, yy);
  let [along, across] = [0, 0];
  x.forEach((v, i) => {
    along += (v * dx + y[i] * dy) ** 2;
    across += (y[i] * dx - v * dy) ** 2;
  });
  const length = Math.sqrt((12 * Math.max(along, across)) / (x.length || 1)) || 1;
  const isLong = along > across * LONG * LONG && Math.abs(dx) > Math.abs(dy) * 0.4;
  return { deg: isLong ? degreesOf(Math.abs(dx), dx > 0 ? dy : -dy) : 0, length };
}

/** How far below the line of reading a place lies. */
function below({ cos, sin, bend }: Reading, x: number, y: number): number {
  const down = y * cos - x * sin;
  if (bend === 0) return down;
  const radius = 1 / bend;
  const d = lengthOf(x * cos + y * sin, down - radius);
  return radius > 0 ? radius - d : radius + d;
}

/** Rows above and below the line of reading that are counted; what lies farther off falls into the last. */
const ROWS = 512;
const counts = new Int32Array(2 * ROWS + 1);

/** Sum of the squares of how much ink lies in each row. */
function sharpnessOf({ x, y }: Ink, reading: Reading, row: number): number {
  counts.fill(0);
  for (let i = 0; i < x.length; i++) {
    const k = Math.round(below(reading, x[i], y[i]) / row);
    counts[ROWS + Math.max(-ROWS, Math.min(ROWS, k))]++;
  }
  let sum = 0;
  for (let k = 0; k < counts.length; k++) sum += counts[k] * counts[k];
  return sum;
}

function guessAlong(ink: Ink, reading: Reading): Guess {
  const { cos, sin, bend } = reading;
  const radius = bend === 0 ? 0 : 1 / bend;
  const box = {
    left: Number.POSITIVE_INFINITY,
    right: Number.NEGATIVE_INFINITY,
    top: Number.POSITIVE_INFINITY,
    bottom: Number.NEGATIVE_INFINITY,
  };
  ink.x.forEach((px, i) => {
    const along = px * cos + ink.y[i] * sin;
    const v = below(reading, px, ink.y[i]);
    const away = (radius - (ink.y[i] * cos - px * sin)) * Math.sign(radius);
    const u = bend === 0 ? along : (degreesOf(away, along) * Math.PI * Math.abs(radius)) / 180;
    box.left = Math.min(box.left, u - 0.5);
    box.right = Math.max(box.right, u + 0.5);
    box.top = Math.min(box.top, v - 0.5);
    box.bottom = Math.max(box.bottom, v + 0.5);
  });
  return {
    ...box,
    at(u, v) {
      if (bend === 0) return { x: ink.middleX + u * cos - v * sin, y: ink.middleY + u * sin + v * cos, cos, sin, bend };
      const own = turn(reading.deg + ((u / radius) * 180) / Math.PI);
      const inner = radius - v;
      const [centreX, centreY] = [ink.middleX - sin * radius, ink.middleY + cos * radius];
      return { x: centreX + own.sin * inner, y: centreY - own.cos * inner, ...own, bend: 1 / inner };
    },
  };
}
