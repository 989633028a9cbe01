// Lettering: lines of text set on a baseline, as outlines of letters at their places.

import { type CubicPath, mapPath } from "../geometry/index.ts";
import { turn } from "../raster/index.ts";
import { type Letter, shapeText, type Typeface } from "../typeface/index.ts";
import type { Alignment } from "./alignment.ts";
import { type Baseline, type Stand, type StandOn, standsOn } from "./baseline.ts";

/** A letter put right by hand. Lengths are shares of the cap height, along its line and down from it. */
export interface Nudge {
  /** Where in the text the letter begins. */
  readonly at: number;
  readonly right: number;
  readonly down: number;
  readonly angleDeg: number;
  readonly scale: number;
}

/** What lettering is set like; lengths are in the baseline's unit. */
export interface Lettering {
  readonly text: string;
  readonly baseline: Baseline;
  readonly capHeight: number;
  readonly widthPercent: number;
  /** Leaning to the right. */
  readonly slantDeg: number;
  /** Between letters, and from line to line, percent of the cap height. */
  readonly letterSpacing: number;
  readonly lineSpacing: number;
  readonly align: Alignment;
  readonly nudges: readonly Nudge[];
}

/** From a letter's own frame to the picture. */
export type Placing = (x: number, y: number) => readonly [number, number];

export interface SetLetter {
  readonly at: number;
  readonly text: string;
  readonly paths: readonly CubicPath[];
  /** The same in its own frame, with what it depends on as a text, and where that stands. */
  readonly shape: readonly CubicPath[];
  readonly key: string;
  readonly place: Placing;
  /** Where the middle of its advance stands, before it was nudged. */
  readonly stand: Stand;
  readonly advance: number;
}

/** A line of it, from its left end to its right end along the baseline, from the anchor. */
export interface SetLine {
  readonly from: number;
  readonly to: number;
  readonly drop: number;
}

export interface SetLettering {
  readonly letters: readonly SetLetter[];
  readonly lines: readonly SetLine[];
  /** What the typeface does not carry. */
  readonly missing: readonly string[];
  readonly standOn: StandOn;
}

interface Sizes extends Pick<Lettering, "slantDeg" | "capHeight"> {
  /** Heights and widths of an em. */
  readonly em: number;
  readonly stretch: number;
}

/** Where the first letter of a line begins: of its width, so much lies left of the anchor. */
export const LEFT_OF_ANCHOR: Readonly<Record<Alignment, number>> = { left: 0, middle: 0.5, right: 1 };

/** Sets lines of text; letters come in the order of lines, each from left to right. */
export function setLettering(lettering: Lettering, typeface: Typeface): SetLettering {
  const { text, capHeight, baseline, lineSpacing, align } = lettering;
  const standOn = standsOn(baseline, capHeight);
  const em = capHeight / typeface.capHeight;
  const stretch = (em * lettering.widthPercent) / 100;
  const spacing = (capHeight * lettering.letterSpacing) / 100;
  const missing = new Set<string>();
  const letters: SetLetter[] = [];
  const lines: SetLine[] = [];
  let at = 0;
  for (const [row, line] of text.split("\n").entries()) {
    const shaped = shapeText(line, typeface, spacing === 0);
    for (const one of shaped.missing) missing.add(one);
    const width = shaped.width * stretch + spacing * Math.max(0, shaped.letters.length - 1);
    const from = -width * LEFT_OF_ANCHOR[align];
    const drop = (row * capHeight * lineSpacing) / 100;
    lines.push({ from, to: from + width, drop });
    for (const [k, letter] of shaped.letters.entries()) {
      const advance = letter.advance * stretch;
      const stand = standOn(from + letter.x * stretch + k * spacing + advance / 2, drop);
      const nudge = lettering.nudges.find((one) => one.at === at + letter.at);
      const scale = nudge?.scale ?? 1;
      const place = placing(capHeight, stand, nudge);
      const shape = shapeOf(letter, typeface, { ...lettering, stretch, em }, scale);
      const paths = shape.map((path) => mapPath(path, place));
      const key = JSON.stringify([typeface.id, letter.glyphs, em, stretch, lettering.slantDeg, scale]);
      letters.push({ at: at + letter.at, text: letter.text, paths, shape, key, place, stand, advance });
    }
    at += line.length + 1;
  }
  return { letters, lines, missing: [...missing], standOn };
}

/** A letter's outlines from its left end on the baseline, em. */
export function outlinesOf({ glyphs }: Letter, typeface: Typeface): CubicPath[] {
  return glyphs.flatMap(({ file, id, x, y }) =>
    typeface.outline(file, id).map((path) => (x === 0 && y === 0 ? path : mapPath(path, (px, py) => [px + x, py + y]))),
  );
}

/** A letter's outlines in its own frame: from the middle of its advance on the baseline, as wide, slanted and large as it is. */
function shapeOf(letter: Letter, typeface: Typeface, { slantDeg, capHeight, stretch, em }: Sizes, scale: number) {
  const lean = turn(slantDeg);
  const shear = (lean.sin / lean.cos) * em;
  const half = (letter.advance * stretch) / 2;
  const middle = -capHeight / 2;
  return outlinesOf(letter, typeface).map((path) =>
    mapPath(path, (x, y) => [(x * stretch - half - y * shear) * scale, (y * em - middle) * scale + middle]),
  );
}

/** From a letter's own frame to where it stands: turned about its middle and moved, no more. */
function placing(capHeight: number, stand: Stand, nudge: Nudge | undefined): Placing {
  if (!nudge) return (x, y) => [stand.x + stand.cos * x - stand.sin * y, stand.y + stand.sin * x + stand.cos * y];
  const { sin, cos } = turn(nudge.angleDeg);
  const middle = -capHeight / 2;
  return (x, y) => {
    const u = x * cos - (y - middle) * sin + nudge.right * capHeight;
    const v = x * sin + (y - middle) * cos + middle + nudge.down * capHeight;
    return [stand.x + stand.cos * u - stand.sin * v, stand.y + stand.sin * u + stand.cos * v];
  };
}
