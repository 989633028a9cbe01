// Lapping: a layer runs on under those that are pressed after it, so that film which slips or shrinks shows no shirt. Only
// where another layer really lies over it, and never out of the design.
import {
  type CubicPath,
  flattenPath,
  intersect,
  keepHolding,
  recoverCurves,
  toPolygons,
  unite,
  widenLines,
} from "../geometry/index.ts";
import { fitPolyline, type PlanarMap } from "../trace/index.ts";

/** The drawing that layers are cut from. */
export interface LapRoom {
  readonly map: PlanarMap;
  /** Of each face: the place of its layer in the press order, from 0; -1 where no film lies. */
  readonly rank: readonly number[];
  readonly lapPx: number;
  /** Windows that are narrower are not weeded: the layer runs through. */
  readonly windowPx: number;
  /** How exactly outlines are followed... */
  readonly tolerancePx: number;
  /** ... and edges that lie under another layer, as finely as is cut. */
  readonly cutPx: number;
}

/**
 * The region `whole` (the faces for which `isWhole` holds) of layer `own`, spread by the lap under the faces of later layers.
 * Where what is left open between two laps is too narrow to be weeded, they meet. What no lap touches keeps its curves.
 */
export function runUnder(
  { map, rank, lapPx, windowPx, tolerancePx, cutPx }: LapRoom,
  whole: readonly CubicPath[],
  isWhole: (face: number) => boolean,
  own: number,
): readonly CubicPath[] {
  const isOver = (face: number) => face >= 0 && rank[face] > own && !isWhole(face);
  const shared = map.edges.filter(
    ({ left, right }) => (isWhole(left) && isOver(right)) || (isWhole(right) && isOver(left)),
  );
  if (lapPx <= 0 || shared.length === 0) return whole;
  const overPaths = map.faces.flatMap(({ paths }, face) => (isOver(face) ? paths : []));
  const plain = toPolygons(whole, tolerancePx);
  const lines = shared.map(({ path }) => flattenPath(path, tolerancePx));
  const laps = intersect(widenLines(lines, lapPx, windowPx, cutPx), toPolygons(overPaths, tolerancePx));
  // What reaches over a gap of open garment is film of its own there, and goes.
  const lapped = keepHolding(unite(plain, laps), plain);
  return recoverCurves(lapped, [...whole, ...overPaths], tolerancePx, (line) => fitPolyline(line, cutPx));
}
