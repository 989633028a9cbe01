export { applyEdit, applyEdits, type Edited, type NamedEdit } from "./apply-edits.ts";
export {
  type Edit,
  type LineChange,
  LOST,
  type PiecePlace,
  type ShapePick,
  TANGLED,
} from "./edits.ts";
export { calmLine, type Figure, figurePaths, turn } from "./figures.ts";
export {
  addNode,
  closeGap,
  type HandEdge,
  handEdges,
  moveHandle,
  moveNodes,
  type NodeRef,
  nodesAt,
  placeOf,
  pullSegment,
  removeNodes,
  segmentsBetween,
  shapeNodes,
  shapeSegments,
} from "./node-edits.ts";
