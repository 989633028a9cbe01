export {
  type Area,
  closed,
  holdsPlace,
  insetRings,
  listAreas,
  makeArea,
  nearestFirst,
  type Ring,
} from "./area.ts";
export { columnWidths, middleLine, offsetOf } from "./column-lines.ts";
export { type Column, type Columns, findColumns } from "./columns.ts";
export { crossRows, placeInside, type Segments } from "./cross-rows.ts";
export { entriesByFace, faceHolding, layChoices, millimetresOf } from "./decided-areas.ts";
export { type Angle, angleOf, fromFrame, ringInFrame, toFrame } from "./frame.ts";
export {
  type Corner,
  findCorners,
  isInMiddle,
  type MeasuredLine,
  measureLine,
  pointAlong,
  TURN_MM,
} from "./measured-line.ts";
export { STATION_MM, STRIDE } from "./stations.ts";
export { findWords, makeLetterAround } from "./words.ts";
