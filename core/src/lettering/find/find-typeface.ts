// Which typeface old letters are set in, and how: every one is laid on them, those that cover them best come first.

import type { CubicPath } from "../../geometry/index.ts";
import { turn } from "../../raster/index.ts";
import type { Typeface } from "../../typeface/index.ts";
import { ALIGNMENTS } from "../alignment.ts";
import type { Lettering } from "../set-lines.ts";
import { degreesOf } from "./angles.ts";
import { type Fit, measureOverlap, type Pose, settle, startsFrom } from "./fit-typeface.ts";
import { guessPlaces } from "./guess-places.ts";
import { layOutOld, type OldLetters } from "./old-letters.ts";
import { type SampledText, sampleText } from "./sample-text.ts";

/** A proposal: how to set the text, in the picture's pixels, and how well it covers the old letters, 0..1. */
export interface FoundTypeface {
  readonly id: string;
  readonly overlap: number;
  readonly lettering: Lettering;
}

/** Starts are tried roughly first, the best of them better, the best of these to the end: on every so many points, in so many rounds. */
const ROUGH = { rounds: 5, step: 5 };
const BETTER = { rounds: 10, step: 3, starts: 2 };
const FINE = { rounds: 6, step: 1 };

/** Old letters made ready, to try one typeface after another; null where nothing is marked. Paths are the picture's. */
export function tryOn(
  paths: readonly CubicPath[],
  text: string,
): ((typeface: Typeface) => FoundTypeface | null) | null {
  const old = layOutOld(paths, [...text.replace(/\s/g, "")].length);
  if (!old) return null;
  const guesses = guessPlaces(old);
  return (typeface) => {
    const sampled = sampleText(text, typeface);
    if (!sampled) return null;
    const aligns = sampled.rows.length > 1 ? ALIGNMENTS : (["middle"] as const);
    const starts = guesses.flatMap((guess) => aligns.flatMap((align) => startsFrom(guess, sampled, align)));
    const [best] = starts
      .map((start) => settle(start, sampled, old, ROUGH))
      .sort((a, b) => a.cost - b.cost)
      .slice(0, BETTER.starts)
      .map(({ pose }) => settle(pose, sampled, old, BETTER))
      .sort((a, b) => a.cost - b.cost)
      .slice(0, 1)
      .map(({ pose }) => measured(settle(pose, sampled, old, FINE).pose, sampled, old));
    if (!best) return null;
    return { id: typeface.id, overlap: best.overlap, lettering: letteringOf(best.pose, text, typeface, sampled, old) };
  };
}

function measured(pose: Pose, text: SampledText, old: OldLetters): Fit {
  return { pose, overlap: measureOverlap(pose, text, old) };
}

/** From the grid's pixels to the picture's. */
function letteringOf(
  pose: Pose,
  text: string,
  typeface: Typeface,
  sampled: SampledText,
  { scale, left, top }: OldLetters,
): Lettering {
  const { sin, cos } = turn(pose.deg);
  const capHeight = (pose.size * typeface.capHeight) / scale;
  const percent = 100 / typeface.capHeight;
  return {
    text,
    baseline: {
      kind: "line",
      at: { x: pose.x / scale + left, y: pose.y / scale + top },
      along: { x: cos, y: sin },
      radius: isFlat(pose, sampled) ? null : 1 / (pose.bend * scale),
    },
    capHeight,
    widthPercent: pose.width * 100,
    slantDeg: degreesOf(1, pose.lean),
    letterSpacing: pose.spacing * percent,
    lineSpacing: text.includes("\n") ? pose.leading * percent : 160,
    align: pose.align,
    nudges: [],
  };
}

/** Rising by less than this share of an em from end to middle, an arc is a line that was not quite met. */
const FLAT_EMS = 0.012;

function isFlat({ bend, size, width, spacing }: Pose, { rows }: SampledText): boolean {
  const ems = Math.max(...rows.map((row) => row.width * width + spacing * Math.max(0, row.letters - 1)));
  return Math.abs(bend) * size * ems * ems < 8 * FLAT_EMS;
}
