// The open plotter language (HP-GL; instructions from memory of its published reference: IN initialises, SP takes a pen, PA
// counts from the origin, PU and PD go with pen, or blade, up and down; 40 units to the millimetre, x to the right, y up).
import { type CutPlan, overcutOf } from "./cut-plan.ts";

/** Units of the plotter language in a millimetre. */
export const UNITS_PER_MM = 40;
/** How far a cut goes on over its start, mm, so that the blade parts it wholly (common practice, no source). */
const OVERCUT_MM = 1;
/** Points in one instruction: older machines hold no longer ones. */
const MOST_POINTS = 32;

/** Text of a plot: every contour begun with the blade up, closed, and cut on over its start. */
export function writeHpgl({ contours }: CutPlan): string {
  const out = ["IN;SP1;PA;"];
  for (const { points } of contours) {
    const units = [...points, ...overcutOf(points, OVERCUT_MM)].map((mm) => Math.round(mm * UNITS_PER_MM));
    const places: string[] = [];
    for (let i = 0; i < units.length; i += 2) {
      const place = `${units[i]},${units[i + 1]}`;
      if (place !== places.at(-1)) places.push(place);
    }
    out.push(`PU${places[0]};`);
    for (let i = 1; i < places.length; i += MOST_POINTS) out.push(`PD${places.slice(i, i + MOST_POINTS).join(",")};`);
  }
  out.push("PU;SP0;");
  return `${out.join("\n")}\n`;
}
