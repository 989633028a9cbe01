// The open plotter language (HP-GL; instructions from memory of its published reference: IN initialises, SP takes a pen, PA
// counts from the origin, PU and PD go with pen, or blade, up and down; 40 units to the millimetre, x to the right, y up; SI, DI and LB write a label, which the blade never does: pen 2).
import { trimNumber } from "../geometry/index.ts";
import { type CutPlan, overcutOf } from "./cut-plan.ts";

/** Units of the plotter language in a millimetre. */
export const UNITS_PER_MM = 40;
/** How far a cut goes on over its start, mm, so that the blade parts it wholly (common practice, no source). */
const OVERCUT_MM = 1;
/** Points in one instruction: older machines hold no longer ones. */
const MOST_POINTS = 32;

/** What ends a label; labels hold plain letters. */
const END_OF_LABEL = "\x03";
const NOT_IN_LABELS = /[^\x20-\x7e]/g;

/** Text of a plot: every contour begun with the blade up, closed, and cut on over its start; then what pen 2 writes. */
export function writeHpgl({ contours, words }: CutPlan): string {
  const out = ["IN;SP1;PA;"];
  for (const { points, kind } of contours) {
    const over = kind === "line" ? [] : overcutOf(points, OVERCUT_MM);
    const units = [...points, ...over].map((mm) => Math.round(mm * UNITS_PER_MM));
    const places: string[] = [];
    for (let i = 0; i < units.length; i += 2) {
      const place = `${units[i]},${units[i + 1]}`;
      if (place !== places.at(-1)) places.push(place);
    }
    out.push(`PU${places[0]};`);
    for (let i = 1; i < places.length; i += MOST_POINTS) out.push(`PD${places.slice(i, i + MOST_POINTS).join(",")};`);
  }
  if (words.length > 0) out.push("PU;SP2;");
  for (const { text, x, y, turnDeg, heightMm } of words) {
    const [run, rise] = turnDeg === 90 ? [0, 1] : [1, 0];
    // Sizes are in centimetres; a letter is as wide as two thirds of its height.
    const size = `SI${trimNumber(heightMm / 15, 3)},${trimNumber(heightMm / 10, 3)}`;
    const plain = text.replace(NOT_IN_LABELS, "");
    out.push(
      `PU${[x, y].map((mm) => Math.round(mm * UNITS_PER_MM)).join(",")};DI${run},${rise};${size};LB${plain}${END_OF_LABEL}`,
    );
  }
  out.push("PU;SP0;");
  return `${out.join("\n")}\n`;
}
