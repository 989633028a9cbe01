// stitches.svg: thread as it lies, in millimetres, a group for each colour in the order of sewing.
import { formatHex } from "../colour/index.ts";
import { COMMANDS, type StitchPlan } from "./plan.ts";

/** Thread of 40 weight lies so wide, mm (common practice, no source). */
export const THREAD_MM = 0.4;
const DIGITS = 2;

export function writeStitchesSvg(plan: StitchPlan): string {
  const [width, height] = [plan.widthMm, plan.heightMm].map((mm) => Number(mm.toFixed(3)));
  const groups = threadRuns(plan).map(({ colour, lines }) => {
    const { spotId, rgb } = plan.colours[colour];
    const d = lines.map((line) => `M${line.map((mm) => Number(mm.toFixed(DIGITS))).join(" ")}`).join("");
    return `<g data-id="${spotId}" stroke="${formatHex(rgb)}"><path d="${d}"/></g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}" fill="none" stroke-width="${THREAD_MM}" stroke-linecap="round" stroke-linejoin="round">${groups.join("")}</svg>\n`;
}

/** Lines of thread between jumps, x, y, ..., by colour as it is threaded. */
export function threadRuns(plan: StitchPlan): { colour: number; lines: number[][] }[] {
  const runs: { colour: number; lines: number[][] }[] = [];
  let line: number[] | null = null;
  plan.command.forEach((code, i) => {
    if (COMMANDS[code] !== "stitch") {
      line = null;
      return;
    }
    const colour = plan.colour[i];
    if (runs.at(-1)?.colour !== colour) {
      runs.push({ colour, lines: [] });
      line = null;
    }
    if (!line) {
      line = [];
      runs.at(-1)?.lines.push(line);
    }
    line.push(plan.x[i], plan.y[i]);
  });
  return runs;
}
