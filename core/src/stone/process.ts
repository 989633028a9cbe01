// Stones as a process: every area outlined, written in one row, filled or strewn with stones, and what a person did to single ones.
import { CUT_FORMATS } from "../cut/index.ts";
import { defineProcess, type Process } from "../process/index.ts";
import { diameterOf, STONE_LETTERS_MM, STONE_SIZES } from "../trade/index.ts";
import type { Stones } from "./outputs.ts";
import { STONE_LIMITS, type StoneSettings, stoneSettingsSchema } from "./settings.ts";

/** What is thinner than the smallest stone is not set, mm. */
const LINE_MM = diameterOf(STONE_SIZES[0]);

const WAYS: readonly string[] = ["outline", "middle", "fill", "auto"];

export const stones: Process<StoneSettings, Stones> = defineProcess({
  id: "stones",
  name: "Stones",
  title: "Stones",
  stock: "stone",
  settings: stoneSettingsSchema,
  shellOptions: [
    {
      name: "stone",
      kind: "words",
      example: "SS10",
      takes: STONE_SIZES.join(", "),
      isWord: (text) => STONE_SIZES.some((size) => size === text),
      set: ([word], settings) => ({
        everywhere: { ...settings.everywhere, size: STONE_SIZES.find((size) => size === word) },
      }),
    },
    { name: "gap", kind: "length", example: "0.4mm", ...STONE_LIMITS.gapMm, set: (mm) => ({ gapMm: mm }) },
    {
      name: "set",
      kind: "words",
      example: "outline",
      takes: "outline, middle, fill, auto",
      isWord: (text) => WAYS.includes(text),
      set: ([word], settings) => ({
        everywhere: {
          ...settings.everywhere,
          as: word === "auto" ? undefined : (word as "outline" | "middle" | "fill"),
        },
      }),
    },
    {
      name: "template",
      kind: "words",
      example: "svg,dxf,hpgl",
      takes: CUT_FORMATS.join(", "),
      isWord: (text) => CUT_FORMATS.some((format) => format === text),
      set: (words, settings) => ({
        template: { ...settings.template, formats: CUT_FORMATS.filter((format) => words.includes(format)) },
      }),
    },
  ],
  writing: "stone files",
  fromShop: ({ stoneGapMm, leastStoneGapMm, stoneLossPercent, stonePrices }) => ({
    shop: { gapMm: stoneGapMm, leastMm: leastStoneGapMm, lossPercent: stoneLossPercent, prices: stonePrices },
  }),
  thinLimits: () => ({ lineMm: LINE_MM, gapMm: LINE_MM }),
  lettersMm: STONE_LETTERS_MM,
  makesShapes: false,
  seen: ({ template: _, shop: { prices: __, lossPercent: ___, ...shop }, ...settings }) => ({ ...settings, shop }),
});
