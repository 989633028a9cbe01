// Lapping: a layer runs on under those that are pressed after it, so that film which slips or shrinks shows no shirt. Only
// where another layer really lies over it, and never out of the design.
import {
  type CubicPath,
  densify,
  fillHoles,
  flattenPath,
  indexBoundaries,
  intersectEach,
  keepHolding,
  measureAcross,
  type Polygons,
  recoverCurves,
  stripBeside,
  toPolygons,
  unite,
} from "../geometry/index.ts";
import type { PlanarMap } from "../trace/index.ts";

/** The drawing that layers are cut from. */
export interface LapRoom {
  readonly map: PlanarMap;
  /** Of each face: the place of its layer in the press order, from 0; -1 where no film lies. */
  readonly rank: readonly number[];
  readonly lapPx: number;
  /** A gap that is narrower is not weeded: the layer runs through. */
  readonly gapPx: number;
  /** Nor are windows that are narrower on average: under lettering the layer stays whole. */
  readonly windowPx: number;
  readonly tolerancePx: number;
}

/** Laps are measured along boundaries in steps of this share of their width. */
const STEP = 0.5;
/** Laps from two sides that meet overlap by this much, px. */
const MEETING_PX = 0.05;

/**
 * The region `whole` (the faces for which `isWhole` holds) of layer `own`, spread by the lap under the faces of later layers.
 * Where what is left open between two laps is too narrow to be weeded, they meet. What no lap touches keeps its curves.
 */
export function runUnder(
  { map, rank, lapPx, gapPx, windowPx, tolerancePx }: LapRoom,
  whole: readonly CubicPath[],
  isWhole: (face: number) => boolean,
  own: number,
): readonly CubicPath[] {
  const isOver = (face: number) => face >= 0 && rank[face] > own && !isWhole(face);
  const around = map.edges.filter(({ left, right }) => isWhole(left) !== isWhole(right));
  if (lapPx <= 0 || !around.some(({ left, right }) => isOver(left) || isOver(right))) return whole;
  const lines = around.map(({ path }) => flattenPath(path, tolerancePx));
  const crossings = indexBoundaries(lines);
  const strips: Polygons = [];
  around.forEach(({ left, right }, e) => {
    if (!isOver(left) && !isOver(right)) return;
    const side = isOver(right) ? 1 : -1;
    const line = densify(lines[e], lapPx * STEP);
    const across = measureAcross(line, side, 2 * lapPx + gapPx, crossings);
    const widths = across.distances.map((distance, i) => (across.met[i] < 0 ? lapPx : distance / 2 + MEETING_PX));
    for (const strip of stripBeside(line, widths, side, tolerancePx)) strips.push(strip);
  });
  const over = toPolygons(
    map.faces.flatMap(({ paths }, face) => (isOver(face) ? paths : [])),
    tolerancePx,
  );
  const plain = toPolygons(whole, tolerancePx);
  // Strips overlap the region by a hair: clipped to what lies over it alone, they would lie beside it, and be cut apart.
  const laps = intersectEach(strips, [...over, ...plain]);
  // A strip that reaches over a gap of open garment is film of its own there, and goes.
  const united = keepHolding(unite(plain, laps), plain);
  const isNarrow = (areaPx: number, aroundPx: number) => 2 * areaPx < windowPx * aroundPx;
  return recoverCurves(
    fillHoles(united, isNarrow, () => over),
    whole,
    tolerancePx,
  );
}
