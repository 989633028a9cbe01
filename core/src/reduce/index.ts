export { type Findings, type FoundColour, findColours } from "./find.ts";
export { buildLadder, proposeCount, type Rung } from "./ladder.ts";
export { type ColourSettings, type Reduction, reduceColours, type Spot, type SpotRole } from "./reduce.ts";
