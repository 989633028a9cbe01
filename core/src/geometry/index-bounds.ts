// Boxes by where they lie.
import Flatbush from "flatbush";
import type { Bounds } from "./points.ts";

/** Finds those of some boxes, by number, that touch a box (an R-tree packed along a Hilbert curve). There is at least one. */
export function indexBounds(boxes: readonly Bounds[]): Flatbush {
  const index = new Flatbush(boxes.length);
  for (const { left, top, right, bottom } of boxes) index.add(left, top, right, bottom);
  index.finish();
  return index;
}
