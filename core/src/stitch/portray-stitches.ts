// Thread as it is seen: its lines, in the order of sewing.
import { formatHex } from "../colour/index.ts";
import type { PicturePart, Portrait } from "../process/index.ts";
import { COMMANDS, type StitchPlan } from "./plan.ts";
import { THREAD_MM, threadRuns } from "./stitches-svg.ts";

const DIGITS = 2;

export function portrayStitches(plan: StitchPlan): Portrait {
  const parts = threadRuns(plan).map(({ colour, lines }): PicturePart => {
    const d = lines.map((line) => `M${line.map((mm) => Number(mm.toFixed(DIGITS))).join(" ")}`).join("");
    return { kind: "thread", hex: formatHex(plan.colours[colour].rgb), widthMm: THREAD_MM, d };
  });
  const stitches = plan.command.filter((code) => COMMANDS[code] === "stitch").length;
  return { parts, counts: [`${stitches} stitches`] };
}
