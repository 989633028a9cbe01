export { type Row, setRows, spaceEvenly } from "./along.ts";
export { type FillNumbers, fillFromEdge, fillInRows, fillLeft, PATTERNS, type Pattern, strew } from "./fill.ts";
export { largestThatReads, sizeForAll } from "./legible.ts";
export { rowsInMiddle } from "./middle.ts";
export { type Outlined, rowsInside, rowsOnOutlines } from "./outline.ts";
export { diameterOf, STONE_SIZES, type StoneSize } from "./sizes.ts";
export { type Gaps, Setting, type Stone } from "./stones.ts";
