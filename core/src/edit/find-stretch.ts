// Where a stretch of boundary is now that an edit was made on: by its ends, and by the spots on its sides.
import { isClosed, lengthOf, nearestOnPath, pointAlong, segmentCount } from "../geometry/index.ts";
import { type PlanarMap, spotOf } from "../trace/index.ts";
import type { LineChange } from "./edits.ts";
import { hasSpot } from "./find-face.ts";
import { boxOf } from "./known-paths.ts";

/** A stretch of one edge, in the edge's direction or against it; all of a closed one from its first node to its first node. */
export interface Stretch {
  readonly edge: number;
  readonly from: number;
  readonly to: number;
  readonly isBack: boolean;
}

/** How far its ends may have moved since, px. */
const REACH_PX = 3;
/** How far the nodes of a ring may. */
const FAR_PX = 2 * REACH_PX;
/** An end this near a node is at the node, px, and as a share of the way from end to end. */
const AT_NODE_PX = 0.4;
const AT_NODE_SHARE = 0.2;

/** The stretch that runs as `was` did; null where there is none. */
export function findStretch(map: PlanarMap, change: LineChange): Stretch | null {
  const { was } = change;
  const isRing = isClosed(was);
  const middle = pointAlong(was, segmentCount(was) / 2);
  let best: Stretch | null = null;
  let least = Number.POSITIVE_INFINITY;
  const [x, y] = was;
  map.edges.forEach((edge, e) => {
    const { left, top, right, bottom } = boxOf(edge.path);
    // Too far from its first point to come that near.
    if (x < left - FAR_PX || x > right + FAR_PX || y < top - FAR_PX || y > bottom + FAR_PX) return;
    for (const isBack of [false, true]) {
      const [own, other] = isBack ? [edge.right, edge.left] : [edge.left, edge.right];
      if (!isOf(map, own, change.left) || !isOf(map, other, change.right)) continue;
      const found = isRing ? wholeRing(map, e, isBack, was) : between(map, e, isBack, was);
      if (!found) continue;
      const half = nearestOnPath(edge.path, middle[0], middle[1]);
      const off =
        found.off + (half?.distance ?? 0) + (isWithin(found, half?.at ?? 0, segmentCount(edge.path)) ? 0 : REACH_PX);
      if (off < least) [best, least] = [found, off];
    }
  });
  return best;
}

/** Whether a face is of the spot; a spot that is gone from the map was merged into whatever is there. */
function isOf(map: PlanarMap, face: number, spotId: string | null): boolean {
  const own = spotOf(map, face);
  return own === spotId || (spotId !== null && !hasSpot(map, spotId));
}

type Found = Stretch & { readonly off: number };

function wholeRing(map: PlanarMap, e: number, isBack: boolean, was: Float64Array): Found | null {
  const { path } = map.edges[e];
  // One that hangs at a junction goes round from it to it.
  if (!isClosed(path)) return null;
  let off = 0;
  for (let i = 0; i + 2 < was.length; i += 6) {
    const nearest = nearestOnPath(path, was[i], was[i + 1], FAR_PX);
    if (!nearest) return null;
    off = Math.max(off, nearest.distance);
  }
  return { edge: e, from: 0, to: segmentCount(path), isBack, off };
}

function between(map: PlanarMap, e: number, isBack: boolean, was: Float64Array): Found | null {
  const { path, start } = map.edges[e];
  const n = was.length;
  const atNode = Math.min(AT_NODE_PX, AT_NODE_SHARE * lengthOf(was[n - 2] - was[0], was[n - 1] - was[1]));
  const first = endOn(path, was[0], was[1], atNode);
  const last = first && endOn(path, was[n - 2], was[n - 1], atNode);
  if (!first || !last) return null;
  const [a, b] = isBack ? [last, first] : [first, last];
  const segments = segmentCount(path);
  const off = first.distance + last.distance;
  if (start < 0) {
    // Over the first node of a ring, if need be.
    const from = a.at === segments ? 0 : a.at;
    const to = b.at > from ? b.at : b.at + segments;
    return to - from > 1e-6 ? { edge: e, from, to, isBack, off } : null;
  }
  // What hangs at one junction with both its ends begins and ends there.
  const isLoop = isClosed(path);
  const from = isLoop && a.at === segments ? 0 : a.at;
  const to = isLoop && b.at === 0 ? segments : b.at;
  return to - from > 1e-6 ? { edge: e, from, to, isBack, off } : null;
}

/** The nearest place on a path, at a node if one is about there. */
function endOn(path: Float64Array, x: number, y: number, atNode: number) {
  const nearest = nearestOnPath(path, x, y, REACH_PX);
  if (!nearest) return null;
  const node = Math.round(nearest.at);
  const isAtNode = lengthOf(path[node * 6] - x, path[node * 6 + 1] - y) <= Math.max(nearest.distance, atNode);
  return isAtNode ? { ...nearest, at: node } : nearest;
}

function isWithin({ from, to }: Stretch, at: number, segments: number): boolean {
  return at >= from ? at <= to : at + segments <= to;
}
