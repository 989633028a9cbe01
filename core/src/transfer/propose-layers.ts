// In which order layers are pressed, and how each meets those after it, as long as nobody says otherwise.
import { flattenPath, lengthAlong, pathArea } from "../geometry/index.ts";
import { placeChosen } from "../process/index.ts";
import type { Spot } from "../reduce/index.ts";
import { faceArea, outerRing, type PlanarMap } from "../trace/index.ts";
import type { LayerMode, TransferSettings } from "./settings.ts";

/** Film that is this much narrower than what it goes round is an outline (our own). */
const OUTLINE_ENCLOSES = 2;
/** An outline is at most this wide on average, mm (our own). */
const OUTLINE_MM = 5;
/** Where less than this share of a layer is knocked out for others, leaving it whole costs little film (our own). */
const LITTLE_KNOCKED_OUT = 1 / 3;
/** How finely a boundary's length is measured, px. */
const FLATTEN_PX = 0.25;

/** A layer as it is proposed, or decided on. */
export interface LayerChoice {
  readonly spot: Spot;
  readonly mode: LayerMode;
  readonly proposedMode: LayerMode;
}

/** What a spot's shapes are like, square source pixels. */
interface Extent {
  readonly own: number;
  /** With all that they go round. */
  readonly filled: number;
  readonly meanWidthPx: number;
}

/**
 * The layers, first pressed first. Proposed: what encloses most lies lowest, outlines over what they go round (common
 * practice, no source); a layer of which little is knocked out stays solid.
 */
export function chooseLayers(
  map: PlanarMap,
  spots: readonly Spot[],
  mmPerPx: number,
  { order, decided }: Pick<TransferSettings, "order" | "decided">,
): LayerChoice[] {
  const extents = measureExtents(map);
  const film = spots.filter(({ id, role }) => role === "ink" && extents.has(id));
  const extentOf = (id: string): Extent => extents.get(id) ?? { own: 0, filled: 0, meanWidthPx: 0 };
  const isOutline = ({ id }: Spot) => {
    const { own, filled, meanWidthPx } = extentOf(id);
    return decided[id]?.mode !== "solid" && filled > OUTLINE_ENCLOSES * own && meanWidthPx * mmPerPx < OUTLINE_MM;
  };
  const proposed = [...film].sort(
    (a, b) =>
      Number(isOutline(a)) - Number(isOutline(b)) ||
      extentOf(b.id).filled - extentOf(a.id).filled ||
      (a.id < b.id ? -1 : 1),
  );
  const spotOf = new Map(proposed.map((spot) => [spot.id, spot]));
  const placed = placeChosen([...spotOf.keys()], order).flatMap((id) => spotOf.get(id) ?? []);
  return placed.map((spot) => {
    const { own, filled } = extentOf(spot.id);
    const isNearlyWhole = !isOutline(spot) && filled > own && filled - own < LITTLE_KNOCKED_OUT * filled;
    const proposedMode = isNearlyWhole ? "solid" : "lapped";
    return { spot, mode: decided[spot.id]?.mode ?? proposedMode, proposedMode };
  });
}

function measureExtents(map: PlanarMap): Map<string, Extent> {
  const sums = new Map<string, { own: number; filled: number; around: number }>();
  const sumOf = (id: string) => {
    const sum = sums.get(id) ?? { own: 0, filled: 0, around: 0 };
    sums.set(id, sum);
    return sum;
  };
  for (const face of map.faces) {
    const sum = sumOf(face.spotId);
    sum.own += faceArea(face);
    sum.filled += Math.abs(pathArea(face.paths[outerRing(face)]));
  }
  for (const { path, left, right } of map.edges) {
    const line = flattenPath(path, FLATTEN_PX);
    const length = lengthAlong(line);
    for (const face of [left, right]) if (face >= 0) sumOf(map.faces[face].spotId).around += length;
  }
  return new Map(
    [...sums].map(([id, { own, filled, around }]) => [
      id,
      { own, filled, meanWidthPx: around > 0 ? (2 * own) / around : 0 },
    ]),
  );
}
