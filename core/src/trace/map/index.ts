export { type Deviation, DISTANCE_CLASSES_PX, measureDeviation } from "./deviation.ts";
export { type Drawing, layersOf } from "./drawing.ts";
export { faceBeyond, nextHalfEdges, outlinePaths, spotPaths } from "./outline.ts";
export {
  countFineShapes,
  countShapes,
  faceArea,
  faceAt,
  halfEdgePath,
  type MapEdge,
  type MapFace,
  outerRing,
  type PlanarMap,
  ringPath,
  spotCoverage,
  spotOf,
} from "./planar-map.ts";
export { type Simplification, simplifyMap } from "./simplify.ts";
export { stackShapes } from "./stack.ts";
export { fitShapes, fitShapesTogether, type ShapeSettings, tracePicture } from "./trace.ts";
