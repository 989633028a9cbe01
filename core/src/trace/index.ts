export { BARE } from "./chains.ts";
export { absorbSpecks, findComponents } from "./components.ts";
export {
  countShapes,
  faceArea,
  facePaths,
  type MapEdge,
  type MapFace,
  type PlanarMap,
  ringPath,
  spotPaths,
} from "./planar-map.ts";
export { type ShapeSettings, tracePicture } from "./trace.ts";
