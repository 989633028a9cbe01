// Separating: the planar map to plates, one per ink and a base, all on one origin.
import { type Rgb, rgbToLab } from "../colour/index.ts";
import {
  type CubicPath,
  fillHoles,
  pathArea,
  polygonsArea,
  recoverCurves,
  toPolygons,
  unite,
} from "../geometry/index.ts";
import type { Design } from "../process/index.ts";
import { orderInks, type Spot } from "../reduce/index.ts";
import { doAlone, type Sharing, shareOut, type Task } from "../share/index.ts";
import { type Drawing, type PlanarMap, spotPaths } from "../trace/index.ts";
import type { ScreensSettings } from "./settings.ts";
import { type LightnessOf, leastHole, makeTraps, remember } from "./trap.ts";
import { chokeBase, inkNeedsBase, wantsBase } from "./underbase.ts";

/** The person's decisions about plates. */
export interface SeparationSettings extends Pick<ScreensSettings, "trapMm" | "base"> {
  /** Spot ids in the print order that the person chose; others are placed by lightness. */
  readonly order: readonly string[];
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
/** Curves are flattened to this for polygon arithmetic, mm: with what is left out after it, a fifth of the finest film printer's dot. */
const FLATTEN_MM = 0.002;

/** What is separated: the traced picture, its spots, how wide it prints and on what. */
export type Separable = Pick<Design, "map" | "spots" | "widthMm" | "garment">;

/** Separates a traced picture: `spreadInks`, `layBase` and `orderPlates` in one. */
export function separatePlates(art: Separable, settings: SeparationSettings): Separation {
  return orderPlates(art, settings, spreadInks(art, settings), layBase(art, settings));
}

/** The inks that print, lightest first. Only their order decides where traps go. */
export function fromLightToDark({ map, spots }: Pick<Separable, "map" | "spots">): readonly string[] {
  const lightness = lightnessOfInks(inksOf({ map, spots }));
  return [...lightness].sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1)).map(([id]) => id);
}

/** The spots that a base lies under, sorted; empty: no base. */
export function basedSpots(
  { map, spots, garment }: Separable,
  { base }: Pick<SeparationSettings, "base">,
): readonly string[] {
  const hasBase = base.mode === "on" || (base.mode === "auto" && wantsBase(garment));
  if (!hasBase) return [];
  const based = inksOf({ map, spots }).filter((spot) => base.decided[spot.id] ?? inkNeedsBase(spot, garment));
  return based.map(({ id }) => id).sort();
}

/** The base's region; null where there is none. */
export function layBase(art: Separable, settings: Pick<SeparationSettings, "base">): PlateRegion | null {
  const based = basedSpots(art, settings);
  if (based.length === 0) return null;
  const { map } = art;
  const { chokeMm, thinnestMm } = settings.base;
  const mmPerPx = art.widthMm / map.width;
  const pulledIn = { chokePx: chokeMm / mmPerPx, thinnestPx: thinnestMm / mmPerPx };
  const lightness = lightnessOfInks(inksOf(art));
  return measure(
    map,
    chokeBase(map, new Set(based), (id) => lightness.get(id) ?? null, pulledIn, FLATTEN_MM / mmPerPx),
  );
}

/** The plates in print order, the base first. */
export function orderPlates(
  art: Separable,
  settings: Pick<SeparationSettings, "order" | "base">,
  regions: ReadonlyMap<string, InkRegion>,
  base: PlateRegion | null,
): Separation {
  const { map, widthMm } = art;
  const based = basedSpots(art, settings);
  const plates: Plate[] = [];
  if (base) {
    const facts = { id: BASE_ID, kind: "base", name: "Underbase", rgb: BASE_WHITE, order: 1 } as const;
    plates.push({ ...facts, ...base, trapMm2: 0, isBased: false });
  }
  for (const spot of orderInks(inksOf(art), settings.order)) {
    const region = regions.get(spot.id);
    if (!region) continue;
    const facts = { id: spot.id, kind: "spot", name: spot.name, rgb: spot.rgb, order: plates.length + 1 } as const;
    plates.push({ ...facts, ...region, isBased: based.includes(spot.id) });
  }
  return { widthPx: map.width, heightPx: map.height, mmPerPx: widthMm / map.width, plates };
}

/** The spots that print and are anywhere in the picture. */
function inksOf({ map, spots }: Pick<Separable, "map" | "spots">): Spot[] {
  const present = new Set(map.faces.map((face) => face.spotId));
  return spots.filter((spot) => spot.role === "ink" && present.has(spot.id));
}

/** CIELAB L* of every ink. */
function lightnessOfInks(inks: readonly Spot[]): ReadonlyMap<string, number> {
  return new Map(inks.map((spot) => [spot.id, rgbToLab(spot.rgb)[0]]));
}

export type PlateRegion = Pick<Plate, "region" | "coverage">;
export type InkRegion = PlateRegion & Pick<Plate, "trapMm2">;

/** The inks of a drawing, as far as it decides where they may spread. Data alone. */
interface InksOfDrawing {
  readonly map: Drawing;
  readonly mmPerPx: number;
  /** CIELAB L* by spot id. */
  readonly lightness: ReadonlyMap<string, number>;
}

/** An ink, and how far it spreads. */
interface Spreading {
  readonly id: string;
  readonly trapMm: number;
}

/** What one ink prints. What is known of the drawing is kept while it is spread less and more. */
export const spreadTask: Task<InksOfDrawing, Spreading, InkRegion> = {
  name: "spread inks",
  begin: (inks) => {
    const spread = spreadsIn.get(inks) ?? beginSpreading(inks);
    spreadsIn.set(inks, spread);
    return spread;
  },
};

const spreadsIn = new WeakMap<InksOfDrawing, (one: Spreading) => InkRegion>();

function beginSpreading({ map, mmPerPx, lightness }: InksOfDrawing): (one: Spreading) => InkRegion {
  const lightnessOf: LightnessOf = (id) => lightness.get(id) ?? null;
  const tolerancePx = FLATTEN_MM / mmPerPx;
  const trapOf = makeTraps(map, lightnessOf, tolerancePx);
  /** All faces of inks darker than one. */
  const darkerThan = remember((light: number) =>
    toPolygons(
      map.faces.filter(({ spotId }) => (lightnessOf(spotId) ?? light) < light).flatMap(({ paths }) => paths),
      tolerancePx,
    ),
  );
  const bareOf = remember((id: string) => {
    const own = spotPaths(map, id);
    const under = map.below.flatMap((layer) => spotPaths(layer, id));
    const drawn = [own, under].map((paths) => toPolygons(paths, tolerancePx));
    const isOne = under.length === 0;
    return { paths: [...own, ...under], isOne, polygons: isOne ? drawn[0] : unite(...drawn) };
  });
  return ({ id, trapMm }) => {
    const trapPx = trapMm / mmPerPx;
    const trap = trapOf(id, trapPx);
    const bare = bareOf(id);
    if (trap.length === 0 && bare.isOne) return { ...measure(map, bare.paths), trapMm2: 0 };
    const spread = trap.length > 0 ? unite(bare.polygons, trap) : bare.polygons;
    const united = fillHoles(
      spread,
      (areaPx) => areaPx < leastHole(trapPx),
      () => darkerThan(lightness.get(id) ?? 0),
    );
    const region = recoverCurves(united, bare.paths, tolerancePx);
    const trapPx2 = polygonsArea(spread) - polygonsArea(bare.polygons);
    return { ...measure(map, region), trapMm2: trapPx2 * mmPerPx * mmPerPx };
  };
}

/** What each ink prints, traps included. What no trap touches keeps its curves; the rest is polygons within 0.003 mm. */
export function spreadInks(
  art: Separable,
  settings: Pick<SeparationSettings, "trapMm">,
): ReadonlyMap<string, InkRegion> {
  return doAlone(spreadTogether(art, settings));
}

/** The same with whoever helps. Inks with most boundaries come first. */
export function* spreadTogether(
  { map, spots, widthMm }: Separable,
  { trapMm }: Pick<SeparationSettings, "trapMm">,
): Sharing<ReadonlyMap<string, InkRegion>> {
  const lengthOf = (id: string) => spotPaths(map, id).reduce((sum, path) => sum + path.length, 0);
  const inks = inksOf({ map, spots }).map(({ id }) => ({ id, length: lengthOf(id) }));
  const ids = inks.sort((a, b) => b.length - a.length).map(({ id }) => id);
  const regions = yield* shareOut(
    spreadTask,
    inksOfDrawing({ map, spots, widthMm }),
    ids.map((id) => ({ id, trapMm })),
  );
  return new Map(ids.map((id, k) => [id, regions[k]]));
}

const lastInks = new WeakMap<Drawing, InksOfDrawing>();

/** The very same as long as nothing of it changes: then whoever helped before has it already. */
function inksOfDrawing({ map, spots, widthMm }: Omit<Separable, "garment">): InksOfDrawing {
  const inks = { map, mmPerPx: widthMm / map.width, lightness: lightnessOfInks(inksOf({ map, spots })) };
  const last = lastInks.get(map);
  const nameOf = ({ mmPerPx, lightness }: InksOfDrawing) => JSON.stringify([mmPerPx, ...lightness]);
  if (last && nameOf(last) === nameOf(inks)) return last;
  lastInks.set(map, inks);
  return inks;
}

/** A plate's region with its coverage. */
function measure(map: PlanarMap, region: readonly CubicPath[]): PlateRegion {
  return { region, coverage: areaOf(region) / (map.width * map.height) };
}

function areaOf(paths: readonly CubicPath[]): number {
  return Math.abs(paths.reduce((sum, path) => sum + pathArea(path), 0));
}
