// Columns: what satin is sewn in and lines run along. Each follows one way through an area, straight on through forks.
import { lengthOf, mainDirection } from "../geometry/index.ts";
import type { Ring } from "./area.ts";
import { type Branch, type BranchGraph, findBranches, outwards, turned } from "./branches.ts";
import { measureLine, pointAlong } from "./measured-line.ts";
import { evenOut, type Pair, STATION_MM, STRIDE } from "./stations.ts";
import { type Triangulation, triangulate } from "./triangulate.ts";

/** A strip between two rails. */
export interface Column {
  /** Pairs of points across from each other, STATION_MM apart along the middle: ax, ay, bx, by of each. */
  readonly stations: Float64Array;
  /** Whether its end is its beginning. */
  readonly isClosed: boolean;
}

/** Where columns meet: one goes on there, others end. Places are station numbers. */
export type Joint = readonly { readonly column: number; readonly station: number }[];

export interface Columns {
  readonly columns: readonly Column[];
  readonly joints: readonly Joint[];
}

const NONE: Columns = { columns: [], joints: [] };
/** Corners of triangles lie so far apart, as a share of the mean width, and at least and at most, mm. */
const STEP_SHARE = 0.2;
const LEAST_STEP_MM = 0.12;
const MOST_STEP_MM = 0.5;
/** A column that begins at another's side reaches so far under it, mm, or this share of what there is. */
const UNDER_MM = 0.6;
const UNDER_SHARE = 0.5;
/** How far along a branch its direction at a fork is looked for, as a share of the width there. */
const AHEAD_SHARE = 1.2;
/** What is no longer than this, beside its width, is a spot without a direction of its own. */
const SPOT_SHARE = 1.4;

/** The columns of an area whose mean width is `meanMm`; none where its outline meets itself. */
export function findColumns(rings: readonly Ring[], meanMm: number): Columns {
  const step = Math.min(MOST_STEP_MM, Math.max(LEAST_STEP_MM, meanMm * STEP_SHARE));
  const mesh = triangulate(rings, step);
  if (!mesh) return NONE;
  const graph = findBranches(mesh);
  const chains = chainBranches(mesh, graph);
  const laid = chains.map((chain) => layColumn(mesh, graph, chain));
  if (rings.length === 1 && laid.length === 1 && isSpot(laid[0].column))
    return { columns: [acrossSpot(rings[0])], joints: [] };
  const at = new Map<number, { column: number; station: number }[]>();
  laid.forEach(({ forks }, column) => {
    for (const { node, station } of forks) at.set(node, [...(at.get(node) ?? []), { column, station }]);
  });
  return { columns: laid.map(({ column }) => column), joints: [...at.values()].filter((joint) => joint.length > 1) };
}

/** Branches one after the other, each seen in the direction of the column. */
interface Chain {
  readonly branches: readonly Branch[];
  readonly isClosed: boolean;
}

/** At each fork the two branches that go on straightest are one column. */
function chainBranches(mesh: Triangulation, { branches, degree }: BranchGraph): Chain[] {
  /** At a fork: which branch goes on from which, by id. */
  const onward = new Map<number, ReadonlyMap<number, Branch>>();
  for (const [node, count] of degree) if (count === 3) onward.set(node, pairAt(mesh, node, branches));
  const isTaken = new Set<number>();
  return branches.flatMap((first): Chain[] => {
    if (isTaken.has(first.id)) return [];
    isTaken.add(first.id);
    if (first.from < 0) return [{ branches: [first], isClosed: true }];
    /** What goes on from a branch's end. */
    const follow = (from: Branch): { found: Branch[]; isRound: boolean } => {
      const found: Branch[] = [];
      for (let end = from; ; ) {
        const next = onward.get(end.to)?.get(end.id);
        if (next?.id === first.id && found.length > 0) return { found, isRound: true };
        if (!next || isTaken.has(next.id)) return { found, isRound: false };
        isTaken.add(next.id);
        end = outwards(next, end.to);
        found.push(end);
      }
    };
    const { found, isRound } = follow(first);
    if (isRound) return [{ branches: [first, ...found], isClosed: true }];
    const back = follow(turned(first)).found.map(turned).reverse();
    return [{ branches: [...back, first, ...found], isClosed: false }];
  });
}

function pairAt(mesh: Triangulation, node: number, branches: readonly Branch[]): ReadonlyMap<number, Branch> {
  const ways = branches
    .filter(({ from, to }) => from === node || to === node)
    .map((branch) => ({ branch, way: wayFrom(mesh, outwards(branch, node)) }));
  let best: { one: Branch; other: Branch; cosine: number } | null = null;
  for (const one of ways)
    for (const other of ways) {
      if (one === other) continue;
      const cosine = one.way[0] * other.way[0] + one.way[1] * other.way[1];
      if (!best || cosine < best.cosine) best = { one: one.branch, other: other.branch, cosine };
    }
  if (!best) return new Map();
  const { one, other } = best;
  return new Map([
    [one.id, other],
    [other.id, one],
  ]);
}

/** The direction in which a branch leaves its first triangle. */
function wayFrom({ points }: Triangulation, { rungs }: Branch): readonly [number, number] {
  const middle = ([a, b]: readonly [number, number]) =>
    [(points[a * 2] + points[b * 2]) / 2, (points[a * 2 + 1] + points[b * 2 + 1]) / 2] as const;
  const [x, y] = middle(rungs[0]);
  const [a, b] = rungs[0];
  const width = lengthOf(points[a * 2] - points[b * 2], points[a * 2 + 1] - points[b * 2 + 1]);
  const far = rungs.find((rung) => {
    const [fx, fy] = middle(rung);
    return lengthOf(fx - x, fy - y) > AHEAD_SHARE * width;
  });
  const [toX, toY] = middle(far ?? rungs[rungs.length - 1]);
  const length = lengthOf(toX - x, toY - y);
  if (length > 0) return [(toX - x) / length, (toY - y) / length];
  // A branch of one rung goes straight across it.
  return [(points[b * 2 + 1] - points[a * 2 + 1]) / width, (points[a * 2] - points[b * 2]) / width];
}

/** One column, and the forks on it. */
function layColumn(
  mesh: Triangulation,
  { degree }: BranchGraph,
  { branches, isClosed }: Chain,
): { column: Column; forks: { node: number; station: number }[] } {
  const pairs: Pair[] = [];
  const passed: { node: number; pair: number }[] = [];
  const [first, last] = [branches[0], branches[branches.length - 1]];
  const begin = turned(first);
  if (!isClosed) {
    for (const [ax, ay, bx, by] of endPairs(mesh, degree, begin).reverse()) pairs.push([bx, by, ax, ay]);
    if (degree.get(first.from) === 3) passed.push({ node: first.from, pair: 0 });
  }
  branches.forEach((branch) => {
    branch.rungs.forEach((rung, i) => {
      if (i > 0) pairs.push(...pairsBetween(mesh, branch.rungs[i - 1], rung));
      // Over a fork it goes straight on: what hangs there is another column's.
      else if (branch !== first || isClosed) passed.push({ node: branch.from, pair: pairs.length });
      pairs.push(pairOf(mesh, rung));
    });
  });
  if (isClosed) {
    if (first.from < 0) pairs.push(...pairsBetween(mesh, last.rungs[last.rungs.length - 1], first.rungs[0]));
    pairs.push(pairOf(mesh, first.rungs[0]));
  } else {
    pairs.push(...endPairs(mesh, degree, last));
    if (degree.get(last.to) === 3) passed.push({ node: last.to, pair: pairs.length - 1 });
  }
  const { stations, stationOf } = evenOut(pairs, isClosed);
  const forks = passed.filter(({ node }) => node >= 0).map(({ node, pair }) => ({ node, station: stationOf(pair) }));
  return { column: { stations, isClosed }, forks };
}

function pairOf({ points }: Triangulation, [a, b]: readonly [number, number]): Pair {
  return [points[a * 2], points[a * 2 + 1], points[b * 2], points[b * 2 + 1]];
}

/** Pairs between two rungs: the rail that runs on past a corner, with the other's point. */
function pairsBetween(
  mesh: Triangulation,
  [a, b]: readonly [number, number],
  [toA, toB]: readonly [number, number],
): Pair[] {
  const pairs: Pair[] = [];
  if (a !== toA) for (let i = mesh.after[a]; i !== toA && i !== a; i = mesh.after[i]) pairs.push(pairOf(mesh, [i, b]));
  if (b !== toB)
    for (let i = mesh.before[b]; i !== toB && i !== b; i = mesh.before[i]) pairs.push(pairOf(mesh, [toA, i]));
  return pairs;
}

/** What follows on a branch's last rung: round its end, up to the point where both rails meet; or on under the fork. */
function endPairs(mesh: Triangulation, degree: ReadonlyMap<number, number>, { to, rungs }: Branch): Pair[] {
  const [a, b] = rungs[rungs.length - 1];
  const { points, after, triangles } = mesh;
  const [ax, ay, bx, by] = pairOf(mesh, [a, b]);
  if (degree.get(to) === 3) {
    const far = [0, 1, 2].map((k) => triangles[to * 3 + k]).find((corner) => corner !== a && corner !== b) ?? a;
    const [dx, dy] = [points[far * 2] - (ax + bx) / 2, points[far * 2 + 1] - (ay + by) / 2];
    const share = Math.min(UNDER_SHARE, UNDER_MM / (lengthOf(dx, dy) || 1));
    return [[ax + share * dx, ay + share * dy, bx + share * dx, by + share * dy]];
  }
  const corners = [a];
  for (let i = after[a]; i !== a && corners[corners.length - 1] !== b; i = after[i]) corners.push(i);
  const line = measureLine(corners.flatMap((corner) => [points[corner * 2], points[corner * 2 + 1]]));
  const whole = line.along[line.along.length - 1];
  const at = pointAlong(line);
  const parts = Math.max(2, corners.length);
  return Array.from({ length: parts }, (_, k): Pair => {
    const along = ((k + 1) / parts) * (whole / 2);
    return [...at(along), ...at(whole - along)];
  });
}

function isSpot({ stations, isClosed }: Column): boolean {
  let [widest, long] = [0, 0];
  for (let i = 0; i < stations.length; i += STRIDE) {
    const [ax, ay, bx, by] = stations.subarray(i, i + STRIDE);
    widest = Math.max(widest, lengthOf(bx - ax, by - ay));
    if (i === 0) continue;
    const [lastAx, lastAy, lastBx, lastBy] = stations.subarray(i - STRIDE, i);
    long += lengthOf(ax + bx - lastAx - lastBx, ay + by - lastAy - lastBy) / 2;
  }
  return !isClosed && long < SPOT_SHARE * widest;
}

/** A dot is crossed straight over, along its longer side. */
function acrossSpot(ring: Ring): Column {
  const n = ring.length / 2;
  // Sides stand for as much as they are long: corners may lie anywhere.
  let [all, mx, my] = [0, 0, 0];
  const sides = Array.from({ length: n }, (_, i) => {
    const j = (i + 1) % n;
    const length = lengthOf(ring[j * 2] - ring[i * 2], ring[j * 2 + 1] - ring[i * 2 + 1]);
    const [x, y] = [(ring[i * 2] + ring[j * 2]) / 2, (ring[i * 2 + 1] + ring[j * 2 + 1]) / 2];
    all += length;
    mx += x * length;
    my += y * length;
    return { length, x, y, dx: ring[j * 2] - ring[i * 2], dy: ring[j * 2 + 1] - ring[i * 2 + 1] };
  });
  let [xx, xy, yy] = [0, 0, 0];
  for (const { length, x, y, dx, dy } of sides) {
    const [cx, cy] = [x - mx / all, y - my / all];
    xx += length * (cx * cx + (dx * dx) / 12);
    xy += length * (cx * cy + (dx * dy) / 12);
    yy += length * (cy * cy + (dy * dy) / 12);
  }
  const [ux, uy] = mainDirection(xx, xy, yy);
  const along = Array.from({ length: n }, (_, i) => ring[i * 2] * ux + ring[i * 2 + 1] * uy);
  const [least, most] = [Math.min(...along), Math.max(...along)];
  const [first, last] = [along.indexOf(least), along.indexOf(most)];
  const crossing = (s: number, step: 1 | -1): [number, number] => {
    let i = first;
    while (i !== last && along[(i + step + n) % n] < s) i = (i + step + n) % n;
    const j = i === last ? i : (i + step + n) % n;
    const t = Math.min(1, Math.max(0, (s - along[i]) / (along[j] - along[i] || 1)));
    return [ring[i * 2] + t * (ring[j * 2] - ring[i * 2]), ring[i * 2 + 1] + t * (ring[j * 2 + 1] - ring[i * 2 + 1])];
  };
  const count = Math.max(2, Math.ceil((most - least) / STATION_MM));
  const pairs = Array.from({ length: count + 1 }, (_, k): Pair => {
    const s = least + ((most - least) * k) / count;
    return [...crossing(s, 1), ...crossing(s, -1)];
  });
  return { stations: Float64Array.from(pairs.flat()), isClosed: false };
}
