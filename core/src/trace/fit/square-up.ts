// Level and plumb lines: a side that is upright or level to within what can be read off pixels is meant to be, and sides
// that continue each other lie on one line. Nodes move by a twentieth of a pixel at most; right angles come out exactly.
import { type CubicPath, isLine, segmentCount } from "../../geometry/index.ts";

/** A line this much off, px, over at least this length is meant to be level or upright. */
const OFF_PX = 0.12;
const LEAST_PX = 4;
/** Nodes that would have to move farther than this stay. */
const MOST_PX = 0.08;

/** An edge whose path may be changed in place. */
interface Edge {
  readonly start: number;
  readonly end: number;
  readonly path: CubicPath;
}

/** Straightens the level and upright lines of all edges, in place; `vertices` (x, y pairs) move with them. */
export function squareUp(edges: readonly Edge[], vertices: Float64Array, width: number, height: number): void {
  const nodes = numberNodes(edges, vertices.length / 2);
  for (const axis of [0, 1] as const) {
    const group = groupLines(edges, nodes, axis);
    const moves = moveGroups(edges, nodes, group, axis, axis === 0 ? width : height);
    for (const [e, { path }] of edges.entries()) moveNodes(path, nodes.of[e], moves, axis);
    for (let v = 0; v < vertices.length / 2; v++) vertices[v * 2 + axis] += moves[v];
  }
}

interface Nodes {
  readonly count: number;
  /** Number of node k of edge e. */
  readonly of: readonly Int32Array[];
}

/** Vertices are nodes 0.. in their own order; every edge adds those of its own. */
function numberNodes(edges: readonly Edge[], vertices: number): Nodes {
  let count = vertices;
  const of = edges.map(({ start, end, path }) => {
    const segments = segmentCount(path);
    const ids = new Int32Array(segments + 1);
    for (let k = 0; k <= segments; k++) {
      if (k === 0 && start >= 0) ids[k] = start;
      else if (k === segments) ids[k] = end >= 0 ? end : ids[0];
      else ids[k] = count++;
    }
    return ids;
  });
  return { count, of };
}

/** The nodes that lie on one level (axis 1) or upright (axis 0) line have one representative. */
function groupLines(edges: readonly Edge[], { count, of }: Nodes, axis: 0 | 1): Int32Array {
  const group = Int32Array.from({ length: count }, (_, i) => i);
  const find = (i: number): number => {
    let root = i;
    while (group[root] !== root) root = group[root];
    for (let at = i; at !== root; ) {
      const next = group[at];
      group[at] = root;
      at = next;
    }
    return root;
  };
  edges.forEach(({ path }, e) => {
    for (let s = 0; s < segmentCount(path); s++) {
      const o = s * 6;
      const off = Math.abs(path[o + 6 + axis] - path[o + axis]);
      const along = Math.abs(path[o + 7 - axis] - path[o + 1 - axis]);
      if (isLine(path, s) && off <= OFF_PX && along >= LEAST_PX) group[find(of[e][s + 1])] = find(of[e][s]);
    }
  });
  for (let i = 0; i < count; i++) group[i] = find(i);
  return group;
}

/** How far every node moves along the axis: to the mean of its line, or to the picture's edge. */
function moveGroups(
  edges: readonly Edge[],
  { count, of }: Nodes,
  group: Int32Array,
  axis: 0 | 1,
  edge: number,
): Float64Array {
  const at = new Float64Array(count);
  edges.forEach(({ path }, e) => {
    for (let k = 0; k <= segmentCount(path); k++) at[of[e][k]] = path[k * 6 + axis];
  });
  const sum = new Float64Array(count);
  const members = new Int32Array(count);
  const pinned = new Float64Array(count).fill(Number.NaN);
  for (let i = 0; i < count; i++) {
    sum[group[i]] += at[i];
    members[group[i]]++;
    if (at[i] === 0 || at[i] === edge) pinned[group[i]] = at[i];
  }
  const moves = new Float64Array(count);
  const isKept = new Uint8Array(count);
  for (let i = 0; i < count; i++) {
    const g = group[i];
    moves[i] = (Number.isNaN(pinned[g]) ? sum[g] / members[g] : pinned[g]) - at[i];
    if (Math.abs(moves[i]) > MOST_PX) isKept[g] = 1;
  }
  for (let i = 0; i < count; i++) if (isKept[group[i]] || members[group[i]] < 2) moves[i] = 0;
  return moves;
}

/** Moves nodes with the handles beside them; a line's handles are its ends. */
function moveNodes(path: CubicPath, ids: Int32Array, moves: Float64Array, axis: 0 | 1): void {
  const last = ids.length - 1;
  for (let k = 0; k <= last; k++) {
    const move = moves[ids[k]];
    if (move === 0) continue;
    const o = k * 6 + axis;
    path[o] += move;
    if (k > 0) path[o - 2] += move;
    if (k < last) path[o + 2] += move;
  }
}
