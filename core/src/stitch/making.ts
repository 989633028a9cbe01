// How a design is made with stitches.
import { listAreas } from "../area/index.ts";
import { later } from "../later/index.ts";
import { defineMaking, type Work } from "../process/index.ts";
import type { Get, StepTable } from "../steps/index.ts";
import { chooseAreas } from "./choose-areas.ts";
import type { Stitches } from "./outputs.ts";
import { planStitches } from "./plan.ts";
import { portrayStitches } from "./portray-stitches.ts";
import { stitches } from "./process.ts";
import { type MeasuredArea, measureAreas } from "./propose-sewing.ts";
import { reportStitches } from "./report.ts";
import type { StitchSettings } from "./settings.ts";

const outputs = later(() => import("./outputs.ts"));

interface StitchResults {
  readonly areas: readonly MeasuredArea[];
  readonly plan: Stitches;
}

const STEPS: StepTable<StitchResults, Work<StitchSettings>> = {
  areas: {
    doing: "Measuring areas",
    weight: 6,
    part: "stitches",
    from: [],
    reads: ({ design: { spots, widthMm } }) => [spots, widthMm],
    compute: ({ design }) => measureAreas(listAreas(design), design.map),
  },
  plan: {
    doing: "Sewing",
    weight: 8,
    part: "stitches",
    from: ["areas"],
    reads: ({ design: { spots, widthMm, frame }, settings: { machine: _, hoop: __, ...settings } }) => [
      ...[spots, widthMm, frame],
      settings,
    ],
    compute: ({ design, settings }, get: Get<StitchResults>) => {
      const { areas, colours, lost } = chooseAreas(get("areas"), design, settings);
      const heightMm = (design.widthMm * design.map.height) / design.map.width;
      return {
        plan: planStitches(areas, colours, design.widthMm, heightMm),
        areas: areas.map(({ columns: _, ...area }) => area),
        lost,
      };
    },
  },
};

export const stitchesMaking = defineMaking({
  process: stitches,
  steps: STEPS,
  result: "plan",
  report: ({ design, settings }, made) => reportStitches(made, design, settings),
  outputs: async ({ design, settings }, made, facts) =>
    (await outputs()).listStitchOutputs(made, design, settings, facts),
  portray: (_, { plan }) => portrayStitches(plan),
});
