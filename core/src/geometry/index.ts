export {
  type CubicPath,
  flattenPath,
  isLine,
  mapPath,
  pathArea,
  pathToSvg,
  polygonPath,
  reversePath,
  segmentCount,
  trimNumber,
} from "./cubic-path.ts";
export { formatLength, type Length, type LengthUnit, MM_PER_UNIT, parseLength, toMm } from "./length.ts";
export {
  bufferLine,
  intersect,
  offset,
  type Polygons,
  polygonsArea,
  subtract,
  toPaths,
  toPolygons,
  unite,
  uniteEvenOdd,
} from "./polygons.ts";
