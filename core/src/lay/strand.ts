// Strands: the curves that an arrangement is made of, those of the map and those that are laid into it, and where they are cut.
import type { CubicPath } from "../geometry/index.ts";
import { segmentCount } from "../geometry/index.ts";
import type { MapEdge } from "../trace/index.ts";
import type { OutlineSide } from "./shared-stretches.ts";

/**
 * Places nearer to each other than this are one, px: a fifteenth of a micrometre at full front, and far over what is lost in
 * double arithmetic even where curves meet at a grazing angle.
 */
export const SNAP_PX = 4e-4;

/** One curve. */
export interface Strand {
  readonly path: CubicPath;
  /** The map's edge that it is; null for what is laid. */
  readonly edge: MapEdge | null;
  /** The outlines that it belongs to; none for the map's and for cuts. */
  readonly sides: readonly OutlineSide[];
  readonly isHeld: boolean;
  readonly isCut: boolean;
  /** Where it is cut, in the order of the path once all are known. A closed strand without cuts stays whole. */
  readonly cuts: { readonly at: number; readonly vertex: number }[];
}

/** Whether a strand comes back to where it begins. */
export function isRing({ path, edge }: Strand): boolean {
  if (edge) return edge.start < 0;
  return path[0] === path[path.length - 2] && path[1] === path[path.length - 1];
}

/** Cuts a strand at a vertex, once. The end of a ring is its beginning. */
export function cutStrand(strand: Strand, at: number, vertex: number): void {
  const place = isRing(strand) && at >= segmentCount(strand.path) ? 0 : at;
  // The same vertex may be on a strand twice, where it touches itself; at about the same place it is one cut.
  if (!strand.cuts.some((cut) => cut.vertex === vertex && Math.abs(cut.at - place) < 0.5)) {
    strand.cuts.push({ at: place, vertex });
  }
}

/** The vertices of an arrangement: those of the map first, under their own numbers. */
export interface Vertices {
  readonly x: number[];
  readonly y: number[];
  /** The vertex at a place: one that is within `SNAP_PX`, or a new one. */
  at(x: number, y: number): number;
  /** A new one, however near others are. */
  add(x: number, y: number): number;
}

export function openVertices(old: Float64Array): Vertices {
  const x: number[] = [];
  const y: number[] = [];
  const cells = new Map<string, number[]>();
  const size = SNAP_PX * 2;
  const cellOf = (v: number) => Math.floor(v / size);
  const add = (px: number, py: number) => {
    const key = `${cellOf(px)} ${cellOf(py)}`;
    const list = cells.get(key);
    if (list) list.push(x.length);
    else cells.set(key, [x.length]);
    x.push(px);
    y.push(py);
    return x.length - 1;
  };
  for (let i = 0; i < old.length; i += 2) add(old[i], old[i + 1]);
  return {
    x,
    y,
    add,
    at(px, py) {
      let best = -1;
      let least = SNAP_PX * SNAP_PX;
      for (let cx = cellOf(px) - 1; cx <= cellOf(px) + 1; cx++)
        for (let cy = cellOf(py) - 1; cy <= cellOf(py) + 1; cy++)
          for (const v of cells.get(`${cx} ${cy}`) ?? []) {
            const square = (x[v] - px) * (x[v] - px) + (y[v] - py) * (y[v] - py);
            if (square <= least) [best, least] = [v, square];
          }
      return best >= 0 ? best : add(px, py);
    },
  };
}
