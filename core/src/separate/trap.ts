// Trapping: along every boundary where two inks meet, the lighter one spreads into the darker one, so that a press that
// shifts a little shows no garment between them. Never out into bare garment, and thinner where the art is thin.
import { flattenPath, intersectEach, type Polygons, toPolygons } from "../geometry/index.ts";
import { BARE, facePaths, type PlanarMap } from "../trace/index.ts";
import { type Crossings, densify, indexBoundaries, measureAcross } from "./across.ts";
import { stripBeside } from "./strip.ts";

/** Which of two inks is lighter decides the direction; `null` for anything that is not ink. */
export type LightnessOf = (spotId: string) => number | null;

/** The strips of one spot that lie inside its darker neighbours, per spot id; where those of two boundaries meet they overlap. */
export type Traps = ReadonlyMap<string, Polygons>;

/** A boundary between two inks, seen from the lighter one. */
export interface InkBoundary {
  readonly light: string;
  /** The darker ink's face, and the side of the boundary on which it lies. */
  readonly darkFace: number;
  readonly darkSide: 1 | -1;
}

/** Which ink of a boundary is the lighter one; null where no two inks meet. */
export function inkBoundary(map: PlanarMap, e: number, lightnessOf: LightnessOf): InkBoundary | null {
  const edge = map.edges[e];
  if (edge.left === BARE || edge.right === BARE) return null;
  const left = map.faces[edge.left].spotId;
  const right = map.faces[edge.right].spotId;
  const leftLightness = lightnessOf(left);
  const rightLightness = lightnessOf(right);
  if (left === right || leftLightness === null || rightLightness === null) return null;
  const leftIsLighter = leftLightness > rightLightness || (leftLightness === rightLightness && left < right);
  return leftIsLighter
    ? { light: left, darkFace: edge.right, darkSide: 1 }
    : { light: right, darkFace: edge.left, darkSide: -1 };
}

/** Strips by the face they are clipped to, then by the spot they belong to: one intersection for each such pair. */
export type StripsByFace = Map<number, Map<string, Polygons>>;

/** Adds a strip to those of a face. */
export function addStrip(strips: StripsByFace, face: number, spotId: string, strip: Polygons): void {
  const bySpot = strips.get(face) ?? new Map<string, Polygons>();
  strips.set(face, bySpot);
  addPolygons(bySpot, spotId, strip);
}

/** Adds to a spot's polygons in place: a drawing has thousands of strips. */
function addPolygons(bySpot: Map<string, Polygons>, spotId: string, more: Polygons): void {
  const polygons = bySpot.get(spotId) ?? [];
  bySpot.set(spotId, polygons);
  for (const polygon of more) polygons.push(polygon);
}

/** The strips clipped to their faces, per spot id. */
export function clipStrips(map: PlanarMap, strips: StripsByFace, tolerancePx: number): Map<string, Polygons> {
  const clipped = new Map<string, Polygons>();
  for (const [face, bySpot] of strips) {
    const inside = toPolygons(facePaths(map, map.faces[face]), tolerancePx);
    for (const [spotId, strip] of bySpot) addPolygons(clipped, spotId, intersectEach(strip, inside));
  }
  return clipped;
}

/**
 * Strips for all boundaries between two inks. `widthPx` is the trap in source pixels. Where either ink is narrower than
 * twice the trap, measured across the boundary, the strip is half as wide as that feature: two traps from both sides of a thin line
 * meet in its middle and never pass it. The clip to the darker face keeps every strip off bare garment.
 */
export function spreadTraps(map: PlanarMap, lightnessOf: LightnessOf, widthPx: number, tolerancePx: number): Traps {
  if (widthPx <= 0) return new Map();
  const boundaries = map.edges.map((edge) => flattenPath(edge.path, tolerancePx));
  const crossings = indexBoundaries(boundaries);
  const strips: StripsByFace = new Map();
  boundaries.forEach((boundary, e) => {
    const inks = inkBoundary(map, e, lightnessOf);
    if (!inks) return;
    const line = densify(boundary, widthPx / 2);
    const widths = trapWidths(line, widthPx, crossings);
    addStrip(strips, inks.darkFace, inks.light, stripBeside(line, widths, inks.darkSide, tolerancePx));
  });
  return clipStrips(map, strips, tolerancePx);
}

/** For every point of the line: the trap's width there. */
function trapWidths(line: readonly number[], widthPx: number, crossings: Crossings): Float64Array {
  const one = measureAcross(line, 1, 2 * widthPx, crossings);
  const other = measureAcross(line, -1, 2 * widthPx, crossings);
  return one.map((across, i) => Math.min(widthPx, across / 2, other[i] / 2));
}
