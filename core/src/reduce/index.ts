export {
  type Assignment,
  areasToTake,
  assignSpots,
  NOTHING,
  type SpotCorrection,
} from "./assign-spots.ts";
export { type Findings, type FoundColour, findColours, findColoursTogether } from "./find.ts";
export { type Area, floodArea } from "./flood.ts";
export { decideTask, flatTask, smoothTask } from "./in-parts.ts";
export { buildLadder, type Proposal, proposeCount, type Rung } from "./ladder.ts";
export { MAX_FOUND } from "./palette.ts";
export {
  type ColourSettings,
  type Reduction,
  reduceColours,
  type Spot,
  type SpotDecision,
  type SpotRole,
  UNDECIDED,
} from "./reduce.ts";
export type { UnderLine } from "./run-under.ts";
export { spotOfId } from "./spot-of-id.ts";
export { orderInks, orderSpots } from "./spot-order.ts";
