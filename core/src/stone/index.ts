export { setRows, spaceEvenly } from "./along.ts";
export { HAND_LOSSES, type HandLoss, stoneAt } from "./by-hand.ts";
export { gapsOf, type SetArea } from "./choose-areas.ts";
export { countOf, stoneName } from "./count-design.ts";
export { countStones, type StoneCount } from "./count-stones.ts";
export { type FillNumbers, fillFromEdge, fillInRows, fillLeft, strew } from "./fill.ts";
export { largestThatReads, sizeForAll } from "./legible.ts";
export { stonesMaking } from "./making.ts";
export { GAP_KINDS, type GapKind, measureGaps, type StoneGap } from "./measure-gaps.ts";
export { rowsInMiddle } from "./middle.ts";
export { type Outlined, rowsInside, rowsOnOutlines } from "./outline.ts";
export type { Stones } from "./outputs.ts";
export { stones } from "./process.ts";
export { type MeasuredArea, measureAreas } from "./propose-setting.ts";
export { type ChosenArea, type SetNumbers, type SetRules, setAreas } from "./set-area.ts";
export {
  type HandEntry,
  type SetAreaEntry,
  type SetChoice,
  STONE_LIMITS,
  type StoneSettings,
  stoneSettingsSchema,
} from "./settings.ts";
export { type Gaps, type Row, Setting, type Stone } from "./stones.ts";
export { type StoneListFacts, writeStonesCsv } from "./stones-csv.ts";
export { HOLE_MM, layTemplates, MARGIN_MM, planHoles, type Template } from "./templates.ts";
export { PATTERNS, type Pattern, SET_AS, type SetAs, TEMPLATE_SPLITS, type TemplateSplit } from "./ways.ts";
