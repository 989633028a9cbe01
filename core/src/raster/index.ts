export { type Components, findComponents, forEachContact, regionAt, regionsOfPixels } from "./components.ts";
export { type Cover, coverPolygon, coverStroke } from "./cover.ts";
export { mapDifference } from "./difference.ts";
export {
  type Box,
  type Corners,
  composeMaps,
  cropFrame,
  type Frame,
  flipFrame,
  type Homography,
  invertMap,
  keystoneFrame,
  mapLine,
  mapPoint,
  type Point,
  scaleAt,
  sineAndCosine,
  straightenFrame,
  turn,
  turnFrame,
  wholeFrame,
} from "./frame.ts";
export { greyHistogram, greyOf, otsuThreshold } from "./grey.ts";
export { grow } from "./growing.ts";
export { drawLineArt, type LineArtSettings } from "./line-art.ts";
export { sauvolaThresholds } from "./local-threshold.ts";
export { measureNoise, smoothNoise, smoothRows } from "./noise.ts";
export { type Pick, type Picked, pickColour } from "./pick.ts";
export { type BackgroundProposal, boxOfArt, proposeBackground } from "./propose-background.ts";
export { proposeTrim, type TrimProposal } from "./propose-trim.ts";
export {
  countLabels,
  eachDifference,
  type LabelMap,
  makeRaster,
  NONE,
  OPAQUE_ALPHA,
  type Raster,
  relabel,
} from "./raster.ts";
export { resample } from "./resample.ts";
export { findSeeThrough, type SeeThrough, type SeeThroughTreatment, settleSeeThrough } from "./see-through.ts";
export { shrinkRaster } from "./shrink.ts";
export { softenHardLines } from "./soften-lines.ts";
export { fillSpans } from "./span-fill.ts";
export { fillSpecks, findSpecks, type SpeckSettings, type Specks } from "./specks.ts";
export { type Strip, stripsOf } from "./strips.ts";
export { eraseCover, fillSilhouette, moveCover, paintCover, restoreCover } from "./touch-up.ts";
export { removePicked } from "./unmix-rim.ts";
