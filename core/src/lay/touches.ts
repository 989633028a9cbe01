// Where strands touch: at each other's nodes, within what counts as one place. Stretches that run along each other are cut at
// the nodes of both, so that their pieces can be recognised as one.
import Flatbush from "flatbush";
import { lengthOf, nearestOnSegment, pointAlong, segmentCount } from "../geometry/index.ts";
import { cutStrand, isRing, SNAP_PX, type Strand, type Vertices } from "./strand.ts";

/** Segment `s` of a strand. */
interface Part {
  readonly strand: Strand;
  readonly s: number;
}

/** Cuts strands where one that is laid touches another, or itself, with a node of either. */
export function cutAtTouches(laid: readonly Strand[], old: readonly Strand[], vertices: Vertices): void {
  const parts = partsOf(laid);
  if (parts.length === 0) return;
  const index = indexOf(parts);
  const near = (strand: Strand, at: number) => {
    const [x, y] = pointAlong(strand.path, at);
    return index.search(x - SNAP_PX, y - SNAP_PX, x + SNAP_PX, y + SNAP_PX).map((k) => parts[k]);
  };
  // The map's nodes first: what is laid gives way to them.
  for (const strand of old)
    for (let node = 0; node <= segmentCount(strand.path); node++)
      for (const part of near(strand, node)) touch(part, strand, node, vertices);
  const oldParts = partsOf(old);
  const oldIndex = oldParts.length > 0 ? indexOf(oldParts) : null;
  for (const strand of laid) {
    const last = segmentCount(strand.path) - (isRing(strand) ? 1 : 0);
    for (let node = 0; node <= last; node++) {
      const [x, y] = pointAlong(strand.path, node);
      oldIndex?.search(x - SNAP_PX, y - SNAP_PX, x + SNAP_PX, y + SNAP_PX, (k) => {
        touch(oldParts[k], strand, node, vertices);
        return false;
      });
      for (const part of near(strand, node)) if (!isBeside(part, strand, node)) touch(part, strand, node, vertices);
    }
  }
}

/** Whether a segment is one of the two that meet at a node. */
function isBeside({ strand, s }: Part, other: Strand, node: number): boolean {
  if (strand !== other) return false;
  const segments = segmentCount(strand.path);
  return s === node || s + 1 === node || (isRing(strand) && node === 0 && s === segments - 1);
}

/** Cuts both where a node of one lies on a segment of the other. */
function touch({ strand, s }: Part, other: Strand, node: number, vertices: Vertices): void {
  const { path } = strand;
  const [x, y] = pointAlong(other.path, node);
  const nearest = nearestOnSegment(path, s, x, y);
  if (nearest.distance > SNAP_PX) return;
  let { at } = nearest;
  // At a node rather than just beside it.
  for (const end of [s, s + 1]) {
    const o = end * 6;
    if (lengthOf(path[o] - x, path[o + 1] - y) <= SNAP_PX) at = end;
  }
  // Where the map has the place it stays; else where the segment runs.
  const [px, py] = other.edge ? [x, y] : pointAlong(path, at);
  const vertex = vertices.at(px, py);
  cutStrand(strand, at, vertex);
  cutStrand(other, node, vertex);
}

function partsOf(strands: readonly Strand[]): Part[] {
  return strands.flatMap((strand) => Array.from({ length: segmentCount(strand.path) }, (_, s) => ({ strand, s })));
}

function indexOf(parts: readonly Part[]): Flatbush {
  const index = new Flatbush(parts.length);
  for (const { strand, s } of parts) {
    const [x0, y0, x1, y1, x2, y2, x3, y3] = strand.path.subarray(s * 6, s * 6 + 8);
    const left = Math.min(x0, x1, x2, x3);
    const right = Math.max(x0, x1, x2, x3);
    index.add(left, Math.min(y0, y1, y2, y3), right, Math.max(y0, y1, y2, y3));
  }
  index.finish();
  return index;
}
