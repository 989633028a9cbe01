// Screen printing as a process: a plate for each ink, a base under them, and the films that screens are burned with.
import { type Design, defineProcess, type Process, type Work } from "../process/index.ts";
import type { Get, StepTable } from "../steps/index.ts";
import { listScreensOutputs } from "./outputs.ts";
import { reportScreens, warnOfSheet } from "./report.ts";
import {
  basedSpots,
  fromLightToDark,
  type InkRegion,
  layBase,
  orderPlates,
  type PlateRegion,
  type Separation,
  spreadInks,
} from "./separate.ts";
import { SCREENS_LIMITS, type ScreensSettings, screensSettingsSchema } from "./settings.ts";

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
    compute: ({ design, settings }) => spreadInks(design, settings),
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

export const screens: Process<ScreensSettings, Separation> = defineProcess({
  id: "screens",
  name: "Screens",
  title: "Separations",
  stock: "ink",
  settings: screensSettingsSchema,
  shellOptions: [
    { name: "trap", kind: "length", example: "0.3mm", ...SCREENS_LIMITS.trapMm, set: (trapMm) => ({ trapMm }) },
  ],
  writing: "films",
  steps: STEPS,
  result: "separate",
  fromShop: ({ thinnestLineMm }) => ({ base: { thinnestMm: thinnestLineMm } }),
  warnOfSize: (sizeMm, { films }) => warnOfSheet(sizeMm, films),
  report: ({ settings }, separation) => reportScreens(separation, settings),
  outputs: ({ settings }, separation, facts) => listScreensOutputs(separation, settings, facts),
});
