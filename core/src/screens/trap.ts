// Trapping: along every boundary where two inks meet, the lighter one spreads into the darker one, so that a press that
// shifts a little shows no garment between them. Never out into bare garment, and thinner where the art is thin.
import {
  densify,
  flattenPath,
  indexBoundaries,
  intersectEach,
  measureAcross,
  type Polygons,
  stripBeside,
  toPolygons,
} from "../geometry/index.ts";
import { BARE, type PlanarMap } from "../trace/index.ts";

/** Which of two inks is lighter decides the direction; `null` for anything that is not ink. */
export type LightnessOf = (spotId: string) => number | null;

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
    const inside = toPolygons(map.faces[face].paths, tolerancePx);
    for (const [spotId, strip] of bySpot) addPolygons(clipped, spotId, intersectEach(strip, inside));
  }
  return clipped;
}

/** What is left between two traps is no gap if it is thinner than one of them: up to so many traps the light ink runs through. */
const CLOSED_UP_TO = 3;

/**
 * The strips of each spot that lie inside its darker neighbours, one for each boundary; where two meet they overlap. `widthPx` is the trap in source pixels. Where either ink is narrower than
 * twice the trap, measured across the boundary, the strip is half as wide as that feature: two traps from both sides of a thin
 * line meet in its middle and never pass it. Where the same light ink lies on both sides and would leave a sliver between its
 * traps, it runs through: no screen holds the sliver open. The clip to the darker face keeps every strip off bare garment.
 */
export function makeTraps(
  map: PlanarMap,
  lightnessOf: LightnessOf,
  widthPx: number,
  tolerancePx: number,
): (spotId: string) => Polygons {
  if (widthPx <= 0) return () => [];
  const boundaries = map.edges.map((edge) => flattenPath(edge.path, tolerancePx));
  const crossings = indexBoundaries(boundaries);
  const inksAt = map.edges.map((_, e) => inkBoundary(map, e, lightnessOf));
  const stripAt = (boundary: readonly number[], inks: InkBoundary) => {
    const line = densify(boundary, widthPx / 2);
    const dark = measureAcross(line, inks.darkSide, CLOSED_UP_TO * widthPx, crossings);
    const light = measureAcross(line, inks.darkSide === 1 ? -1 : 1, 2 * widthPx, crossings);
    const widths = dark.distances.map((across, i) => {
      const width = Math.min(widthPx, light.distances[i] / 2);
      const isGap = dark.met[i] >= 0 && inksAt[dark.met[i]]?.light === inks.light;
      return isGap && across < CLOSED_UP_TO * width ? across / 2 : Math.min(width, across / 2);
    });
    return stripBeside(line, widths, inks.darkSide, tolerancePx);
  };
  return (spotId) => {
    const strips: StripsByFace = new Map();
    boundaries.forEach((boundary, e) => {
      const inks = inksAt[e];
      if (inks?.light === spotId) addStrip(strips, inks.darkFace, spotId, stripAt(boundary, inks));
    });
    return clipStrips(map, strips, tolerancePx).get(spotId) ?? [];
  };
}

/** The area (square source pixels) under which a hole in an ink's plate is a crumb: the square of the gap that is closed. */
export function leastHole(trapPx: number): number {
  return (CLOSED_UP_TO * trapPx) ** 2;
}
