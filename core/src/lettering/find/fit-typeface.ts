// A text in a typeface laid on old letters: place, direction, bend, size, width, slant and spacing by damped least squares
// (Levenberg 1944, Marquardt 1963) on the distances of its outlines from theirs.

import { type Bounds, boundsOfAll, mapPath } from "../../geometry/index.ts";
import { turn } from "../../raster/index.ts";
import type { Alignment } from "../alignment.ts";
import { type Stand, standsOn } from "../baseline.ts";
import { LEFT_OF_ANCHOR } from "../set-lines.ts";
import { degreesOf } from "./angles.ts";
import { coverPaths, overlapOf } from "./cover-paths.ts";
import type { Guess } from "./guess-places.ts";
import { distanceAt, type OldLetters } from "./old-letters.ts";
import type { SampledLetter, SampledText } from "./sample-text.ts";

/** How text lies on the grid. */
export interface Pose {
  /** The anchor of the first row. */
  readonly x: number;
  readonly y: number;
  readonly deg: number;
  /** 1 / radius; positive over a centre below. */
  readonly bend: number;
  /** An em, px. */
  readonly size: number;
  /** Shares of it: how wide letters are, how far their tops lean, what lies between them, and from row to row. */
  readonly width: number;
  readonly lean: number;
  readonly spacing: number;
  readonly leading: number;
  readonly align: Alignment;
}

export interface Fit {
  readonly pose: Pose;
  /** Area of what both cover by what either does, 0..1. */
  readonly overlap: number;
}

type Numbers = Omit<Pose, "align">;
const NAMES = ["x", "y", "deg", "bend", "size", "width", "lean", "spacing", "leading"] as const;

const DEG = 180 / Math.PI;
const STRAIGHT = 1e-6;

/** Where letters stand: the middle of the advance of each, and its direction. */
function standing(pose: Pose, { rows }: SampledText): (letter: SampledLetter) => Stand {
  const { x, y, deg, bend, size, width, spacing, leading, align } = pose;
  const { sin, cos } = turn(deg);
  const radius = Math.abs(bend) < STRAIGHT ? null : 1 / bend;
  const standOn = standsOn({ kind: "line", at: { x, y }, along: { x: cos, y: sin }, radius }, size);
  const lefts = rows.map((row) => (row.width * width + spacing * Math.max(0, row.letters - 1)) * LEFT_OF_ANCHOR[align]);
  return ({ row, index, middle }) =>
    standOn(size * (middle * width + spacing * index - lefts[row]), row * leading * size);
}

/** Every so many points; the rest would say the same. */
function residuals(pose: Pose, text: SampledText, old: OldLetters, step: number, out: Float64Array): number {
  const { size, width, lean } = pose;
  const standOf = standing(pose, text);
  let n = 0;
  for (const letter of text.letters) {
    const { x, y, sin, cos } = standOf(letter);
    const { points } = letter;
    for (let i = 0; i < points.length; i += 2 * step) {
      const u = size * (points[i] * width - points[i + 1] * lean);
      const v = size * points[i + 1];
      out[n++] = distanceAt(old, x + cos * u - sin * v, y + sin * u + cos * v);
    }
  }
  return n;
}

/** Steps that move letters by about as much, for derivatives. */
function stepsOf(pose: Pose, text: SampledText): Numbers {
  const half = Math.max(1, (Math.max(...text.rows.map(({ width }) => width)) * pose.size) / 2);
  const small = 0.25;
  return {
    x: small,
    y: small,
    deg: (small / half) * DEG,
    bend: (2 * small) / (half * half),
    size: (small * pose.size) / half,
    width: small / half,
    lean: small / pose.size,
    spacing: small / half,
    leading: small / pose.size,
  };
}

/** What text is usually like pulls, a little: px that a full share of it counts as. */
const PULL = { width: 1.2, lean: 1.2, spacing: 2.5 } as const;
/** Distances count less the larger they are, against this share of a letter's height: first and at the end. */
const LOOSE = 0.4;
const TIGHT = 0.06;

/** How many rounds, on every so many points. */
export interface Effort {
  readonly rounds: number;
  readonly step: number;
}

export interface Settled {
  readonly pose: Pose;
  /** How far its outlines lie off theirs; less is better, and the same for all that are settled alike. */
  readonly cost: number;
}

/** The pose from a first one on. */
export function settle(start: Pose, text: SampledText, old: OldLetters, { rounds, step }: Effort): Settled {
  let pose = start;
  let cost = Number.POSITIVE_INFINITY;
  const r = new Float64Array(text.count + text.letters.length);
  const moved = new Float64Array(r.length);
  const names = NAMES.filter((name) => name !== "leading" || text.rows.length > 1);
  const size = names.length;
  const jacobian = names.map(() => new Float64Array(r.length));
  let damping = 0.01;
  for (let round = 0; round < rounds; round++) {
    const scale = old.letterHeight * (round < rounds / 2 ? LOOSE : TIGHT);
    const n = residuals(pose, text, old, step, r);
    const steps = stepsOf(pose, text);
    names.forEach((name, k) => {
      residuals({ ...pose, [name]: pose[name] + steps[name] }, text, old, step, moved);
      for (let i = 0; i < n; i++) jacobian[k][i] = moved[i] - r[i];
    });
    const { matrix, right } = normalEquations(jacobian, r, n, scale);
    pull(matrix, right, pose, steps, names, n);
    cost = costOf(r, n, scale) + pullCost(pose, n);
    let isBetter = false;
    for (let tries = 0; tries < 4 && !isBetter; tries++) {
      const change = solve(matrix, right, size, damping);
      if (!change) return { pose, cost };
      const next = within({
        ...pose,
        ...Object.fromEntries(names.map((name, k) => [name, pose[name] - change[k] * steps[name]])),
      });
      residuals(next, text, old, step, moved);
      const then = costOf(moved, n, scale) + pullCost(next, n);
      isBetter = then < cost;
      if (isBetter) [pose, cost] = [next, then];
      damping = isBetter ? damping / 3 : damping * 8;
    }
    if (!isBetter && round >= rounds / 2) break;
  }
  return { pose, cost };
}

/** Robust cost: squares that level off (S. Geman & D. McClure 1985). */
function costOf(r: Float64Array, n: number, scale: number): number {
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const q = (r[i] / scale) ** 2;
    sum += q / (1 + q);
  }
  return sum * scale * scale;
}

function pullCost(pose: Pose, n: number): number {
  const { width, lean, spacing } = PULL;
  return n * 0.01 * ((width * (pose.width - 1)) ** 2 + (lean * pose.lean) ** 2 + (spacing * pose.spacing) ** 2);
}

function normalEquations(jacobian: readonly Float64Array[], r: Float64Array, n: number, scale: number) {
  const size = jacobian.length;
  const matrix = new Float64Array(size * size);
  const right = new Float64Array(size);
  for (let i = 0; i < n; i++) {
    const weight = 1 / (1 + (r[i] / scale) ** 2) ** 2;
    for (let a = 0; a < size; a++) {
      const wa = weight * jacobian[a][i];
      right[a] += wa * r[i];
      for (let b = 0; b <= a; b++) matrix[a * size + b] += wa * jacobian[b][i];
    }
  }
  for (let a = 0; a < size; a++) for (let b = a + 1; b < size; b++) matrix[a * size + b] = matrix[b * size + a];
  return { matrix, right };
}

function pull(
  matrix: Float64Array,
  right: Float64Array,
  pose: Pose,
  steps: Numbers,
  names: readonly (keyof Numbers)[],
  n: number,
): void {
  for (const name of ["width", "lean", "spacing"] as const) {
    const k = names.indexOf(name);
    const by = n * 0.01 * PULL[name] ** 2 * steps[name];
    matrix[k * names.length + k] += by * steps[name];
    right[k] += by * (pose[name] - (name === "width" ? 1 : 0));
  }
}

/** By elimination with row pivots; null where it cannot be told. */
function solve(matrix: Float64Array, right: Float64Array, size: number, damping: number): Float64Array | null {
  const m = matrix.slice();
  const v = right.slice();
  for (let k = 0; k < size; k++) m[k * size + k] *= 1 + damping;
  for (let k = 0; k < size; k++) {
    let pivot = k;
    for (let i = k + 1; i < size; i++) if (Math.abs(m[i * size + k]) > Math.abs(m[pivot * size + k])) pivot = i;
    if (Math.abs(m[pivot * size + k]) < 1e-12) return null;
    for (let j = 0; j < size; j++) [m[k * size + j], m[pivot * size + j]] = [m[pivot * size + j], m[k * size + j]];
    [v[k], v[pivot]] = [v[pivot], v[k]];
    for (let i = k + 1; i < size; i++) {
      const by = m[i * size + k] / m[k * size + k];
      for (let j = k; j < size; j++) m[i * size + j] -= by * m[k * size + j];
      v[i] -= by * v[k];
    }
  }
  for (let k = size - 1; k >= 0; k--) {
    for (let j = k + 1; j < size; j++) v[k] -= m[k * size + j] * v[j];
    v[k] /= m[k * size + k];
  }
  return v;
}

function within(pose: Pose): Pose {
  const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));
  const size = Math.max(4, pose.size);
  const most = 1 / size;
  return {
    ...pose,
    size,
    bend: clamp(pose.bend, -most, most),
    width: clamp(pose.width, 0.3, 3),
    lean: clamp(pose.lean, -0.7, 0.9),
    spacing: clamp(pose.spacing, -0.4, 1.5),
    leading: clamp(pose.leading, 0.3, 4),
  };
}

/** Rows stand so far below each other at first, in cap heights; the one row of most texts has none below it. */
const FIRST_LEADINGS = [1.25, 1.6, 2.1] as const;

/** Poses to begin with: the text's box on the ink's, by wider letters or by more room between them. */
export function startsFrom(guess: Guess, text: SampledText, align: Alignment): Pose[] {
  if (text.rows.length === 1) return startsAt(guess, text, align, 0);
  return FIRST_LEADINGS.flatMap((leading) => startsAt(guess, text, align, leading * text.capHeight));
}

function startsAt(guess: Guess, text: SampledText, align: Alignment, leading: number): Pose[] {
  const plain = boxOf(text, align, 1, 0, leading);
  const size = (guess.bottom - guess.top) / (plain.bottom - plain.top);
  const v = guess.top - plain.top * size;
  // The box is as wide as in the ink's middle; the baseline of an arch is shorter there.
  const [inMiddle, below] = [guess.at(0, 0).bend, guess.at(0, v).bend];
  const shorter = inMiddle === 0 ? 1 : inMiddle / below;
  const across = ((guess.right - guess.left) * shorter) / size;
  const start = (width: number, spacing: number): Pose => {
    const { left } = boxOf(text, align, width, spacing, leading);
    const { x, y, cos, sin, bend } = guess.at(guess.left - (left * size) / shorter, v);
    return { x, y, deg: degreesOf(cos, sin), bend, size, width, lean: 0, spacing, leading, align };
  };
  const letters = Math.max(...text.rows.map((row) => row.letters));
  const room = letters > 1 ? (across - (plain.right - plain.left)) / (letters - 1) : 0;
  const starts = [start(across / (plain.right - plain.left), 0)];
  if (Math.abs(room) > 0.03) starts.push(start(1, room));
  return starts.map(within);
}

/** Box of the outlines of text set straight, from its anchor, em. */
function boxOf({ rows }: SampledText, align: Alignment, width: number, spacing: number, leading: number): Bounds {
  const boxes = rows.map((row, k) => {
    const spaces = spacing * Math.max(0, row.letters - 1);
    const from = -(row.width * width + spaces) * LEFT_OF_ANCHOR[align];
    return [
      from + row.left * width,
      row.top + k * leading,
      from + row.right * width + spaces,
      row.bottom + k * leading,
    ];
  });
  return boundsOfAll(boxes);
}

/** How much of both is covered by both. */
export function measureOverlap(pose: Pose, text: SampledText, old: OldLetters): number {
  const { size, width, lean } = pose;
  const standOf = standing(pose, text);
  const paths = text.letters.flatMap((letter) => {
    const { x, y, sin, cos } = standOf(letter);
    return letter.paths.map((path) =>
      mapPath(path, (px, py) => {
        const u = size * (px * width - py * lean);
        const v = size * py;
        return [x + cos * u - sin * v, y + sin * u + cos * v];
      }),
    );
  });
  return overlapOf(coverPaths(paths, old.width, old.height).cover, old.cover);
}
