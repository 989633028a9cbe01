// The files of a job made with stitches.
import { warnOfMissing } from "../labels/index.ts";
import type { Output, OutputFacts } from "../output/index.ts";
import type { Design, Outputs } from "../process/index.ts";
import { writeAppliqueSvg } from "./applique-svg.ts";
import { countPlan } from "./count.ts";
import { chooseHoop } from "./hoop.ts";
import type { SewnArea, StitchPlan } from "./plan.ts";
import type { StitchSettings } from "./settings.ts";
import { writeStitchesCsv } from "./stitches-csv.ts";
import { writeStitchesSvg } from "./stitches-svg.ts";
import { writeWorksheet } from "./worksheet-pdf.ts";

/** What is made of a design. */
export interface Stitches {
  readonly plan: StitchPlan;
  /** Numbered as the plan's stitches name them. */
  readonly areas: readonly SewnArea[];
  /** Entries that find no area: by id. */
  readonly lost: readonly string[];
}

export function listStitchOutputs(
  { plan, areas }: Stitches,
  { stock }: Pick<Design, "stock">,
  settings: StitchSettings,
  facts: OutputFacts,
): Outputs {
  const hoop = chooseHoop(plan.widthMm, plan.heightMm, settings);
  const threadOf = (spotId: string) => {
    const thread = stock[spotId];
    return thread?.kind === "thread" ? `${thread.code} ${thread.name}` : null;
  };
  const threads = plan.colours.map(({ spotId, name }) => threadOf(spotId) ?? name);
  const missing = warnOfMissing([facts.job, facts.client, ...threads].join(""), facts.labelFont);
  const text = (name: string, mediaType: string, write: () => string): Output => ({
    ...{ name, mediaType },
    make: async () => new TextEncoder().encode(write()),
  });
  const cloth = writeAppliqueSvg(plan, areas);
  return {
    outputs: [
      text("stitches.csv", "text/csv", () =>
        writeStitchesCsv(plan, { job: facts.job, hoop: `${hoop.widthMm} x ${hoop.heightMm} mm`, threads }),
      ),
      text("stitches.svg", "image/svg+xml", () => writeStitchesSvg(plan)),
      ...(cloth === null ? [] : [text("applique.svg", "image/svg+xml", () => cloth)]),
      {
        name: "worksheet.pdf",
        mediaType: "application/pdf",
        make: () =>
          writeWorksheet({ plan, count: countPlan(plan, settings), hoop, threadOf, fabric: settings.fabric }, facts),
      },
    ],
    notes: missing ? [missing] : [],
  };
}
