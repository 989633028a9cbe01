export { type Row, setRows, spaceEvenly } from "./along.ts";
export { type FillNumbers, fillFromEdge, fillInRows, fillLeft, PATTERNS, type Pattern, strew } from "./fill.ts";
export { largestThatReads, sizeForAll } from "./legible.ts";
export { rowsInMiddle } from "./middle.ts";
export { type Outlined, rowsInside, rowsOnOutlines } from "./outline.ts";
export { type MeasuredArea, measureAreas } from "./propose-setting.ts";
export { type ChosenArea, SET_AS, type SetAs, type SetNumbers, type SetRules, setAreas } from "./set-area.ts";
export { diameterOf, STONE_SIZES, type StoneSize } from "./sizes.ts";
export { type Gaps, Setting, type Stone } from "./stones.ts";
