export { absorbSpecks } from "./absorb-specks.ts";
export { BARE, type Chain, type ChainGraph } from "./chains.ts";
export { sharpenCorners } from "./corners.ts";
export type { LabelReading } from "./label-reading.ts";
export { distanceAcross, distanceBetween, eachDistance } from "./line-distance.ts";
export { isOnPictureEdge, pictureEdge } from "./picture-edge.ts";
export { type ReadSettings, readShapes, type ShapesReading } from "./read-shapes.ts";
export { clearChain, FINE_ACROSS_PX, placesOfEnds, type ReadyLine, scatterTolerance } from "./ready-line.ts";
export type { TracedPicture } from "./traced-picture.ts";
