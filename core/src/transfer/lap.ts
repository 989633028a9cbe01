// Lapping: a layer runs on under those that are pressed after it, so that film which slips or shrinks shows no shirt. Only
// where another layer really lies over it, and never out of the design.
import {
  type Crossings,
  type CubicPath,
  densify,
  flattenPath,
  indexBoundaries,
  intersect,
  joinPaths,
  keepHolding,
  linePath,
  type Polygons,
  partByReach,
  recoverCurves,
  toPolygons,
  turnPositive,
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
  const isCovered = (face: number) => isWhole(face) || isOver(face);
  const shared = map.edges.filter(
    ({ left, right }) => (isWhole(left) && isOver(right)) || (isWhole(right) && isOver(left)),
  );
  if (lapPx <= 0 || shared.length === 0) return whole;
  const overPaths = map.faces.flatMap(({ paths }, face) => (isOver(face) ? paths : []));
  const lines = shared.map(({ path }) => flattenPath(path, tolerancePx));
  const seams = indexBoundaries(lines);
  const nearSeams = (region: Polygons) => partByReach(region, seams, lapPx + windowPx / 2);
  const plain = nearSeams(turnPositive(toPolygons(whole, tolerancePx)));
  const over = nearSeams(toPolygons(overPaths, tolerancePx));
  const laps = intersect(widenLines(lines, lapPx, windowPx, cutPx), over.near);
  // What reaches over a gap of open garment is film of its own there, and goes.
  const lapped = [...keepHolding(unite(plain.near, laps), plain.near), ...plain.far];
  const rim = map.edges.filter(({ left, right }) => isCovered(left) !== isCovered(right));
  const near = indexBoundaries(rim.map(({ path }) => flattenPath(path, tolerancePx)));
  return recoverCurves(lapped, [...whole, ...overPaths], tolerancePx, (line) => fitInside(line, near, cutPx));
}

/**
 * A computed edge as curves, where they cannot leave what lies over it by the tolerance: an edge that comes near the rim stays
 * straight between its corners, and so do the ends of one that begins and ends there.
 */
function fitInside(line: Float64Array, { index }: Crossings, cutPx: number): CubicPath {
  const last = line.length - 2;
  const isRing = line[0] === line[last] && line[1] === line[last + 1];
  const inner = isRing ? line : line.subarray(2, last);
  const reach = 2 * cutPx;
  const isFar = (x: number, y: number) => index?.search(x - reach, y - reach, x + reach, y + reach).length === 0;
  if (inner.length < 6) return linePath(line);
  const steps = densify(Array.from(inner), reach);
  for (let i = 0; i < steps.length; i += 2) if (!isFar(steps[i], steps[i + 1])) return linePath(line);
  const fitted = fitPolyline(inner, cutPx);
  return isRing ? fitted : joinPaths([linePath(line.subarray(0, 4)), fitted, linePath(line.subarray(last - 2))]);
}
