// An open ring closed between its two ends.
import { type CubicPath, lengthOf, partOfPath, pointAlong, segmentCount } from "../geometry/index.ts";
import { directionAt, type HandEdge, type NodeRef, segmentsBetween } from "./hand-edges.ts";

/** How far the outline that closes a ring runs into it, aside of its edges: a share of the stroke's width. */
const INSET_SHARE = 0.2;

/**
 * Four nodes, two on either end of an open ring, as the outline that closes it: its sides go on as those of the ring end, and
 * it reaches `overlapPx` into the ring, so that it stays joined when that moves a little. Null where they are not two ends.
 */
export function closeGap(
  edges: readonly HandEdge[],
  nodes: readonly NodeRef[],
  overlapPx: number,
): { readonly curve: CubicPath; readonly spotId: string } | null {
  const caps = segmentsBetween(edges, nodes);
  if (caps.length !== 2) return null;
  const [a, b] = caps.map(({ edge, s }) => capOf(edges[edge], s));
  if (a.spotId === null || a.spotId !== b.spotId) return null;
  const bend = (from: Corner, to: Corner) => {
    const reach = lengthOf(to.x - from.x, to.y - from.y) / 3;
    return [
      ...[from.x + from.dx * reach, from.y + from.dy * reach],
      ...[to.x + to.dx * reach, to.y + to.dy * reach, to.x, to.y],
    ];
  };
  const inset = (corner: Corner, other: Corner) => [
    corner.x - corner.dx * overlapPx + (other.x - corner.x) * INSET_SHARE,
    corner.y - corner.dy * overlapPx + (other.y - corner.y) * INSET_SHARE,
  ];
  const line = (from: readonly number[], to: readonly number[]) => [...from, ...to, ...to];
  const at = ({ x, y }: Corner) => [x, y];
  const through = ({ first, last }: Cap) => {
    const [inner, outer] = [inset(first, last), inset(last, first)];
    return [...line(at(first), inner), ...line(inner, outer), ...line(outer, at(last))];
  };
  const curve = [...at(a.last), ...bend(a.last, b.first), ...through(b), ...bend(b.last, a.first), ...through(a)];
  return { curve: Float64Array.from(curve), spotId: a.spotId };
}

interface Corner {
  readonly x: number;
  readonly y: number;
  /** Out of the shape, as its side runs there. */
  readonly dx: number;
  readonly dy: number;
}

/** The end of a stroke: its corners in the order in which the shape lies on the left. */
interface Cap {
  readonly first: Corner;
  readonly last: Corner;
  readonly spotId: string | null;
}

function capOf({ path, left, right }: HandEdge, s: number): Cap {
  const count = segmentCount(path);
  const at = (k: number) => partOfPath(path, (k + count) % count, ((k + count) % count) + 1);
  const [into, out] = [directionAt(at(s - 1), 1) ?? [0, 0], directionAt(at(s + 1), 0) ?? [0, 0]];
  const [x0, y0] = pointAlong(path, s);
  const [x1, y1] = [path[s * 6 + 6], path[s * 6 + 7]];
  const [before, after] = [
    { x: x0, y: y0, dx: -into[0], dy: -into[1] },
    { x: x1, y: y1, dx: -out[0], dy: -out[1] },
  ];
  // Its sides run back into the shape.
  const isLeft = (y1 - y0) * (into[0] + out[0]) - (x1 - x0) * (into[1] + out[1]) > 0;
  return isLeft ? { first: before, last: after, spotId: left } : { first: after, last: before, spotId: right };
}
