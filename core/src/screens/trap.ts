// Trapping: along every boundary where two inks meet, the lighter one spreads into the darker one, so that a press that
// shifts a little shows no garment between them. Never out into bare garment, and thinner where the art is thin.
import {
  type Across,
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

/** The strips clipped to their faces, which `facePolygons` gives by number, per spot id. */
export function clipStrips(strips: StripsByFace, facePolygons: (face: number) => Polygons): Map<string, Polygons> {
  const clipped = new Map<string, Polygons>();
  for (const [face, bySpot] of strips) {
    const inside = facePolygons(face);
    for (const [spotId, strip] of bySpot) addPolygons(clipped, spotId, intersectEach(strip, inside));
  }
  return clipped;
}

/** What is left between two traps is no gap if it is thinner than one of them: up to so many traps the light ink runs through. */
const CLOSED_UP_TO = 3;

/** A boundary with points close enough to measure at, and what lies across on its darker and its lighter side. */
interface MeasuredLine {
  readonly line: readonly number[];
  readonly dark: Across;
  readonly light: Across;
}

/** The largest power of two that is not larger. */
const powerOfTwoIn = (v: number) => 2 ** Math.floor(Math.log2(v));

/**
 * The strips of each spot that lie inside its darker neighbours, one for each boundary; where two meet they overlap. `widthPx` is the trap in source pixels. Where either ink is narrower than
 * twice the trap, measured across the boundary, the strip is half as wide as that feature: two traps from both sides of a thin
 * line meet in its middle and never pass it. Where the same light ink lies on both sides and would leave a sliver between its
 * traps, it runs through: no screen holds the sliver open. The clip to the darker face keeps every strip off bare garment.
 */
export function makeTraps(
  map: PlanarMap,
  lightnessOf: LightnessOf,
  tolerancePx: number,
): (spotId: string, widthPx: number) => Polygons {
  const boundaries = map.edges.map((edge) => flattenPath(edge.path, tolerancePx));
  const crossings = indexBoundaries(boundaries);
  const inksAt = map.edges.map((_, e) => inkBoundary(map, e, lightnessOf));
  const facePolygons = remember((face: number) => toPolygons(map.faces[face].paths, tolerancePx));
  let stepPx = 0;
  let measured = new Map<number, MeasuredLine>();
  /** What lies across depends on the drawing alone: as a trap is tuned it stays, over an octave of widths. */
  const measureAt = (e: number, { darkSide }: InkBoundary, widthPx: number): MeasuredLine => {
    const step = powerOfTwoIn(widthPx / 2);
    if (step !== stepPx) [stepPx, measured] = [step, new Map()];
    const known = measured.get(e);
    if (known) return known;
    const line = densify(boundaries[e], step);
    const reach = 4 * CLOSED_UP_TO * step;
    const dark = measureAcross(line, darkSide, reach, crossings);
    const light = measureAcross(line, darkSide === 1 ? -1 : 1, reach, crossings);
    measured.set(e, { line, dark, light });
    return { line, dark, light };
  };
  const stripAt = (e: number, inks: InkBoundary, widthPx: number) => {
    const { line, dark, light } = measureAt(e, inks, widthPx);
    const widths = dark.distances.map((across, i) => {
      const width = Math.min(widthPx, light.distances[i] / 2);
      const isGap = dark.met[i] >= 0 && inksAt[dark.met[i]]?.light === inks.light;
      return isGap && across < CLOSED_UP_TO * width ? across / 2 : Math.min(width, across / 2);
    });
    return stripBeside(line, widths, inks.darkSide, tolerancePx);
  };
  return (spotId, widthPx) => {
    if (widthPx <= 0) return [];
    const strips: StripsByFace = new Map();
    inksAt.forEach((inks, e) => {
      if (inks?.light === spotId) addStrip(strips, inks.darkFace, spotId, stripAt(e, inks, widthPx));
    });
    return clipStrips(strips, facePolygons).get(spotId) ?? [];
  };
}

/** The same, each answer given once and kept. */
export function remember<K, V>(answer: (key: K) => V): (key: K) => V {
  const known = new Map<K, V>();
  return (key) => {
    const found = known.get(key);
    if (found !== undefined) return found;
    const made = answer(key);
    known.set(key, made);
    return made;
  };
}

/** The area (square source pixels) under which a hole in an ink's plate is a crumb: the square of the gap that is closed. */
export function leastHole(trapPx: number): number {
  return (CLOSED_UP_TO * trapPx) ** 2;
}
