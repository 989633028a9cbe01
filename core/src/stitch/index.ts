export { type Area, listAreas, makeArea } from "./area.ts";
export { chooseAreas } from "./choose-areas.ts";
export { proposeColours } from "./colour-order.ts";
export type { Stitches } from "./outputs.ts";
export {
  type ChosenArea,
  COMMANDS,
  type Command,
  MOST_STITCH_MM,
  type PlanColour,
  planStitches,
  STITCH_KINDS,
  type StitchKind,
  type StitchPlan,
  TRIM_OVER_MM,
} from "./plan.ts";
export { stitches } from "./process.ts";
export { type MeasuredArea, measureAreas } from "./propose-sewing.ts";
export { BORDERS, type SewnChoice, STITCH_LIMITS, type StitchSettings, stitchSettingsSchema } from "./settings.ts";
export { SEWN_AS, type SewNumbers, type SewnAs } from "./sew-area.ts";
export { type StitchListFacts, writeStitchesCsv } from "./stitches-csv.ts";
