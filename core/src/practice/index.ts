export { coveredShare, coverThread } from "./cover.ts";
export { type CutFault, type Cutter, findFaults, type Move, playPlot, USUAL_CUTTER } from "./cutter.ts";
export { clockList, type EmbroideryMachine, findSewFaults, type SewFault, USUAL_MACHINE } from "./embroidery.ts";
export { type Laid, pressLayers } from "./press.ts";
export { type Plot, readPlot, type Stroke } from "./read-plot.ts";
export { type ListRow, readStitchList, type StitchList } from "./read-stitch-list.ts";
export {
  type ListedStone,
  type SetFault,
  type SetHole,
  type SetJob,
  type SetTemplate,
  setJob,
} from "./stone-setter.ts";
export { type CutJob, type CutLayer, cutJob, type JobFault, type PlannedLayer } from "./transfer-job.ts";
export { differ, type Mask, turnOver, weed } from "./weed.ts";
