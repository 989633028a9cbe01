export { chooseAreas } from "./choose-areas.ts";
export { proposeColours } from "./colour-order.ts";
export { countPlan, type PlanCount } from "./count.ts";
export { DENSITY_CELL_MM, measureDensity } from "./density.ts";
export { FABRICS, type Fabric } from "./fabric.ts";
export { chooseHoop, type Hoop, type HoopChoice, readHoops } from "./hoop.ts";
export { stitchesMaking } from "./making.ts";
export { CORNERS, type Corners } from "./mitre.ts";
export type { Stitches } from "./outputs.ts";
export {
  type ChosenArea,
  COMMANDS,
  type Command,
  MOST_STITCH_MM,
  type PlanColour,
  planStitches,
  type SewnArea,
  STITCH_KINDS,
  type StitchKind,
  type StitchPlan,
  TRIM_OVER_MM,
} from "./plan.ts";
export { stitches } from "./process.ts";
export { type MeasuredArea, measureAreas } from "./propose-sewing.ts";
export {
  type AreaEntry,
  BORDERS,
  type BorderKind,
  type SewnChoice,
  STITCH_LIMITS,
  type StitchSettings,
  stitchSettingsSchema,
} from "./settings.ts";
export type { SewNumbers } from "./sew-area.ts";
export { SEWN_AS, type SewnAs } from "./sewn-as.ts";
export { type StitchListFacts, writeStitchesCsv } from "./stitches-csv.ts";
export { THREAD_MM, threadRuns } from "./stitches-svg.ts";
