// Separating: the planar map to plates, one per ink and a base, all on one origin.
import { type Rgb, rgbToLab } from "../colour/index.ts";
import { type CubicPath, pathArea, polygonsArea, toPaths, toPolygons, unite } from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import { faceArea, type PlanarMap, spotPaths } from "../trace/index.ts";
import { orderInks } from "./print-order.ts";
import { spreadTraps } from "./trap.ts";
import { chokeBase, inkNeedsBase, wantsBase } from "./underbase.ts";

/** The person's decisions about plates, part of the recipe. */
export interface SeparationSettings {
  /** Spot ids in the print order that the person chose; others are placed by lightness. */
  readonly order: readonly string[];
  readonly trapMm: number;
  readonly base: {
    /** "auto": on dark garments. */
    readonly mode: "auto" | "on" | "off";
    readonly chokeMm: number;
    /** Decisions per spot that differ from the rule. */
    readonly spots: Readonly<Record<string, boolean>>;
  };
}

/** One registered separation. `region` is closed paths in source pixels; even-odd and non-zero fill agree on it. */
export interface Plate {
  readonly id: string;
  readonly kind: "spot" | "base";
  readonly name: string;
  readonly rgb: Rgb;
  /** Position in the print order, from 1. */
  readonly order: number;
  readonly region: readonly CubicPath[];
  /** Share (0..1) of the art's rectangle that the plate covers. */
  readonly coverage: number;
  /** Area of its spread into darker inks, mm2. */
  readonly trapMm2: number;
  /** Whether the underbase lies under it. */
  readonly isBased: boolean;
}

/** All plates of a job in print order, and the true size of the art they share. */
export interface Separation {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly mmPerPx: number;
  readonly plates: readonly Plate[];
}

/** The id and colour of the underbase's plate. */
export const BASE_ID = "base";
const BASE_WHITE: Rgb = [255, 255, 255];
/** Curves are flattened to this for polygon arithmetic, mm. */
const FLATTEN_MM = 0.01;

/** Separates a traced picture printed `widthMm` wide on a garment of colour `garment`. */
export function separatePlates(
  map: PlanarMap,
  spots: readonly Spot[],
  settings: SeparationSettings,
  widthMm: number,
  garment: Rgb,
): Separation {
  const mmPerPx = widthMm / map.width;
  const tolerancePx = FLATTEN_MM / mmPerPx;
  const present = new Set(map.faces.map((face) => face.spotId));
  const inks = spots.filter((spot) => spot.role === "ink" && present.has(spot.id));
  const lightness = new Map(inks.map((spot) => [spot.id, rgbToLab(spot.rgb)[0]]));
  const traps = spreadTraps(map, (id) => lightness.get(id) ?? null, settings.trapMm / mmPerPx, tolerancePx);
  const { mode } = settings.base;
  const hasBase = mode === "on" || (mode === "auto" && wantsBase(garment));
  const based = new Set(
    hasBase ? inks.filter((spot) => settings.base.spots[spot.id] ?? inkNeedsBase(spot, garment)).map((s) => s.id) : [],
  );
  const artPx2 = map.width * map.height;
  const plates: Plate[] = [];
  if (based.size > 0) {
    const base = chokeBase(map, based, settings.base.chokeMm / mmPerPx, tolerancePx);
    plates.push({
      id: BASE_ID,
      kind: "base",
      name: "Underbase",
      rgb: BASE_WHITE,
      order: 1,
      region: toPaths(base),
      coverage: polygonsArea(base) / artPx2,
      trapMm2: 0,
      isBased: false,
    });
  }
  for (const spot of orderInks(inks, settings.order)) {
    const own = spotPaths(map, spot.id);
    const trap = traps.get(spot.id);
    // Untouched curves stay curves; a spread plate is polygons to a hundredth of a millimetre.
    const spread = trap && trap.length > 0 ? unite([...toPolygons(own, tolerancePx), ...trap]) : null;
    plates.push({
      id: spot.id,
      kind: "spot",
      name: spot.name,
      rgb: spot.rgb,
      order: plates.length + 1,
      region: spread ? toPaths(spread) : own,
      coverage: (spread ? polygonsArea(spread) : areaOf(own)) / artPx2,
      trapMm2: trap ? polygonsArea(trap) * mmPerPx * mmPerPx : 0,
      isBased: based.has(spot.id),
    });
  }
  return { widthPx: map.width, heightPx: map.height, mmPerPx, plates };
}

function areaOf(paths: readonly CubicPath[]): number {
  return Math.abs(paths.reduce((sum, path) => sum + pathArea(path), 0));
}

/** Share (0..1) of the art's rectangle that each spot covers as traced, by spot id. */
export function spotCoverage(map: PlanarMap): Map<string, number> {
  const coverage = new Map<string, number>();
  for (const face of map.faces)
    coverage.set(face.spotId, (coverage.get(face.spotId) ?? 0) + faceArea(map, face) / (map.width * map.height));
  return coverage;
}
