// The middle of an area as a graph: branches of rungs from outline to outline, parted where three ways meet. Chordal axis:
// L. Prasad, Morphological analysis of shapes, CNLS Newsletter 139, 1997. Which branches are only corners is our own rule.
import { lengthOf } from "../geometry/index.ts";
import { nextSide, type Triangulation } from "./triangulate.ts";

/**
 * A way of triangles from one where more or fewer than two hang together to the next. Rungs are pairs of corners, one on each
 * rail: seen along the branch the first rail runs on with its outline (`after`), the second against it (`before`).
 */
export interface Branch {
  /** The same whichever way it is seen. */
  readonly id: number;
  /** Triangles that it begins and ends in, by number; -1 twice: it closes on itself. */
  readonly from: number;
  readonly to: number;
  readonly rungs: readonly (readonly [number, number])[];
}

/** What is left once corners are taken off. */
export interface BranchGraph {
  readonly branches: readonly Branch[];
  /** Of each triangle in which branches begin or end: how many do. One: it is an end; three: a fork. */
  readonly degree: ReadonlyMap<number, number>;
}

/** A branch that is no longer than this share of its first rung is a corner of what it hangs on (our own). */
const CORNER_SHARE = 0.8;

export function findBranches(mesh: Triangulation): BranchGraph {
  const ways = countWays(mesh);
  let branches = walkBranches(mesh, ways);
  const degree = new Map<number, number>();
  for (const { from, to } of branches)
    if (from >= 0) for (const node of [from, to]) degree.set(node, (degree.get(node) ?? 0) + 1);
  for (;;) {
    const gone = new Set<Branch>();
    for (const [node, count] of degree) {
      if (count !== 3) continue;
      const own = branches.filter((branch) => (branch.from === node || branch.to === node) && !gone.has(branch));
      for (const branch of cornersAt(mesh, node, own, degree)) {
        gone.add(branch);
        degree.delete(branch.from === node ? branch.to : branch.from);
        degree.set(node, (degree.get(node) ?? 0) - 1);
      }
    }
    if (gone.size === 0) return { branches, degree };
    branches = joinThrough(
      branches.filter((branch) => !gone.has(branch)),
      degree,
    );
  }
}

/** Of the branches at a fork those that are corners; at least one stays, two if all three are. */
function cornersAt(
  mesh: Triangulation,
  node: number,
  own: readonly Branch[],
  degree: ReadonlyMap<number, number>,
): readonly Branch[] {
  const heights = own.flatMap((branch) => {
    const far = branch.from === node ? branch.to : branch.from;
    if (far === node || degree.get(far) !== 1) return [];
    const [a, b] = outwards(branch, node).rungs[0];
    const base = lengthBetween(mesh, a, b);
    const height = heightOver(mesh, a, b);
    return height < CORNER_SHARE * base ? [{ branch, height }] : [];
  });
  if (heights.length < 3) return heights.map(({ branch }) => branch);
  heights.sort((one, other) => one.height - other.height);
  return [heights[0].branch];
}

/** The branch as seen from one of its ends. */
export function outwards(branch: Branch, node: number): Branch {
  return branch.from === node ? branch : turned(branch);
}

/** The branch seen the other way. */
export function turned({ id, from, to, rungs }: Branch): Branch {
  return { id, from: to, to: from, rungs: rungs.map(([a, b]) => [b, a] as const).reverse() };
}

function lengthBetween({ points }: Triangulation, a: number, b: number): number {
  return lengthOf(points[b * 2] - points[a * 2], points[b * 2 + 1] - points[a * 2 + 1]);
}

/** How far the outline from `a` on to `b` lies from the straight line between them at most. */
function heightOver({ points, after }: Triangulation, a: number, b: number): number {
  const [ax, ay] = [points[a * 2], points[a * 2 + 1]];
  const [dx, dy] = [points[b * 2] - ax, points[b * 2 + 1] - ay];
  const length = lengthOf(dx, dy) || 1;
  let most = 0;
  for (let i = after[a]; i !== b && i !== a; i = after[i])
    most = Math.max(most, Math.abs((points[i * 2] - ax) * dy - (points[i * 2 + 1] - ay) * dx) / length);
  return most;
}

/** Of each triangle inside: across how many of its sides the area goes on. */
function countWays({ across, isInside }: Triangulation): Int8Array {
  return Int8Array.from(isInside, (inside, t) =>
    inside === 1 ? [0, 1, 2].reduce((sum, k) => sum + (across[t * 3 + k] >= 0 ? 1 : 0), 0) : -1,
  );
}

function walkBranches(mesh: Triangulation, ways: Int8Array): Branch[] {
  const { across } = mesh;
  const isSeen = new Uint8Array(ways.length);
  const isLeft = new Uint8Array(ways.length * 3);
  const branches: Branch[] = [];
  ways.forEach((count, node) => {
    if (count !== 1 && count !== 3) return;
    for (let k = 0; k < 3; k++) {
      const side = node * 3 + k;
      if (across[side] < 0 || isLeft[side] === 1) continue;
      const { rungs, last } = walk(mesh, ways, side, isSeen);
      isLeft[side] = 1;
      isLeft[across[last]] = 1;
      branches.push({ id: branches.length, from: node, to: Math.floor(across[last] / 3), rungs });
    }
  });
  // What is left goes round without an end.
  ways.forEach((count, t) => {
    if (count !== 2 || isSeen[t] === 1) return;
    const side = [0, 1, 2].map((k) => t * 3 + k).find((s) => across[s] >= 0) ?? t * 3;
    isSeen[t] = 1;
    branches.push({ id: branches.length, from: -1, to: -1, rungs: walk(mesh, ways, side, isSeen).rungs });
  });
  return branches;
}

/** From a triangle out by `side` through those with two ways, up to one with another number or the first again. */
function walk(
  { triangles, across }: Triangulation,
  ways: Int8Array,
  side: number,
  isSeen: Uint8Array,
): { rungs: (readonly [number, number])[]; last: number } {
  const rungs: (readonly [number, number])[] = [];
  const start = Math.floor(side / 3);
  for (let out = side; ; ) {
    rungs.push([triangles[out], triangles[nextSide(out)]]);
    const entered = across[out];
    const t = Math.floor(entered / 3);
    if (ways[t] !== 2 || t === start) return { rungs, last: out };
    isSeen[t] = 1;
    const one = nextSide(entered);
    out = across[one] >= 0 ? one : nextSide(one);
  }
}

/** Branches that meet where a corner was taken off are one. */
function joinThrough(branches: readonly Branch[], degree: Map<number, number>): Branch[] {
  let joined = [...branches];
  for (const [node, count] of [...degree]) {
    if (count !== 2) continue;
    const own = joined.filter(({ from, to }) => from === node || to === node);
    degree.delete(node);
    if (own.length === 1) {
      // Both its ends: it goes round.
      joined = joined.map((branch) => (branch === own[0] ? { ...branch, from: -1, to: -1 } : branch));
      continue;
    }
    const [one, other] = [turned(outwards(own[0], node)), outwards(own[1], node)];
    const branch = { id: one.id, from: one.from, to: other.to, rungs: [...one.rungs, ...other.rungs] };
    joined = [...joined.filter((each) => !own.includes(each)), branch];
  }
  return joined;
}
