// The files of a job made with stones.

import { CUT_FILES, writeCutDrawing, writeHpgl } from "../cut/index.ts";
import { warnOfMissing } from "../labels/index.ts";
import type { Output, OutputFacts } from "../output/index.ts";
import type { Design, Outputs } from "../process/index.ts";
import type { HandLoss } from "./by-hand.ts";
import { writeCheckSheet } from "./check-sheet-pdf.ts";
import type { SetArea } from "./choose-areas.ts";
import { type CountedDesign, countOf, stoneName } from "./count-design.ts";
import type { StoneSettings } from "./settings.ts";
import type { Stone } from "./stones.ts";
import { writeStonesCsv } from "./stones-csv.ts";
import { layTemplates, planHoles } from "./templates.ts";

/** What is made of a design. */
export interface Stones {
  readonly stones: readonly Stone[];
  readonly areas: readonly Omit<SetArea, "columns">[];
  readonly widthMm: number;
  readonly heightMm: number;
  /** Entries that find no area: by id. */
  readonly lost: readonly string[];
  /** Entries by hand that change nothing. */
  readonly missed: readonly { readonly id: string; readonly why: HandLoss }[];
}

export function listStoneOutputs(
  made: Stones,
  design: CountedDesign & Pick<Design, "garment">,
  settings: StoneSettings,
  facts: OutputFacts,
): Outputs {
  const { stones, widthMm, heightMm } = made;
  const { split, isMirrored, formats } = settings.template;
  const nameOf = (spotId: string) => stoneName(design, spotId);
  const text = (name: string, mediaType: string, write: () => string): Output => ({
    ...{ name, mediaType },
    make: async () => new TextEncoder().encode(write()),
  });
  const templates = layTemplates(stones, { widthMm, heightMm }, split, isMirrored).flatMap((template) =>
    formats.map((format) =>
      text(`template-${template.name}.${CUT_FILES[format].ending}`, CUT_FILES[format].mediaType, () =>
        format === "hpgl" ? writeHpgl(planHoles(template)) : writeCutDrawing(format, template.drawing),
      ),
    ),
  );
  const checkSheet: Output = {
    name: "check-sheet.pdf",
    mediaType: "application/pdf",
    make: async (tell) => {
      tell(0, "Writing the check sheet");
      return writeCheckSheet({ made, design, nameOf, counts: countOf(made, design, settings) }, facts);
    },
  };
  const written = [facts.job, facts.client, ...design.spots.map(({ id }) => nameOf(id))].join("");
  const missing = warnOfMissing(written, facts.labelFont);
  return {
    outputs: [
      ...templates,
      text("stones.csv", "text/csv", () =>
        writeStonesCsv(stones, { job: facts.job, widthMm, heightMm, nameOf, spots: design.spots }),
      ),
      checkSheet,
    ],
    notes: missing ? [missing] : [],
  };
}
