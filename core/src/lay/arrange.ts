// The arrangement: the map's boundaries and what is laid, cut wherever they meet, each stretch once.
import {
  type Bounds,
  boundsOfAll,
  type CubicPath,
  isClosed,
  lengthOf,
  reversePath,
  segmentCount,
  withEnds,
} from "../geometry/index.ts";
import type { PlanarMap } from "../trace/index.ts";
import { findCrossings, type PieceCut } from "./crossings.ts";
import { makePieces, type Piece, pathOfPiece, runsAlong } from "./pieces.ts";
import { shareStretches } from "./shared-stretches.ts";
import { cutStrand, openVertices, SNAP_PX, type Strand, type Vertices } from "./strand.ts";
import { dropDots } from "./tidy.ts";
import { cutAtTouches } from "./touches.ts";

/** What is laid: closed paths with the area inside them, or open ones that only cut. */
export interface Laid {
  readonly paths: readonly CubicPath[];
  readonly isHeld?: boolean;
  readonly isCut?: boolean;
}

/** One stretch between two vertices, or a ring that meets nothing. */
export interface Arc {
  readonly strand: Strand;
  readonly from: number;
  readonly to: number;
  readonly start: number;
  readonly end: number;
  /** How the curve leaves its start and, seen from there, its end. */
  readonly leaves: readonly [number, number];
  readonly arrives: readonly [number, number];
  /** By how much each outline's winding is larger on the left than on the right. */
  readonly windings: readonly number[];
  /** Cut by hand. */
  readonly isCut: boolean;
}

export interface Arrangement {
  readonly vertices: Vertices;
  /** Vertices that were not in the map, or at which something was laid. */
  readonly touched: ReadonlySet<number>;
  readonly arcs: readonly Arc[];
  /** The arcs of every edge of the map, in its direction. */
  readonly arcsOfEdge: readonly (readonly number[])[];
}

/** Lays curves among the boundaries of a map. */
export function arrange(map: PlanarMap, laid: readonly Laid[]): Arrangement {
  const vertices = openVertices(map.vertices);
  const fresh = freshStrands(laid);
  const region = around(fresh.map(({ path }) => path));
  const old = map.edges.map(
    (edge): Strand => ({ path: edge.path, edge, sides: [], isHeld: edge.isHeld, isCut: edge.isCut, cuts: [] }),
  );
  const near = old.filter(({ path }) => isNear(path, region));
  cutAtTouches(fresh, near, vertices);
  for (const strand of fresh)
    if (!isClosed(strand.path))
      for (const at of [0, segmentCount(strand.path)]) {
        const [x, y] = [strand.path[at * 6], strand.path[at * 6 + 1]];
        cutStrand(strand, at, vertices.at(x, y));
      }
  const pieces = makePieces(near, vertices, region);
  const firstLaid = pieces.length;
  const sides = joinAlong(pieces, makePieces(fresh, vertices, region), laid.length);
  const cuts = findCrossings(pieces, firstLaid, vertices);
  return collectArcs(old, pieces, sides, cuts, vertices, map.vertices.length / 2, laid.length);
}

/** What is laid as strands: outlines by what they share, cuts as they are. */
function freshStrands(laid: readonly Laid[]): Strand[] {
  const rings = laid.flatMap(({ paths, isHeld = false, isCut = false }, outline) =>
    isCut ? [] : paths.map((path) => ({ path, outline, isHeld })),
  );
  const shared = shareStretches(rings).map((one) => ({ ...one, isCut: false }));
  const cuts = laid.flatMap(({ paths, isHeld = false, isCut = false }) =>
    isCut ? paths.map((path) => ({ path, isHeld, isCut, sides: [] })) : [],
  );
  return [...shared, ...cuts]
    .map((one): Strand => ({ ...one, path: dropDots(one.path), edge: null, cuts: [] }))
    .filter(({ path }) => path.length > 0);
}

function around(paths: readonly CubicPath[]): Bounds {
  const { left, top, right, bottom } = boundsOfAll(paths);
  const margin = 2 * SNAP_PX;
  return { left: left - margin, top: top - margin, right: right + margin, bottom: bottom + margin };
}

function isNear(path: CubicPath, { left, top, right, bottom }: Bounds): boolean {
  const box = boundsOfAll([path]);
  return box.right >= left && box.left <= right && box.bottom >= top && box.top <= bottom;
}

/** What a piece says of the outlines, and whether it was cut by hand. */
interface Sides {
  readonly windings: number[];
  isCut: boolean;
}

/** Appends what is laid to the map's pieces, but for what runs along one that is there: that one stands for both. */
function joinAlong(pieces: Piece[], laid: readonly Piece[], outlines: number): Sides[] {
  const sides = pieces.map(({ strand }): Sides => ({ windings: new Array(outlines).fill(0), isCut: strand.isCut }));
  const between = new Map<string, number[]>();
  const keyOf = ({ start, end }: Piece) => (start < end ? `${start} ${end}` : `${end} ${start}`);
  const enter = (piece: Piece, k: number) => {
    if (piece.start < 0) return;
    const list = between.get(keyOf(piece));
    if (list) list.push(k);
    else between.set(keyOf(piece), [k]);
  };
  pieces.forEach(enter);
  for (const piece of laid) {
    const beside = (between.get(keyOf(piece)) ?? []).map((k) => ({ k, way: runsAlong(piece, pieces[k]) }));
    const { k: own, way } = beside.find((one) => one.way !== 0) ?? { k: pieces.length, way: 1 };
    if (own === pieces.length) {
      sides.push({ windings: new Array(outlines).fill(0), isCut: false });
      enter(piece, own);
      pieces.push(piece);
    }
    const { sides: outlinesOn, isCut } = piece.strand;
    for (const one of outlinesOn) sides[own].windings[one.outline] += way * one.way;
    if (isCut) sides[own].isCut = true;
  }
  return sides;
}

function collectArcs(
  old: readonly Strand[],
  pieces: readonly Piece[],
  sides: readonly Sides[],
  cuts: ReadonlyMap<number, readonly PieceCut[]>,
  vertices: Vertices,
  oldVertices: number,
  outlines: number,
): Arrangement {
  const arcs: Arc[] = [];
  const touched = new Set<number>();
  const nothing = new Array<number>(outlines).fill(0);
  const ofStrand = new Map<Strand, number[]>();
  pieces.forEach(({ strand }, k) => {
    const list = ofStrand.get(strand);
    if (list) list.push(k);
    else ofStrand.set(strand, [k]);
  });
  const addPieces = (strand: Strand, own: readonly number[]) =>
    own.flatMap((k) => {
      const { windings, isCut } = sides[k];
      const isNew = strand.edge === null || isCut !== strand.isCut || windings.some((w) => w !== 0);
      return splitPiece(pieces[k], cuts.get(k) ?? []).map((arc) => {
        for (const vertex of [arc.start, arc.end])
          if (vertex >= 0 && (isNew || vertex >= oldVertices)) touched.add(vertex);
        arcs.push({ ...arc, windings, isCut });
        return arcs.length - 1;
      });
    });
  const arcsOfEdge = old.map((strand) => {
    const own = ofStrand.get(strand);
    ofStrand.delete(strand);
    if (own) return addPieces(strand, own);
    arcs.push(wholeArc(strand, nothing));
    return [arcs.length - 1];
  });
  for (const [strand, own] of ofStrand) addPieces(strand, own);
  return { vertices, touched, arcs, arcsOfEdge };
}

/** An edge of the map that nothing comes near. */
function wholeArc(strand: Strand, windings: readonly number[]): Arc {
  const { edge, path, isCut } = strand;
  const [start, end] = [edge?.start ?? -1, edge?.end ?? -1];
  const directions = { leaves: tangentOf(path), arrives: tangentOf(reversePath(path)) };
  return { strand, from: 0, to: segmentCount(path), start, end, windings, isCut, ...directions };
}

/** How a path leaves its first point. */
function tangentOf(path: CubicPath): readonly [number, number] {
  for (let i = 2; i < path.length; i += 2) {
    const [dx, dy] = [path[i] - path[0], path[i + 1] - path[1]];
    if (lengthOf(dx, dy) > SNAP_PX) return [dx, dy];
  }
  return [0, 0];
}

/** A piece cut at its crossings. A ring that is crossed once or more begins at the first of them. */
function splitPiece(piece: Piece, cuts: readonly PieceCut[]): Omit<Arc, "windings" | "isCut">[] {
  const { strand, from, to, start, end, line } = piece;
  const n = line.length;
  const direction = (i: number, sign: 1 | -1): readonly [number, number] => [
    sign * (line[i + 2] - line[i]),
    sign * (line[i + 3] - line[i + 1]),
  ];
  if (cuts.length === 0)
    return [{ strand, from, to, start, end, leaves: direction(0, 1), arrives: direction(n - 4, -1) }];
  const arcs: Omit<Arc, "windings" | "isCut">[] = [];
  const between = (a: PieceCut, b: PieceCut, beyond: number) => ({
    ...{ strand, from: a.at, to: b.at + beyond, start: a.vertex, end: b.vertex },
    leaves: direction(a.step, 1),
    arrives: direction(b.step, -1),
  });
  const [first, last] = [cuts[0], cuts[cuts.length - 1]];
  if (start >= 0) arcs.push({ ...between(first, first, 0), from, start, leaves: direction(0, 1) });
  for (let k = 1; k < cuts.length; k++) arcs.push(between(cuts[k - 1], cuts[k], 0));
  if (start >= 0) arcs.push({ ...between(last, last, 0), to, end, arrives: direction(n - 4, -1) });
  else arcs.push(between(last, first, segmentCount(strand.path)));
  return arcs;
}

/** The curve of an arc, its ends at its vertices. */
export function pathOfArc({ strand, from, to, start, end }: Arc, vertices: Vertices): CubicPath {
  const path = pathOfPiece({ strand, from, to });
  if (start < 0) return path;
  return withEnds(path, vertices.x[start], vertices.y[start], vertices.x[end], vertices.y[end]);
}
