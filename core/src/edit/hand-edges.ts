// Boundaries, nodes and segments as a hand finds them on the table.
import { type CubicPath, lengthOf, segmentCount } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";
import { type PlanarMap, spotOf } from "../trace/index.ts";

/** Boundaries as a hand finds them: a map's edges with the spots on their sides. */
export interface HandEdge {
  readonly path: CubicPath;
  /** Vertices; both -1 where it is closed. */
  readonly start: number;
  readonly end: number;
  readonly left: string | null;
  readonly right: string | null;
}

/** A map's boundaries as a hand finds them. */
export function handEdges(map: Pick<PlanarMap, "edges" | "faces">): HandEdge[] {
  return map.edges.map(({ path, start, end, left, right }) => ({
    ...{ path, start, end },
    left: spotOf(map, left),
    right: spotOf(map, right),
  }));
}

/** A node: which one of an edge's, from 0; the last of a closed edge is its first. */
export interface NodeRef {
  readonly edge: number;
  readonly node: number;
}

/** Nodes that lie within `reachPx` of a place, the nearest first; all that are one junction. */
export function nodesAt(edges: readonly HandEdge[], { x, y }: Point, reachPx: number): NodeRef[] {
  const found: (NodeRef & { readonly distance: number })[] = [];
  edges.forEach(({ path, start }, edge) => {
    const last = segmentCount(path) - (start < 0 ? 1 : 0);
    for (let node = 0; node <= last; node++) {
      const distance = lengthOf(path[node * 6] - x, path[node * 6 + 1] - y);
      if (distance <= reachPx) found.push({ edge, node, distance });
    }
  });
  const [nearest] = found.toSorted((a, b) => a.distance - b.distance);
  if (!nearest) return [];
  const [nx, ny] = placeOf(edges, nearest);
  return found
    .filter((one) => {
      const [ox, oy] = placeOf(edges, one);
      return ox === nx && oy === ny;
    })
    .map(({ edge, node }) => ({ edge, node }));
}

export function placeOf(edges: readonly HandEdge[], { edge, node }: NodeRef): readonly [number, number] {
  const { path } = edges[edge];
  return [path[node * 6], path[node * 6 + 1]];
}

/** Segments both ends of which are among nodes. */
export function segmentsBetween(edges: readonly HandEdge[], nodes: readonly NodeRef[]): { edge: number; s: number }[] {
  return [...new Set(nodes.map(({ edge }) => edge))].flatMap((edge) => {
    const { path, start } = edges[edge];
    const count = segmentCount(path);
    const own = new Set(nodes.flatMap((one) => (one.edge === edge ? [one.node] : [])));
    const has = (node: number) => own.has(start < 0 ? node % count : node);
    return Array.from({ length: count }, (_, s) => s).flatMap((s) => (has(s) && has(s + 1) ? [{ edge, s }] : []));
  });
}

/** Unit vector into a stretch from its start, or into it from its end; null where it has none. */
export function directionAt(part: CubicPath, end: 0 | 1): readonly [number, number] | null {
  const n = part.length;
  const base = end === 0 ? 0 : n - 2;
  for (const k of [2, 4, 6]) {
    const i = end === 0 ? k : n - 2 - k;
    const [dx, dy] = [part[i] - part[base], part[i + 1] - part[base + 1]];
    const length = lengthOf(dx, dy);
    if (length > 0) return [dx / length, dy / length];
  }
  return null;
}
