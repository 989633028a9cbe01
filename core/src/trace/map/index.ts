export { type Deviation, DISTANCE_CLASSES_PX, measureDeviation } from "./deviation.ts";
export {
  countFineShapes,
  countShapes,
  faceArea,
  faceAt,
  facePaths,
  type MapEdge,
  type MapFace,
  outlinePaths,
  type PlanarMap,
  ringPath,
  spotCoverage,
  spotPaths,
  underPaths,
} from "./planar-map.ts";
export { type Simplification, simplifyMap } from "./simplify.ts";
export { stackShapes } from "./stack.ts";
export { fitShapes, type ShapeSettings, tracePicture } from "./trace.ts";
