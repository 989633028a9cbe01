// Stitches as a process: every area sewn as a fill, in satin or in lines.
import { defineProcess, type Process } from "../process/index.ts";
import { SEWN_LETTERS_MM } from "../trade/index.ts";
import { FABRICS } from "./fabric.ts";
import type { Stitches } from "./outputs.ts";
import { type StitchSettings, stitchSettingsSchema } from "./settings.ts";

/** The narrowest line that is sewn, mm: a thread; and the narrowest gap that stays open between two. */
const LINE_MM = 0.4;

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
  seen: ({ machine: _, hoop: __, ...settings }) => settings,
});
