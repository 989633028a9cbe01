// Separating: the planar map to plates, one per ink and a base, all on one origin.
import { type Rgb, rgbToLab } from "../colour/index.ts";
import {
  type CubicPath,
  fillSmallHoles,
  pathArea,
  polygonsArea,
  recoverCurves,
  toPolygons,
  unite,
} from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import { faceArea, facePaths, type PlanarMap, spotPaths, underPaths } from "../trace/index.ts";
import { orderInks } from "./print-order.ts";
import { type LightnessOf, leastHole, spreadTraps } from "./trap.ts";
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
    /** Thinnest base that prints: a choke leaves at least this. */
    readonly thinnestMm: number;
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
  /** Area of its spread into darker inks, mm2; where two spreads overlap, that of both. */
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
/** Curves are flattened to this for polygon arithmetic, mm: with what is left out after it, a fifth of the finest film printer's dot. */
const FLATTEN_MM = 0.002;

/**
 * Keeps a costly part of a separation under what it was made from (beside the map): moving a plate or renaming a spot
 * must not spread the traps again.
 */
export type Remember = <T>(part: "inks" | "base", madeFrom: readonly unknown[], compute: () => T) => T;

const rememberNothing: Remember = (_part, _madeFrom, compute) => compute();

/** Separates a traced picture printed `widthMm` wide on a garment of colour `garment`. */
export function separatePlates(
  map: PlanarMap,
  spots: readonly Spot[],
  settings: SeparationSettings,
  widthMm: number,
  garment: Rgb,
  remember: Remember = rememberNothing,
): Separation {
  const mmPerPx = widthMm / map.width;
  const tolerancePx = FLATTEN_MM / mmPerPx;
  const { trapMm, base } = settings;
  const present = new Set(map.faces.map((face) => face.spotId));
  const inks = spots.filter((spot) => spot.role === "ink" && present.has(spot.id));
  const lightness = new Map(inks.map((spot) => [spot.id, rgbToLab(spot.rgb)[0]]));
  const lightnessOf: LightnessOf = (id) => lightness.get(id) ?? null;
  const fromLightToDark = [...lightness].sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1)).map(([id]) => id);
  const regions = remember("inks", [trapMm, widthMm, fromLightToDark], () =>
    spreadInks(map, inks, lightnessOf, trapMm, mmPerPx, tolerancePx),
  );
  const hasBase = base.mode === "on" || (base.mode === "auto" && wantsBase(garment));
  const based = new Set(
    hasBase ? inks.filter((spot) => base.spots[spot.id] ?? inkNeedsBase(spot, garment)).map((spot) => spot.id) : [],
  );
  const plates: Plate[] = [];
  if (based.size > 0) {
    const pulledIn = { chokePx: base.chokeMm / mmPerPx, thinnestPx: base.thinnestMm / mmPerPx };
    const madeFrom = [base.chokeMm, base.thinnestMm, widthMm, [...based].sort(), fromLightToDark];
    const region = remember("base", madeFrom, () =>
      measure(map, chokeBase(map, based, lightnessOf, pulledIn, tolerancePx)),
    );
    const facts = { id: BASE_ID, kind: "base", name: "Underbase", rgb: BASE_WHITE, order: 1 } as const;
    plates.push({ ...facts, ...region, trapMm2: 0, isBased: false });
  }
  for (const spot of orderInks(inks, settings.order)) {
    const region = regions.get(spot.id);
    if (!region) continue;
    const facts = { id: spot.id, kind: "spot", name: spot.name, rgb: spot.rgb, order: plates.length + 1 } as const;
    plates.push({ ...facts, ...region, isBased: based.has(spot.id) });
  }
  return { widthPx: map.width, heightPx: map.height, mmPerPx, plates };
}

type InkRegion = Pick<Plate, "region" | "coverage" | "trapMm2">;

/** What each ink prints, traps included. What no trap touches keeps its curves; the rest is polygons within 0.003 mm. */
function spreadInks(
  map: PlanarMap,
  inks: readonly Spot[],
  lightnessOf: LightnessOf,
  trapMm: number,
  mmPerPx: number,
  tolerancePx: number,
): ReadonlyMap<string, InkRegion> {
  const trapPx = trapMm / mmPerPx;
  const traps = spreadTraps(map, lightnessOf, trapPx, tolerancePx);
  /** All faces of inks darker than one. */
  const darkerThan = (lightness: number) =>
    toPolygons(
      map.faces
        .filter(({ spotId }) => (lightnessOf(spotId) ?? lightness) < lightness)
        .flatMap((f) => facePaths(map, f)),
      tolerancePx,
    );
  const regions = new Map<string, InkRegion>();
  for (const { id, rgb } of inks) {
    const own = spotPaths(map, id);
    const trap = traps.get(id) ?? [];
    const under = underPaths(map, id);
    const isAlone = trap.length === 0 && under.length === 0;
    const united = () =>
      fillSmallHoles(unite(toPolygons(own, tolerancePx), trap, toPolygons(under, tolerancePx)), leastHole(trapPx), () =>
        darkerThan(rgbToLab(rgb)[0]),
      );
    const region = isAlone ? own : recoverCurves(united(), [...own, ...under], tolerancePx);
    regions.set(id, { ...measure(map, region), trapMm2: polygonsArea(trap) * mmPerPx * mmPerPx });
  }
  return regions;
}

/** A plate's region with its coverage. */
function measure(map: PlanarMap, region: readonly CubicPath[]): Pick<Plate, "region" | "coverage"> {
  return { region, coverage: areaOf(region) / (map.width * map.height) };
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
