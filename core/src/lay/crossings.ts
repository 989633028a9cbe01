// Where pieces cross: found exactly on their fine polylines, which decide the order of things, then followed to the crossing of
// the curves themselves.
import { eachLineCrossing, isLine, lengthOf, pointAlong, segmentCount, velocityOn } from "../geometry/index.ts";
import type { Piece } from "./pieces.ts";
import { SNAP_PX, type Strand, type Vertices } from "./strand.ts";

/** A piece is cut at a vertex: within step `step` of its polyline (index of the step's first x), at a share of it. */
export interface PieceCut {
  readonly step: number;
  readonly share: number;
  /** Place along the strand. */
  readonly at: number;
  readonly vertex: number;
}

/** Cuts of every piece in its direction, by its number in `pieces`; pieces from `firstLaid` on are those that are laid. */
export function findCrossings(
  pieces: readonly Piece[],
  firstLaid: number,
  vertices: Vertices,
): Map<number, PieceCut[]> {
  const cuts = new Map<number, PieceCut[]>();
  const add = (piece: number, cut: PieceCut) => {
    const list = cuts.get(piece);
    if (list) list.push(cut);
    else cuts.set(piece, [cut]);
  };
  const lines = pieces.map(({ line }) => line);
  const laid = Array.from({ length: pieces.length - firstLaid }, (_, k) => firstLaid + k);
  eachLineCrossing(lines, laid, (a, i, b, k) => {
    // Two that are laid tell of it twice.
    if (b >= firstLaid && (b < a || (a === b && k < i))) return;
    const { x, y, shareA, shareB } = crossSteps(lines[a], i, lines[b], k);
    const [atA, atB] = [atOf(pieces[a], i, shareA), atOf(pieces[b], k, shareB)];
    const exact = followCurves(pieces[a].strand, atA, pieces[b].strand, atB);
    const vertex = exact ? vertices.add(exact.x, exact.y) : vertices.add(x, y);
    add(a, { step: i, share: shareA, at: exact ? unwrap(exact.atA, atA, pieces[a]) : atA, vertex });
    add(b, { step: k, share: shareB, at: exact ? unwrap(exact.atB, atB, pieces[b]) : atB, vertex });
  });
  for (const [piece, list] of cuts) cuts.set(piece, inOrder(list, pieces[piece]));
  return cuts;
}

/** In the order of the polyline; places along the curve never run back. */
function inOrder(list: readonly PieceCut[], { from, to }: Piece): PieceCut[] {
  let last = from;
  return list
    .toSorted((a, b) => a.step - b.step || a.share - b.share)
    .map((cut) => {
      last = Math.min(to, Math.max(last, cut.at));
      return { ...cut, at: last };
    });
}

function crossSteps(a: readonly number[], i: number, b: readonly number[], k: number) {
  const [ax, ay, bx, by] = [a[i], a[i + 1], a[i + 2], a[i + 3]];
  const [cx, cy, dx, dy] = [b[k], b[k + 1], b[k + 2], b[k + 3]];
  const [ux, uy, vx, vy] = [bx - ax, by - ay, dx - cx, dy - cy];
  const cross = ux * vy - uy * vx;
  const share = (value: number) => Math.min(1, Math.max(0, value));
  const shareA = cross === 0 ? 0.5 : share(((cx - ax) * vy - (cy - ay) * vx) / cross);
  const shareB = cross === 0 ? 0.5 : share(((cx - ax) * uy - (cy - ay) * ux) / cross);
  return { x: ax + shareA * ux, y: ay + shareA * uy, shareA, shareB };
}

function atOf({ ats }: Piece, step: number, share: number): number {
  return ats[step / 2] + share * (ats[step / 2 + 1] - ats[step / 2]);
}

/** The place as the piece counts it, which runs on over a ring's first node. */
function unwrap(at: number, near: number, { strand }: Piece): number {
  const segments = segmentCount(strand.path);
  return near - at > segments / 2 ? at + segments : at;
}

/** How often Newton's method may step. */
const STEPS = 10;
/** Curves meet where they are this near each other, px. */
const MET_PX = 1e-10;
/** How far the curves' crossing may be from that of their polylines, px. */
const NEAR_PX = 40 * SNAP_PX;

/** The crossing of two curves near two of their places, by Newton's method; null where they graze each other. */
function followCurves(
  a: Strand,
  atA: number,
  b: Strand,
  atB: number,
): { readonly x: number; readonly y: number; readonly atA: number; readonly atB: number } | null {
  const placeOn = ({ path }: Strand, at: number) => {
    const segments = segmentCount(path);
    const s = Math.floor(at) % segments;
    return { s, t: at - Math.floor(at) };
  };
  const [pa, pb] = [placeOn(a, atA), placeOn(b, atB)];
  let [t, u] = [pa.t, pb.t];
  const [startX, startY] = pointAlong(a.path, pa.s + t);
  for (let step = 0; step < STEPS; step++) {
    const [ax, ay] = pointAlong(a.path, pa.s + t);
    const [bx, by] = pointAlong(b.path, pb.s + u);
    const [ex, ey] = [bx - ax, by - ay];
    if (lengthOf(ex, ey) < MET_PX) {
      if (lengthOf(ax - startX, ay - startY) > NEAR_PX) return null;
      // On a straight segment to the last digit: the picture's edge stays where it is.
      const [x, y] = isLine(b.path, pb.s) ? [bx, by] : [ax, ay];
      return { x, y, atA: pa.s + t, atB: pb.s + u };
    }
    const [ux, uy] = velocityOn(a.path, pa.s, t);
    const [vx, vy] = velocityOn(b.path, pb.s, u);
    const cross = ux * vy - uy * vx;
    if (cross === 0) return null;
    t += (ex * vy - ey * vx) / cross;
    u += (ex * uy - ey * ux) / cross;
    // Near the end of a segment the crossing may be on the next one, which Newton's method knows nothing of.
    if (t < 0 || t >= 1 || u < 0 || u >= 1) return null;
  }
  return null;
}
