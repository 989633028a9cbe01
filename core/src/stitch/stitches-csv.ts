// Stitches as an open list: docs/formats.md describes it. Comment lines first, then a row for each command; mm from the design's
// middle, x right, y up.
import { formatHex } from "../colour/index.ts";
import { COMMANDS, type StitchPlan } from "./plan.ts";

/** Numbers are written to a hundredth of a millimetre: a tenth of what machines move. */
const DIGITS = 2;

/** What is said of the plan before its rows; `threads` are named in the order of its colours. */
export interface StitchListFacts {
  readonly job: string;
  readonly hoop: string;
  readonly threads: readonly string[];
}

export function writeStitchesCsv(plan: StitchPlan, { job, hoop, threads }: StitchListFacts): string {
  const size = [plan.widthMm, plan.heightMm].map((mm) => mm.toFixed(DIGITS)).join(" x ");
  const comments = [
    "Stitch list, millimetres from the middle of the design, x right, y up",
    `job: ${job}`,
    `size: ${size} mm`,
    `hoop: ${hoop}`,
    ...threads.map((thread, i) => `thread ${i + 1}: ${thread}`),
    ...plan.colours.map(({ spotId, rgb }, i) => `spot ${i + 1}: ${spotId} ${formatHex(rgb)}`),
  ].map((line) => `# ${line.replace(/\s+/g, " ")}`);
  const rows = Array.from(plan.command, (code, i) =>
    [
      i + 1,
      COMMANDS[code],
      place(plan.x[i] - plan.widthMm / 2),
      place(plan.heightMm / 2 - plan.y[i]),
      plan.colour[i] + 1,
    ].join(","),
  );
  return `${[...comments, "n,command,x_mm,y_mm,thread", ...rows].join("\n")}\n`;
}

/** No minus before a nought. */
function place(mm: number): string {
  const text = mm.toFixed(DIGITS);
  return Number(text) === 0 ? (0).toFixed(DIGITS) : text;
}
