// How a design is made with stones.
import { listAreas, millimetresOf } from "../area/index.ts";
import { later } from "../later/index.ts";
import { defineMaking, type Work } from "../process/index.ts";
import type { Get, StepTable } from "../steps/index.ts";
import { STONE_SIZES } from "../trade/index.ts";
import { applyByHand } from "./by-hand.ts";
import { chooseAreas, gapsOf } from "./choose-areas.ts";
import type { Stones } from "./outputs.ts";
import { portrayStones } from "./portray-stones.ts";
import { stones } from "./process.ts";
import { type MeasuredArea, measureAreas } from "./propose-setting.ts";
import { reportStones } from "./report.ts";
import { setAreas } from "./set-area.ts";
import type { StoneSettings } from "./settings.ts";
import type { Setting } from "./stones.ts";

const outputs = later(() => import("./outputs.ts"));

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

export const stonesMaking = defineMaking({
  process: stones,
  steps: STEPS,
  result: "stones",
  report: ({ design, settings }, made) => reportStones(made, design, settings),
  outputs: async ({ design, settings }, made, facts) =>
    (await outputs()).listStoneOutputs(made, design, settings, facts),
  portray: ({ design }, made) => portrayStones(made, design),
});
