export { absorbSpecks } from "./absorb-specks.ts";
export { BARE } from "./chains.ts";
export {
  countShapes,
  faceArea,
  facePaths,
  type MapEdge,
  type MapFace,
  type PlanarMap,
  ringPath,
  spotPaths,
  underPaths,
} from "./planar-map.ts";
export { stackShapes } from "./stack.ts";
export { type ShapeSettings, tracePicture } from "./trace.ts";
