export { applyEdit, applyEdits, type Edited, type NamedEdit } from "./apply-edits.ts";
export { closeGap } from "./close-gap.ts";
export {
  type Edit,
  type LineChange,
  LOST,
  type PiecePlace,
  type ShapePick,
  TANGLED,
} from "./edits.ts";
export { calmLine, type Figure, figurePaths, type StrokeLook, widenStroke } from "./figures.ts";
export { type HandEdge, handEdges, type NodeRef, nodesAt, placeOf, segmentsBetween } from "./hand-edges.ts";
export {
  addNode,
  moveHandle,
  moveNodes,
  pullSegment,
  removeNodes,
  shapeNodes,
  shapeSegments,
} from "./node-edits.ts";
