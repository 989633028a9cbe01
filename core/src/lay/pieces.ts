// Pieces: strands between their cuts, each with a fine polyline that decides where it lies among the others.
import {
  type Bounds,
  type CubicPath,
  flattenSteps,
  lengthOf,
  nearestOnPath,
  partOfPath,
  pointAlong,
  segmentCount,
} from "../geometry/index.ts";
import { isRing, SNAP_PX, type Strand, type Vertices } from "./strand.ts";

/** A polyline stays this close to its curve, px. */
const FINE_PX = SNAP_PX;

/** A stretch of a strand between two vertices, or a whole ring that meets nothing (both -1). */
export interface Piece {
  readonly strand: Strand;
  /** Places along the strand's path; `to` lies beyond its last segment where the piece runs over a ring's first node. */
  readonly from: number;
  readonly to: number;
  readonly start: number;
  readonly end: number;
  /** Points, x, y pairs, and the place of each along the strand; ends are exactly at the vertices. */
  readonly line: readonly number[];
  readonly ats: readonly number[];
}

/** Cuts strands into pieces; those of no length go. Beyond `region` nothing happens: curves need not be followed closely there. */
export function makePieces(strands: readonly Strand[], vertices: Vertices, region: Bounds): Piece[] {
  return strands.flatMap((strand) => {
    const cuts = inOrder(strand);
    const segments = segmentCount(strand.path);
    if (cuts.length === 0) return [makePiece({ strand, from: 0, to: segments, start: -1, end: -1 }, vertices, region)];
    const pieces: Piece[] = [];
    const last = isRing(strand) ? cuts.length : cuts.length - 1;
    for (let k = 0; k < last; k++) {
      const [a, b] = [cuts[k], cuts[(k + 1) % cuts.length]];
      const to = k + 1 < cuts.length ? b.at : b.at + segments;
      const piece = makePiece({ strand, from: a.at, to, start: a.vertex, end: b.vertex }, vertices, region);
      if (a.vertex !== b.vertex || lengthAtMost(piece, 4 * SNAP_PX) > 3 * SNAP_PX) pieces.push(piece);
    }
    return pieces;
  });
}

/** A strand's cuts along it; one that is open is cut at its ends in any case. */
function inOrder(strand: Strand): Strand["cuts"] {
  const { edge, path, cuts } = strand;
  const sorted = cuts.toSorted((a, b) => a.at - b.at);
  if (!edge || edge.start < 0) return sorted;
  const inner = sorted.filter(
    ({ at, vertex }) =>
      at > 0 &&
      at < segmentCount(path) &&
      !((vertex === edge.start && at < 0.5) || (vertex === edge.end && at > segmentCount(path) - 0.5)),
  );
  return [{ at: 0, vertex: edge.start }, ...inner, { at: segmentCount(path), vertex: edge.end }];
}

function makePiece(bare: Omit<Piece, "line" | "ats">, vertices: Vertices, region: Bounds): Piece {
  const { strand, from, to, start, end } = bare;
  const { path } = strand;
  const segments = segmentCount(path);
  const line: number[] = [];
  const ats: number[] = [];
  const add = (at: number) => {
    line.push(...pointAlong(path, at <= segments ? at : at - segments));
    ats.push(at);
  };
  add(from);
  for (let turn = Math.floor(from); turn < to; turn++) {
    const s = turn % segments;
    const steps = isAway(path, s, region) ? 1 : flattenSteps(path, s, FINE_PX);
    for (let k = 1; k <= steps; k++) {
      const at = turn + k / steps;
      if (at > from && at < to) add(at);
    }
  }
  add(to);
  if (start >= 0) [line[0], line[1]] = [vertices.x[start], vertices.y[start]];
  if (end >= 0) [line[line.length - 2], line[line.length - 1]] = [vertices.x[end], vertices.y[end]];
  return { ...bare, line, ats };
}

/** Whether a segment lies outside a box; its chord does then, too. */
function isAway(path: CubicPath, s: number, { left, top, right, bottom }: Bounds): boolean {
  const [x0, y0, x1, y1, x2, y2, x3, y3] = path.subarray(s * 6, s * 6 + 8);
  return (
    Math.max(x0, x1, x2, x3) < left ||
    Math.min(x0, x1, x2, x3) > right ||
    Math.max(y0, y1, y2, y3) < top ||
    Math.min(y0, y1, y2, y3) > bottom
  );
}

/** Length of a piece's polyline, or something over `most`. */
function lengthAtMost({ line }: Piece, most: number): number {
  let length = 0;
  for (let i = 2; i < line.length && length <= most; i += 2)
    length += lengthOf(line[i] - line[i - 2], line[i + 1] - line[i - 1]);
  return length;
}

/** The curve of a piece, from vertex to vertex. */
export function pathOfPiece({ strand, from, to }: Pick<Piece, "strand" | "from" | "to">): CubicPath {
  const turns = from >= segmentCount(strand.path) ? segmentCount(strand.path) : 0;
  return partOfPath(strand.path, from - turns, to - turns);
}

/** Places of a piece, as shares of it, at which it is compared with another. */
const SHARES = [0.2, 0.5, 0.8] as const;

/** Whether two pieces run along each other: 1 the same way, -1 against each other, 0 not. */
export function runsAlong(a: Piece, b: Piece): -1 | 0 | 1 {
  const isSame = a.start === b.start && a.end === b.end;
  if (!isSame && (a.start !== b.end || a.end !== b.start)) return 0;
  const places = SHARES.map((share) => pointAt(a, share));
  const path = pathOfPiece(b);
  const nearest = places.map(([x, y]) => nearestOnPath(path, x, y, 3 * SNAP_PX));
  if (nearest.some((one) => one === null)) return 0;
  if (a.start !== a.end) return isSame ? 1 : -1;
  return (nearest[2]?.at ?? 0) > (nearest[0]?.at ?? 0) ? 1 : -1;
}

/** A point of the piece's curve. */
function pointAt({ strand, from, to }: Piece, share: number): readonly [number, number] {
  const segments = segmentCount(strand.path);
  const at = from + share * (to - from);
  return pointAlong(strand.path, at <= segments ? at : at - segments);
}
