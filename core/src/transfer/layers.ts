// Layers: the film of each spot as it is cut, all its pieces joined, and how far it runs on under what is pressed later.
import type { Rgb } from "../colour/index.ts";
import { boundsOf, type CubicPath, flattenPath, lengthAlong, pathArea, segmentCount } from "../geometry/index.ts";
import type { Design } from "../process/index.ts";
import type { Point } from "../raster/index.ts";
import { faceArea, outlinePaths, type PlanarMap } from "../trace/index.ts";
import { giveIslands } from "./islands.ts";
import { type LapRoom, runUnder } from "./lap.ts";
import { chooseLayers } from "./propose-layers.ts";
import type { LayerMode, TransferSettings } from "./settings.ts";
import { thicken } from "./thicken.ts";
import { enclosedBy, narrowWindows } from "./windows.ts";

/** The film of one spot. `region` is closed paths in source pixels; even-odd and non-zero fill agree on it. */
export interface Layer {
  readonly spotId: string;
  readonly name: string;
  readonly rgb: Rgb;
  /** Position in the press order, from 1: the lowest. */
  readonly order: number;
  readonly mode: LayerMode;
  readonly proposedMode: LayerMode;
  readonly region: readonly CubicPath[];
  readonly areaMm2: number;
  /** What was added to thin strips of it so that they cut. */
  readonly thickened: readonly CubicPath[];
  /** How much of it lies under layers that are pressed later. */
  readonly underMm2: number;
  /** Pieces that hang together. */
  readonly pieces: number;
  readonly nodes: number;
}

/** All layers in press order, unmirrored, and the true size of the art they share. */
export interface Layering {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly mmPerPx: number;
  readonly layers: readonly Layer[];
  /** Where islands were too small to be picked up and went to the film beside them, source pixels. */
  readonly given: readonly Point[];
  /** Round all that any film covers, source pixels. */
  readonly outline: readonly CubicPath[];
  /** How many whole films lie on each other at most, laps not counted, and where that is, source pixels. */
  readonly stack: { readonly most: number; readonly place: Point | null };
}

/** Curves are flattened to this for polygon arithmetic, mm: well under what cutters repeat. */
const FLATTEN_MM = 0.01;

/** Windows narrower than this, mm, are not weeded out of a lapped layer: it stays whole under lettering (our own). */
const LEAST_WINDOW_MM = 3;
const NOTHING: ReadonlySet<number> = new Set();

/** The layers of a traced picture. Flush ones are its shapes, to the last digit. */
export function cutLayers(design: Pick<Design, "map" | "spots" | "widthMm">, settings: TransferSettings): Layering {
  const { map, spots, widthMm } = design;
  const mmPerPx = widthMm / map.width;
  const choices = chooseLayers(map, spots, mmPerPx, settings);
  const rankOf = new Map(choices.map(({ spot }, rank) => [spot.id, rank]));
  const tolerancePx = FLATTEN_MM / mmPerPx;
  const lengthsPx = map.edges.map(({ path }) => lengthAlong(flattenPath(path, tolerancePx)));
  const asTraced = map.faces.map(({ spotId }) => rankOf.get(spotId) ?? -1);
  const { rank, places: given } = settings.givesIslands
    ? giveIslands(map, asTraced, lengthsPx, settings.limits.islandMm / mmPerPx)
    : { rank: asTraced, places: [] };
  const room: LapRoom = {
    ...{ map, rank, tolerancePx },
    lapPx: settings.lapMm / mmPerPx,
    windowPx: LEAST_WINDOW_MM / mmPerPx,
    cutPx: settings.toleranceMm / mmPerPx,
  };
  /** What of later layers a layer lies under as a whole. */
  const coveredBy: Readonly<Record<LayerMode, (own: number) => ReadonlySet<number>>> = {
    flush: () => NOTHING,
    lapped: (own) => narrowWindows(map, rank, own, lengthsPx, room.windowPx),
    solid: (own) => enclosedBy(map, rank, own),
  };
  /** Films on each face. */
  const films = rank.map((one): number => (one < 0 ? 0 : 1));
  const layers = choices.map(({ spot: { id, name, rgb }, mode, proposedMode }, own): Layer => {
    const covered = coveredBy[mode](own);
    const isWhole = (face: number) => face >= 0 && (rank[face] === own || covered.has(face));
    for (const face of covered) films[face]++;
    const whole = outlinePaths(map, isWhole);
    const laid = mode === "flush" ? whole : runUnder(room, whole, isWhole, own);
    const { region, added } = settings.thickensStrips
      ? thicken(laid, settings.limits.stripMm, mmPerPx, room)
      : { region: laid, added: [] };
    const shownPx = map.faces.reduce((sum, face, f) => (rank[f] === own ? sum + faceArea(face) : sum), 0);
    return {
      ...{ spotId: id, name, rgb, order: own + 1, mode, proposedMode, region, thickened: added },
      areaMm2: areaOf(region) * mmPerPx * mmPerPx,
      underMm2: Math.max(0, areaOf(laid) - shownPx) * mmPerPx * mmPerPx,
      pieces: countPieces(region),
      nodes: region.reduce((sum, path) => sum + segmentCount(path), 0),
    };
  });
  const most = Math.max(0, ...films);
  return {
    widthPx: map.width,
    heightPx: map.height,
    mmPerPx,
    // One of which all was given away is none.
    layers: layers.filter(({ region }) => region.length > 0).map((layer, i) => ({ ...layer, order: i + 1 })),
    given,
    outline: outlinePaths(map, (face) => face >= 0 && rank[face] >= 0),
    stack: { most, place: insideOf(map, films.indexOf(most)) },
  };
}

/** A place of a face; null where there is none. */
function insideOf(map: PlanarMap, face: number): Point | null {
  const path = map.faces[face]?.paths[0];
  if (!path) return null;
  const { left, top, right, bottom } = boundsOf(path);
  return { x: (left + right) / 2, y: (top + bottom) / 2 };
}

function areaOf(region: readonly CubicPath[]): number {
  return Math.abs(region.reduce((sum, path) => sum + pathArea(path), 0));
}

/** Outlines turn one way, the way of the whole, and holes the other. */
function countPieces(region: readonly CubicPath[]): number {
  const areas = region.map(pathArea);
  const turn = Math.sign(areas.reduce((sum, area) => sum + area, 0));
  return areas.filter((area) => Math.sign(area) === turn).length;
}
