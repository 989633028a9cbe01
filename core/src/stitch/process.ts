// Stitches as a process: every area sewn as a fill, in satin or in lines.

import { listAreas } from "../area/index.ts";
import { defineProcess, type Process, type Work } from "../process/index.ts";
import type { Get, StepTable } from "../steps/index.ts";
import { SEWN_LETTERS_MM } from "../trade/index.ts";
import { chooseAreas } from "./choose-areas.ts";
import { FABRICS } from "./fabric.ts";
import { listStitchOutputs, type Stitches } from "./outputs.ts";
import { planStitches } from "./plan.ts";
import { portrayStitches } from "./portray-stitches.ts";
import { type MeasuredArea, measureAreas } from "./propose-sewing.ts";
import { reportStitches } from "./report.ts";
import { type StitchSettings, stitchSettingsSchema } from "./settings.ts";

/** The narrowest line that is sewn, mm: a thread; and the narrowest gap that stays open between two. */
const LINE_MM = 0.4;

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

/** A hoop as width x height, mm. */
const HOOP = /^(\d{2,4})x(\d{2,4})$/;

export const stitches: Process<StitchSettings, Stitches> = defineProcess({
  id: "stitches",
  name: "Stitches",
  title: "Stitches",
  stock: "thread",
  settings: stitchSettingsSchema,
  shellOptions: [
    {
      name: "fabric",
      kind: "words",
      example: "knit",
      takes: FABRICS.join(", "),
      isWord: (text) => FABRICS.some((fabric) => fabric === text),
      set: ([word]) => ({ fabric: FABRICS.find((fabric) => fabric === word) }),
    },
    {
      name: "hoop",
      kind: "words",
      example: "130x180",
      takes: "width x height in millimetres, as 130x180",
      isWord: (text) => HOOP.test(text),
      set: ([word]) => {
        const [, widthMm, heightMm] = (HOOP.exec(word) ?? []).map(Number);
        return { hoop: { widthMm, heightMm } };
      },
    },
  ],
  writing: "stitch files",
  fromShop: ({ hoops, stitchesPerMinute, changeS, trimS, perThousand, mostPerMm2, mostLayers }) => ({
    machine: { hoops, stitchesPerMinute, changeS, trimS, perThousand, mostPerMm2, mostLayers },
  }),
  thinLimits: () => ({ lineMm: LINE_MM, gapMm: LINE_MM }),
  lettersMm: SEWN_LETTERS_MM,
  makesShapes: false,
  steps: STEPS,
  result: "plan",
  report: ({ design, settings }, made) => reportStitches(made, design, settings),
  outputs: ({ design, settings }, made, facts) => listStitchOutputs(made, design, settings, facts),
  portray: (_, { plan }) => portrayStitches(plan),
  seen: ({ machine: _, hoop: __, ...settings }) => settings,
});
