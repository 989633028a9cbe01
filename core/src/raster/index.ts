export { measureNoise, smoothNoise } from "./noise.ts";
export { type LabelMap, makeRaster, NONE, OPAQUE_ALPHA, type Raster } from "./raster.ts";
