// The underbase: one white area under all inks that need it, pulled in so that it never peeks out.
import { type Rgb, rgbToLab } from "../colour/index.ts";
import { offset, type Polygons, toPolygons, unite } from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import { facePaths, type PlanarMap } from "../trace/index.ts";

/** Garments darker than this want a base, CIELAB L* (common practice, no source). */
const DARK_GARMENT = 60;
/** Inks darker than this cover by themselves, L* (common practice, no source). */
const COVERS_ITSELF = 22;

/** Whether a garment colour wants an underbase unless the person says otherwise. */
export function wantsBase(garment: Rgb): boolean {
  return rgbToLab(garment)[0] < DARK_GARMENT;
}

/** Whether an ink wants white under it on this garment: not if it is nearly black or darker than the garment itself. */
export function inkNeedsBase(spot: Spot, garment: Rgb): boolean {
  const lightness = rgbToLab(spot.rgb)[0];
  return lightness > COVERS_ITSELF && lightness > rgbToLab(garment)[0];
}

/** Union of the faces of `spotIds`, shrunk by `chokePx` (erosion: nothing of it is nearer to the union's edge than that). */
export function chokeBase(
  map: PlanarMap,
  spotIds: ReadonlySet<string>,
  chokePx: number,
  tolerancePx: number,
): Polygons {
  const faces = map.faces.filter((face) => spotIds.has(face.spotId));
  const whole = unite(faces.flatMap((face) => toPolygons(facePaths(map, face), tolerancePx)));
  return chokePx > 0 ? offset(whole, -chokePx, tolerancePx) : whole;
}
