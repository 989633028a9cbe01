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
  const squares = squaresOf(edges);
  let nearest: NodeRef | null = null;
  let least = reachPx;
  const [firstColumn, lastColumn] = [squareAt(x - reachPx), squareAt(x + reachPx)];
  const [firstRow, lastRow] = [squareAt(y - reachPx), squareAt(y + reachPx)];
  for (let row = firstRow; row <= lastRow; row++)
    for (let column = firstColumn; column <= lastColumn; column++)
      for (const ref of squares.get(nameSquare(column, row)) ?? []) {
        const [nx, ny] = placeOf(edges, ref);
        const distance = lengthOf(nx - x, ny - y);
        if (distance > least || (distance === least && nearest)) continue;
        [nearest, least] = [ref, distance];
      }
  if (!nearest) return [];
  const [nx, ny] = placeOf(edges, nearest);
  const beside = squares.get(nameSquare(squareAt(nx), squareAt(ny))) ?? [];
  return beside.filter((ref) => {
    const [ox, oy] = placeOf(edges, ref);
    return ox === nx && oy === ny;
  });
}

/** Side of the squares by which nodes are found, px. */
const SQUARE_PX = 16;
const squareAt = (v: number) => Math.floor(v / SQUARE_PX);
const nameSquare = (column: number, row: number) => row * 1e6 + column;

const bySquare = new WeakMap<readonly HandEdge[], ReadonlyMap<number, readonly NodeRef[]>>();

/** All nodes by the square that they lie in: a hand that holds hundreds asks for each. */
function squaresOf(edges: readonly HandEdge[]): ReadonlyMap<number, readonly NodeRef[]> {
  const known = bySquare.get(edges);
  if (known) return known;
  const squares = new Map<number, NodeRef[]>();
  edges.forEach(({ path, start }, edge) => {
    const last = segmentCount(path) - (start < 0 ? 1 : 0);
    for (let node = 0; node <= last; node++) {
      const name = nameSquare(squareAt(path[node * 6]), squareAt(path[node * 6 + 1]));
      const own = squares.get(name);
      if (own) own.push({ edge, node });
      else squares.set(name, [{ edge, node }]);
    }
  });
  bySquare.set(edges, squares);
  return squares;
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
