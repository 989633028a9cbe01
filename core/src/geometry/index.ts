export { type Across, type Crossings, densify, indexBoundaries, measureAcross } from "./across.ts";
export {
  type Nearest,
  nearestOnPath,
  nearestOnSegment,
  partOfPath,
  pointAlong,
  velocityOn,
} from "./along-path.ts";
export { asCircle, type Circle, flattenToArcs, pointOn, QUARTER_HANDLE } from "./arcs.ts";
export {
  type CubicPath,
  drawPath,
  flattenPath,
  flattenSteps,
  isClosed,
  isLine,
  joinPaths,
  linePath,
  mapPath,
  mirrorPath,
  moveEnds,
  nodesOf,
  pathArea,
  pathToSvg,
  polygonPath,
  reversePath,
  segmentCount,
  trimNumber,
  withEnds,
} from "./cubic-path.ts";
export { indexBounds } from "./index-bounds.ts";
export { formatLength, type Length, type LengthUnit, MM_PER_UNIT, parseLength, toMm } from "./length.ts";
export { eachLineCrossing } from "./line-crossings.ts";
export { type Bounds, boundsOf, boundsOfAll, eachPoint, isInLine, lengthAlong } from "./points.ts";
export {
  fillHoles,
  growRegion,
  intersect,
  intersectEach,
  keepHolding,
  linesOf,
  type Polygons,
  partByReach,
  polygonsArea,
  subtract,
  toPolygons,
  turnPositive,
  unite,
  widenLines,
} from "./polygons.ts";
export { type LooseFit, recoverCurves } from "./recover-curves.ts";
export { stripBeside } from "./strip.ts";
export { arcBetween, cosineBetween, lengthOf, mainDirection, tanOfQuarter } from "./vector.ts";
