// Which pixel is which spot: the found colours through the reduction, then what the person corrected, in order.
import { rgbToLab } from "../colour/index.ts";
import { type Box, countLabels, eachDifference, type LabelMap, NONE, relabel } from "../raster/index.ts";
import { divideArea } from "./divide.ts";
import type { Findings } from "./find.ts";
import { type Area, floodArea, isLineLike } from "./flood.ts";
import { areasInLoop } from "./loop-areas.ts";
import type { Reduction, Spot } from "./reduce.ts";
import { type Poured, runUnder, type UnderLine, windowAround } from "./run-under.ts";
import { spotOfId } from "./spot-of-id.ts";

/** Areas are given to no spot at all by this id: the garment shows there. */
export const NOTHING = "nothing";

/** A correction as the recipe has it, its places in the prepared picture's pixels. */
export type SpotCorrection = {
  readonly id: string;
  readonly isOn: boolean;
  readonly spotId: string;
} & (
  | {
      readonly kind: "recolour" | "pour";
      readonly at: { readonly x: number; readonly y: number };
      /** How far: the area at the place, all enclosed areas of its colour, all areas of it, or all within a drawn loop. */
      readonly reach: "area" | "enclosed" | "everywhere" | "loop";
      /** x, y pairs; empty without a loop. */
      readonly loop: readonly number[];
    }
  | { readonly kind: "divide"; readonly line: readonly number[]; readonly isFlipped: boolean }
);

/** The spots of a picture's pixels. */
export interface Assignment {
  /** Index of each pixel's spot in the reduction. */
  readonly spotOfPixel: LabelMap;
  /** Pixels of each spot. */
  readonly areasPx: readonly number[];
  readonly underLines: readonly UnderLine[];
  /** Corrections that do nothing here, with the reason. */
  readonly misfits: ReadonlyMap<string, string>;
  /** What it was made from and by: one more correction starts here. */
  readonly madeFrom: {
    readonly labels: LabelMap;
    readonly spots: string;
    readonly corrections: readonly string[];
    readonly poured: readonly Poured[];
    /** What each of them runs under, or null. */
    readonly unders: readonly (UnderLine | null)[];
  };
}

/**
 * Gives every pixel its spot. Linear in pixels, and in the areas that corrections touch; with the `last` assignment of the
 * same picture only what was added since is done.
 */
export function assignSpots(
  { labels }: Findings,
  { spots, spotOfFound }: Reduction,
  corrections: readonly SpotCorrection[],
  last: Assignment | null = null,
): Assignment {
  const spotsKey = JSON.stringify([
    spots.map(({ id, rgb, role, members }) => [id, rgb, role, members]),
    [...spotOfFound],
  ]);
  const inForce = corrections.filter(({ isOn }) => isOn);
  const keys = inForce.map((correction) => JSON.stringify(correction));
  const from = last?.madeFrom;
  const goesOn =
    from?.labels === labels && from.spots === spotsKey && from.corrections.every((key, i) => key === keys[i])
      ? last
      : null;
  const map = goesOn ? copyMap(goesOn.spotOfPixel) : relabel(labels, spotOfFound);
  const misfits = new Map(goesOn?.misfits);
  const poured: Poured[] = goesOn ? [...goesOn.madeFrom.poured] : [];
  const isTaken = new Uint8Array(inForce.length > 0 ? map.data.length : 0);
  for (const correction of inForce.slice(goesOn?.madeFrom.corrections.length ?? 0)) {
    const spot = correction.spotId === NOTHING ? NONE : spotOfId(spots, correction.spotId);
    const reason =
      spot < 0
        ? "its spot is no longer there"
        : correction.kind === "divide"
          ? divideArea(map, correction.line, correction.isFlipped, spot, isTaken)
          : fillAreas(map, correction, spot, spots, poured, isTaken);
    if (reason !== null) misfits.set(correction.id, reason);
  }
  const { areasPx, changed } = goesOn ? changesSince(goesOn, map) : { areasPx: countLabels(map), changed: null };
  const unders = runAllUnder(map, poured, spots, goesOn, changed);
  return {
    spotOfPixel: map,
    areasPx: spots.map((_, index) => areasPx[index]),
    underLines: unders.filter((under) => under !== null),
    misfits,
    madeFrom: { labels, spots: spotsKey, corrections: keys, poured, unders },
  };
}

function copyMap({ width, height, data }: LabelMap): LabelMap {
  return { width, height, data: data.slice() };
}

/** Pixels of every spot now, and the smallest box with all that have changed in it; null if none has. */
function changesSince({ spotOfPixel: spots, areasPx: before }: Assignment, map: LabelMap) {
  const { width } = map;
  const areasPx = new Float64Array(256);
  areasPx.set(before);
  let [left, right, top, bottom] = [width, -1, -1, -1];
  eachDifference(map, spots, (p) => {
    areasPx[spots.data[p]]--;
    areasPx[map.data[p]]++;
    const x = p % width;
    if (x < left) left = x;
    if (x > right) right = x;
    bottom = (p - x) / width;
    if (top < 0) top = bottom;
  });
  const changed: Box | null = top < 0 ? null : { x: left, y: top, width: right + 1 - left, height: bottom + 1 - top };
  return { areasPx, changed };
}

/**
 * What every poured area runs under: the lines as they are in the end. Where nothing has changed since `last`, and where the
 * outcome is the same, it is the same object: what was read from it holds.
 */
function runAllUnder(
  map: LabelMap,
  poured: readonly Poured[],
  spots: readonly Spot[],
  last: Assignment | null,
  changed: Box | null,
): (UnderLine | null)[] {
  return poured.map((one, i) => {
    const before = last?.madeFrom.unders[i];
    if (before !== undefined && (!changed || !overlap(changed, one.window))) return before;
    const now = runUnder(map, one, spots);
    return before && now && isSameUnder(now, before) ? before : now;
  });
}

function overlap(a: Box, b: Box): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

function isSameUnder(a: UnderLine, b: UnderLine): boolean {
  if (a.spotId !== b.spotId || a.x !== b.x || a.y !== b.y || a.mask.width !== b.mask.width) return false;
  if (a.mask.height !== b.mask.height) return false;
  let isSame = true;
  eachDifference(a.mask, b.mask, () => {
    isSame = false;
  });
  return isSame;
}

type FillCorrection = Extract<SpotCorrection, { kind: "recolour" | "pour" }>;

/** What a click would take: its areas, or why it takes none. `isTaken` as for floodArea. */
export function areasToTake(
  map: LabelMap,
  { kind, at, reach }: Pick<FillCorrection, "kind" | "at" | "reach">,
  spots: readonly Spot[],
  isTaken: Uint8Array,
): readonly Area[] | string {
  const x = Math.floor(at.x);
  const y = Math.floor(at.y);
  if (x < 0 || y < 0 || x >= map.width || y >= map.height) return "its place is outside the picture";
  const start = y * map.width + x;
  if (kind !== "pour" && map.data[start] === NONE) return "there is nothing at its place";
  const first = floodArea(map, start, isTaken);
  if (kind === "pour" && isLine(map, first, spots)) return "its place is on a line: pour into what lines enclose";
  if (reach === "area") return [first];
  const areas = areasOfLabel(map, map.data[start], reach === "enclosed", isTaken);
  return areas.length > 0 ? areas : "no area of that colour is enclosed";
}

function fillAreas(
  map: LabelMap,
  correction: FillCorrection,
  spot: number,
  spots: readonly Spot[],
  poured: Poured[],
  isTaken: Uint8Array,
): string | null {
  const { kind, reach, loop } = correction;
  const isPour = kind === "pour";
  let areas: readonly Area[];
  if (reach === "loop") {
    areas = areasInLoop(map, loop, isTaken).filter(({ pixels }) => map.data[pixels[0]] !== spot);
    if (isPour) areas = areas.filter((area) => !isLine(map, area, spots));
    if (areas.length === 0) return "no area lies wholly inside its loop";
  } else {
    const taken = areasToTake(map, correction, spots, isTaken);
    if (typeof taken === "string") return taken;
    areas = taken;
  }
  for (const { pixels } of areas) {
    for (let k = 0; k < pixels.length; k++) map.data[pixels[k]] = spot;
    if (isPour && spot !== NONE)
      poured.push({ area: pixels, spot, window: windowAround(pixels, map.width, map.height) });
  }
  return null;
}

/** All areas of a label, or those that do not reach the picture's edge. */
function areasOfLabel(map: LabelMap, label: number, isEnclosed: boolean, isTaken: Uint8Array): Area[] {
  const areas: Area[] = [];
  const done = new Uint8Array(map.data.length);
  for (let p = map.data.indexOf(label); p >= 0; p = map.data.indexOf(label, p + 1)) {
    if (done[p] === 1) continue;
    const area = floodArea(map, p, isTaken);
    for (let k = 0; k < area.pixels.length; k++) done[area.pixels[k]] = 1;
    if (!isEnclosed || !area.touchesEdge) areas.push(area);
  }
  return areas;
}

/** CIELAB L* up to which an ink draws lines. */
const DARK = 50;

/** Whether an area is a drawn line: thin, long, and of a dark ink. */
function isLine(map: LabelMap, area: Area, spots: readonly Spot[]): boolean {
  const spot = spots[map.data[area.pixels[0]]];
  return spot?.role === "ink" && rgbToLab(spot.rgb)[0] < DARK && isLineLike(area);
}
