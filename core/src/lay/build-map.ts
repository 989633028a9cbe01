// From cells and what becomes of them to a planar map: boundaries that part nothing go, what hangs together is one edge again.
import { type CubicPath, joinPaths, pathArea, reversePath, segmentCount, withEnds } from "../geometry/index.ts";
import { BARE, type MapEdge, type MapFace, type PlanarMap, ringPath } from "../trace/index.ts";
import type { Arc, Arrangement } from "./arrange.ts";
import type { Cells } from "./cells.ts";
import { pathOfPiece } from "./pieces.ts";
import type { Strand } from "./strand.ts";

/** What becomes of every cell: a spot, or null for nothing. */
export type Labels = readonly (string | null)[];

/** The map in which every cell has its label. `keepsCut`: whether a cut stays that parts cells of this spot. */
export function buildMap<M extends PlanarMap>(
  map: M,
  arrangement: Arrangement,
  next: Int32Array,
  cells: Cells,
  labels: Labels,
  keepsCut: (spotId: string) => boolean,
): M {
  const { arcs } = arrangement;
  const root = uniteCells(arcs, cells, labels, keepsCut);
  const isKept = arcs.map((_, k) => {
    const [left, right] = [root(cells.ofHalf[2 * k]), root(cells.ofHalf[2 * k + 1])];
    return left !== right && (labels[left] !== null || labels[right] !== null);
  });
  const chains = chainArcs(arrangement, isKept);
  const { numberOf, spots } = numberFaces(cells, labels, root);
  const rings: number[][][] = spots.map(() => []);
  const chainOf = new Int32Array(arcs.length).fill(-1);
  chains.forEach(({ halves }, c) => {
    for (const half of halves) chainOf[half >> 1] = c;
  });
  // Every chain once on either side: its first half stands for it.
  const follow = (half: number) => {
    let following = next[half];
    while (!isKept[following >> 1]) following = next[following ^ 1];
    return following;
  };
  const seen = new Uint8Array(chains.length * 2);
  const faceAt = (cell: number) => numberOf.get(root(cell)) ?? BARE;
  for (let first = 0; first < seen.length; first++) {
    if (seen[first]) continue;
    const start = halfOfChain(chains[first >> 1], first & 1);
    const face = faceAt(cells.ofHalf[start]);
    const ring: number[] = [];
    for (let chain = first; !seen[chain]; ) {
      seen[chain] = 1;
      ring.push(chain);
      const { halves } = chains[chain >> 1];
      const lastHalf = (chain & 1) === 0 ? halves[halves.length - 1] : halves[0] ^ 1;
      const following = follow(lastHalf);
      const c = chainOf[following >> 1];
      const isForward = chains[c].halves.includes(following);
      chain = c * 2 + (isForward ? 0 : 1);
    }
    if (face !== BARE) rings[face].push(ring);
  }
  return assemble(map, arrangement, chains, rings, spots, (chain, side) =>
    faceAt(cells.ofHalf[halfOfChain(chains[chain], side)]),
  );
}

/** Cells that have become one: the lowest stands for all. */
function uniteCells(
  arcs: readonly Arc[],
  { ofHalf, faces }: Cells,
  labels: Labels,
  keepsCut: (spotId: string) => boolean,
): (cell: number) => number {
  const parent = faces.map((_, k) => k);
  const root = (cell: number): number => {
    let own = cell;
    while (parent[own] !== own) own = parent[own];
    while (parent[cell] !== own) [cell, parent[cell]] = [parent[cell], own];
    return own;
  };
  arcs.forEach(({ strand, isCut }, k) => {
    const [left, right] = [root(ofHalf[2 * k]), root(ofHalf[2 * k + 1])];
    const label = labels[left];
    const isOld = strand.edge?.isCut === true;
    const isCutThere = isCut && label !== null && (isOld || keepsCut(label));
    if (left !== right && labels[left] === labels[right] && !isCutThere)
      parent[Math.max(left, right)] = Math.min(left, right);
  });
  return root;
}

/** Numbers for what cells have become, in the order of the faces that were there. */
function numberFaces({ faces }: Cells, labels: Labels, root: (cell: number) => number) {
  const roots = faces.flatMap((_, cell) => (root(cell) === cell && labels[cell] !== null ? [cell] : []));
  roots.sort((a, b) => faces[a] - faces[b] || a - b);
  return { numberOf: new Map(roots.map((cell, f) => [cell, f])), spots: roots.map((cell) => labels[cell] ?? "") };
}

/** Arcs that are one edge: halves in their order. */
interface Chain {
  readonly halves: readonly number[];
}

/** The half with which a chain begins, seen from one of its sides. */
function halfOfChain({ halves }: Chain, side: number): number {
  return side === 0 ? halves[0] : halves[halves.length - 1] ^ 1;
}

/** Kept arcs joined over vertices at which only two of them meet any more. */
function chainArcs({ arcs, touched }: Arrangement, isKept: readonly boolean[]): Chain[] {
  const leaving = new Map<number, number[]>();
  const lost = new Set<number>();
  arcs.forEach(({ start, end }, k) => {
    if (start < 0) return;
    for (const [vertex, half] of [
      [start, 2 * k],
      [end, 2 * k + 1],
    ] as const) {
      if (!isKept[k]) lost.add(vertex);
      else if (leaving.has(vertex)) leaving.get(vertex)?.push(half);
      else leaving.set(vertex, [half]);
    }
  });
  const through = (vertex: number): readonly number[] | null => {
    const halves = leaving.get(vertex) ?? [];
    if (halves.length !== 2 || (!touched.has(vertex) && !lost.has(vertex))) return null;
    const [a, b] = [arcs[halves[0] >> 1], arcs[halves[1] >> 1]];
    return isHeld(a) === isHeld(b) && a.isCut === b.isCut ? halves : null;
  };
  const endOf = (half: number) => ((half & 1) === 0 ? arcs[half >> 1].end : arcs[half >> 1].start);
  const onwards = (half: number): number => {
    const vertex = endOf(half);
    const pair = vertex < 0 ? null : through(vertex);
    if (!pair) return -1;
    return pair[0] === (half ^ 1) ? pair[1] : pair[0];
  };
  const done = new Uint8Array(arcs.length);
  const chains: Chain[] = [];
  for (let k = 0; k < arcs.length; k++) {
    if (!isKept[k] || done[k]) continue;
    // Back to where it begins, or once round.
    let first = 2 * k;
    for (let back = onwards(first ^ 1); back >= 0 && back >> 1 !== k; back = onwards(back)) first = back ^ 1;
    const isRound = onwards(first ^ 1) >= 0;
    if (isRound) first = 2 * k;
    const halves: number[] = [];
    for (let half = first; half >= 0 && !done[half >> 1]; half = onwards(half)) {
      done[half >> 1] = 1;
      halves.push(half);
    }
    chains.push({ halves: isRound ? fromSeam(halves, arcs) : halves });
  }
  return chains;
}

function isHeld({ strand }: Arc): boolean {
  return strand.isHeld;
}

/** A closed chain begun where it goes from one strand to another, or at a strand's own first node. */
function fromSeam(halves: readonly number[], arcs: readonly Arc[]): number[] {
  const seam = halves.findIndex((half, k) => !continues(arcs, halves[(k + halves.length - 1) % halves.length], half));
  return seam <= 0 ? [...halves] : [...halves.slice(seam), ...halves.slice(0, seam)];
}

/** Whether the second half goes on along the strand where the first one ends. */
function continues(arcs: readonly Arc[], a: number, b: number): boolean {
  const [from, to] = [arcs[a >> 1], arcs[b >> 1]];
  if (from.strand !== to.strand || (a & 1) !== (b & 1)) return false;
  return (a & 1) === 0 ? from.to === to.from : from.from === to.to;
}

/** A stretch of one strand within a chain. */
interface Stretch {
  readonly strand: Strand;
  from: number;
  to: number;
  readonly isBack: boolean;
}

function stretchesOf({ halves }: Chain, arcs: readonly Arc[]): Stretch[] {
  const out: Stretch[] = [];
  halves.forEach((half, k) => {
    const { strand, from, to } = arcs[half >> 1];
    const isBack = (half & 1) === 1;
    const last = out.at(-1);
    if (last && k > 0 && continues(arcs, halves[k - 1], half)) {
      if (isBack) last.from = from;
      else last.to = to;
    } else out.push({ strand, from, to, isBack });
  });
  return out;
}

function assemble<M extends PlanarMap>(
  map: M,
  { arcs, vertices }: Arrangement,
  chains: readonly Chain[],
  rings: readonly (readonly (readonly number[])[])[],
  spots: readonly string[],
  faceBeside: (chain: number, side: number) => number,
): M {
  const numbers = new Map<number, number>();
  const places: number[] = [];
  const vertexOf = (vertex: number) => {
    const found = numbers.get(vertex);
    if (found !== undefined) return found;
    numbers.set(vertex, numbers.size);
    places.push(vertices.x[vertex], vertices.y[vertex]);
    return numbers.size - 1;
  };
  const endsOf = ({ halves }: Chain) => {
    const [first, last] = [halves[0], halves[halves.length - 1]];
    const start = (first & 1) === 0 ? arcs[first >> 1].start : arcs[first >> 1].end;
    const end = (last & 1) === 0 ? arcs[last >> 1].end : arcs[last >> 1].start;
    return { start, end };
  };
  const meets = countEnds(chains.map(endsOf));
  const edges = chains.map((chain, c): MapEdge => {
    const { start, end } = endsOf(chain);
    const isClosed = start < 0 || (start === end && meets.get(start) === 2);
    const [left, right] = [faceBeside(c, 0), faceBeside(c, 1)];
    const stretches = stretchesOf(chain, arcs);
    const { strand, from, to } = stretches[0];
    const ends = { left, right, start: isClosed ? -1 : vertexOf(start), end: isClosed ? -1 : vertexOf(end) };
    const isWhole = stretches.length === 1 && from === 0 && to === segmentCount(strand.path) && !stretches[0].isBack;
    const isCut = arcs[chain.halves[0] >> 1].isCut;
    if (isWhole && strand.edge && !isMoved(strand.path, start, end, vertices))
      return { ...strand.edge, ...ends, isCut };
    const path = pathOfStretches(stretches);
    return {
      ...ends,
      path: start < 0 ? path : withEnds(path, vertices.x[start], vertices.y[start], vertices.x[end], vertices.y[end]),
      read: joinReads(stretches),
      isHeld: strand.isHeld,
      isCut,
    };
  });
  const pathsOf = keepPaths(map, edges);
  const areas = new Map(map.faces.map(({ paths, areaPx }) => [paths, areaPx]));
  const faces = rings.map((own, f): MapFace => {
    const halves = own.map((ring) => Int32Array.from(ring));
    const paths = pathsOf(halves);
    const areaPx = areas.get(paths) ?? Math.abs(paths.reduce((sum, path) => sum + pathArea(path), 0));
    return { spotId: spots[f], areaPx, rings: halves, paths };
  });
  return { ...map, vertices: Float64Array.from(places), edges, faces };
}

/** How many ends meet at every vertex. */
function countEnds(ends: readonly { readonly start: number; readonly end: number }[]): Map<number, number> {
  const counts = new Map<number, number>();
  for (const { start, end } of ends)
    for (const vertex of [start, end]) counts.set(vertex, (counts.get(vertex) ?? 0) + 1);
  return counts;
}

function isMoved(path: CubicPath, start: number, end: number, { x, y }: Arrangement["vertices"]): boolean {
  if (start < 0) return false;
  const n = path.length;
  return path[0] !== x[start] || path[1] !== y[start] || path[n - 2] !== x[end] || path[n - 1] !== y[end];
}

function pathOfStretches(stretches: readonly Stretch[]): CubicPath {
  const parts: CubicPath[] = [];
  for (const { strand, from, to, isBack } of stretches) {
    const path = pathOfPiece({ strand, from, to });
    const part = isBack ? reversePath(path) : path;
    const last = parts.at(-1);
    // Each ends where the next begins; what was snapped to a vertex follows it.
    parts.push(
      last
        ? withEnds(part, last[last.length - 2], last[last.length - 1], part[part.length - 2], part[part.length - 1])
        : part,
    );
  }
  return joinPaths(parts);
}

/** The points that the stretches were fitted to. */
function joinReads(stretches: readonly Stretch[]): Float64Array {
  return Float64Array.from(
    stretches.flatMap(({ strand, from, to, isBack }) => {
      const read = strand.edge?.read;
      if (!read || read.length === 0) return [];
      const points = readBetween(read, pathOfPiece({ strand, from, to }));
      return isBack ? [...reversePath(Float64Array.from(points))] : points;
    }),
  );
}

/** Those of an edge's points that lie between the ends of a stretch of it; of a closed one over its first point, if need be. */
function readBetween(read: Float64Array, path: CubicPath): number[] {
  const nearest = (x: number, y: number) => {
    let [best, least] = [0, Number.POSITIVE_INFINITY];
    for (let i = 0; i < read.length; i += 2) {
      const square = (read[i] - x) * (read[i] - x) + (read[i + 1] - y) * (read[i + 1] - y);
      if (square < least) [best, least] = [i, square];
    }
    return best;
  };
  const [from, to] = [nearest(path[0], path[1]), nearest(path[path.length - 2], path[path.length - 1])];
  if (from <= to) return Array.from(read.subarray(from, to + 2));
  return [...read.subarray(from), ...read.subarray(0, to + 2)];
}

/** Gives rings that have the very same boundaries as before the paths that they had. */
function keepPaths(map: PlanarMap, edges: readonly MapEdge[]): (rings: readonly Int32Array[]) => readonly CubicPath[] {
  const oldEdge = new Map(map.edges.map(({ path }, e) => [path, e]));
  const oldRing = new Map<number, { readonly ring: Int32Array; readonly face: MapFace; readonly path: CubicPath }>();
  for (const face of map.faces)
    face.rings.forEach((ring, r) => {
      for (const half of ring) oldRing.set(half, { ring, face, path: face.paths[r] });
    });
  const before = (ring: Int32Array) => {
    const old = ring.map((half) => {
      const e = oldEdge.get(edges[half >> 1].path);
      return e === undefined ? -1 : 2 * e + (half & 1);
    });
    const found = oldRing.get(old[0]);
    if (!found || found.ring.length !== old.length) return null;
    const shift = found.ring.indexOf(old[0]);
    return old.every((half, k) => half === found.ring[(k + shift) % old.length]) ? found : null;
  };
  return (rings) => {
    const found = rings.map(before);
    const face = found[0]?.face;
    if (face && face.rings.length === rings.length && found.every((one) => one?.face === face)) return face.paths;
    return rings.map((ring, r) => found[r]?.path ?? ringPath({ edges }, ring));
  };
}
