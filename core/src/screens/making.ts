// How a design is made with screens.
import { later } from "../later/index.ts";
import { type Design, defineMaking, type Work } from "../process/index.ts";
import type { Get, StepTable } from "../steps/index.ts";
import { screens } from "./process.ts";
import { reportScreens } from "./report.ts";
import {
  basedSpots,
  fromLightToDark,
  type InkRegion,
  layBase,
  orderPlates,
  type PlateRegion,
  type Separation,
  spreadTogether,
} from "./separate.ts";
import type { ScreensSettings } from "./settings.ts";

const outputs = later(() => import("./outputs.ts"));

interface ScreensResults {
  readonly inks: ReadonlyMap<string, InkRegion>;
  readonly base: PlateRegion | null;
  readonly separate: Separation;
}

/** What decides where one ink runs on under another. */
const spreadBy = (design: Design): readonly unknown[] => [design.widthMm, fromLightToDark(design)];

const STEPS: StepTable<ScreensResults, Work<ScreensSettings>> = {
  inks: {
    doing: "Spreading traps",
    weight: 10,
    part: "separate",
    from: [],
    reads: ({ design, settings }) => [settings.trapMm, ...spreadBy(design)],
    compute: ({ design, settings }) => spreadTogether(design, settings),
  },
  base: {
    doing: "Laying the underbase",
    weight: 8,
    part: "separate",
    from: [],
    reads: ({ design, settings: { base } }) => [
      base.chokeMm,
      base.thinnestMm,
      basedSpots(design, { base }),
      ...spreadBy(design),
    ],
    compute: ({ design, settings }) => layBase(design, settings),
  },
  separate: {
    doing: "Ordering plates",
    weight: 2,
    part: "separate",
    from: ["inks", "base"],
    reads: ({ design: { spots, order } }) => [order, spots],
    compute: ({ design, settings: { base } }, get: Get<ScreensResults>) =>
      orderPlates(design, { order: design.order, base }, get("inks"), get("base")),
  },
};

export const screensMaking = defineMaking({
  process: screens,
  steps: STEPS,
  result: "separate",
  report: ({ settings }, separation) => reportScreens(separation, settings),
  outputs: async ({ settings }, separation, facts) => (await outputs()).listScreensOutputs(separation, settings, facts),
});
