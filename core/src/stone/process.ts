// Stones as a process: every area outlined, written in one row, filled or strewn with stones, and what a person did to single ones.
import { listAreas, millimetresOf } from "../area/index.ts";
import { CUT_FORMATS } from "../cut/index.ts";
import { defineProcess, type Process, type Work } from "../process/index.ts";
import type { Get, StepTable } from "../steps/index.ts";
import { diameterOf, STONE_LETTERS_MM, STONE_SIZES } from "../trade/index.ts";
import { applyByHand } from "./by-hand.ts";
import { chooseAreas, gapsOf } from "./choose-areas.ts";
import { listStoneOutputs, type Stones } from "./outputs.ts";
import { portrayStones } from "./portray-stones.ts";
import { type MeasuredArea, measureAreas } from "./propose-setting.ts";
import { reportStones } from "./report.ts";
import { setAreas } from "./set-area.ts";
import { STONE_LIMITS, type StoneSettings, stoneSettingsSchema } from "./settings.ts";
import type { Setting } from "./stones.ts";

/** What is thinner than the smallest stone is not set, mm. */
const LINE_MM = diameterOf(STONE_SIZES[0]);

interface StoneResults {
  readonly areas: readonly MeasuredArea[];
  readonly set: ReturnType<typeof setChosen>;
  readonly stones: Stones;
}

function setChosen(measured: readonly MeasuredArea[], { design, settings }: Work<StoneSettings>) {
  const { areas, lost } = chooseAreas(measured, design, settings);
  const rules = { gaps: gapsOf(settings), overShare: settings.overShare };
  return { areas, lost, setting: setAreas(areas, design.map, design.widthMm, rules) };
}

const STEPS: StepTable<StoneResults, Work<StoneSettings>> = {
  areas: {
    doing: "Measuring areas",
    weight: 6,
    part: "stones",
    from: [],
    reads: ({ design: { spots, widthMm, stock }, settings: { gapMm, shop, overShare } }) => [
      ...[spots, widthMm, stock],
      ...[gapMm, shop, overShare],
    ],
    compute: ({ design, settings }) => {
      const sizesOf = (spotId: string) => {
        const kept = design.stock[spotId]?.stones;
        return kept ? STONE_SIZES.filter((size) => kept[size] !== null) : STONE_SIZES;
      };
      const rules = { gaps: gapsOf(settings), overShare: settings.overShare };
      return measureAreas(listAreas(design), design, rules, sizesOf);
    },
  },
  set: {
    doing: "Setting stones",
    weight: 4,
    part: "stones",
    from: ["areas"],
    reads: ({ design: { frame }, settings: { gapMm, shop, overShare, everywhere, decided, areas } }) => [
      frame,
      ...[gapMm, shop, overShare],
      ...[everywhere, decided, areas],
    ],
    compute: (work, get: Get<StoneResults>) => setChosen(get("areas"), work),
  },
  stones: {
    doing: "Setting stones by hand",
    weight: 1,
    part: "stones",
    from: ["set"],
    reads: ({ settings: { hand } }) => [hand],
    compute: ({ design, settings }, get: Get<StoneResults>) => {
      const { areas, lost, setting: proposed } = get("set");
      const setting: Setting = settings.hand.length > 0 ? proposed.copy() : proposed;
      const missed = applyByHand(setting, settings.hand, gapsOf(settings).gapMm, millimetresOf(design));
      return {
        ...{ stones: setting.stones, lost, missed, widthMm: design.widthMm },
        heightMm: (design.widthMm * design.map.height) / design.map.width,
        areas: areas.map(({ columns: _, ...area }) => area),
      };
    },
  },
};

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
  steps: STEPS,
  result: "stones",
  report: ({ design, settings }, made) => reportStones(made, design, settings),
  outputs: ({ design, settings }, made, facts) => listStoneOutputs(made, design, settings, facts),
  portray: ({ design }, made) => portrayStones(made, design),
  seen: ({ template: _, shop: { prices: __, lossPercent: ___, ...shop }, ...settings }) => ({ ...settings, shop }),
});

const WAYS: readonly string[] = ["outline", "middle", "fill", "auto"];
