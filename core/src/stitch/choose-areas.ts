// Every area with its numbers: as it is proposed, changed by the fabric, by what was decided on its spot, and on itself.
import { entriesByFace, faceHolding, layChoices, millimetresOf } from "../area/index.ts";
import { type Design, placeChosen } from "../process/index.ts";
import { proposeColours } from "./colour-order.ts";
import { FABRIC_NUMBERS } from "./fabric.ts";
import type { ChosenArea, PlanColour } from "./plan.ts";
import type { MeasuredArea } from "./propose-sewing.ts";
import type { SewnChoice, StitchSettings } from "./settings.ts";
import type { SewNumbers } from "./sew-area.ts";

/** Length of stitches in fills, of running and of bean stitches, mm (common practice, no source). */
const FILL_STITCH_MM = 3.75;
const RUN_MM = 2.5;
const BEAN_MM = 2.8;
/** Satin that is wider is parted, mm (from memory). */
const SPLIT_MM = 7;
/** Satin this open or more shows what lies under it: no underlay (our own). */
const LIGHT_MM = 0.6;

export interface Choice {
  readonly areas: readonly ChosenArea[];
  /** In the order of sewing. */
  readonly colours: readonly PlanColour[];
  /** Entries that find no area: by id. */
  readonly lost: readonly string[];
}

type Places = Pick<Design, "map" | "frame" | "widthMm" | "spots">;

/** What is sewn how, and in which order of colours. */
export function chooseAreas(measured: readonly MeasuredArea[], design: Places, settings: StitchSettings): Choice {
  const { map, spots } = design;
  const toMm = millimetresOf(design);
  const entries = entriesByFace(settings.areas, measured, toMm);
  const turns = new Map(settings.sequence.map((place, turn) => [faceHolding(measured, toMm(place)), turn]));
  const areas = measured.map((area): ChosenArea => {
    const own = entries.of.get(area.face) ?? [];
    const numbers = numbersOf(area, [settings.everywhere, settings.decided[area.spotId] ?? {}, ...own], settings);
    const last = <K extends "start" | "stop">(key: K) => own.findLast((entry) => entry[key])?.[key];
    const [start, stop] = [last("start"), last("stop")];
    return {
      ...area,
      numbers,
      start: start ? toMm(start) : null,
      stop: stop ? toMm(stop) : null,
      turn: turns.get(area.face) ?? null,
      entryIds: own.map(({ id }) => id),
    };
  });
  const order = placeChosen(proposeColours(measured, map), settings.order);
  const colours = order.flatMap((id) =>
    spots.filter((spot) => spot.id === id).map(({ name, rgb }): PlanColour => ({ spotId: id, name, rgb })),
  );
  return { areas, colours, lost: entries.lost };
}

function numbersOf(area: MeasuredArea, choices: readonly SewnChoice[], settings: StitchSettings): SewNumbers {
  const fabric = FABRIC_NUMBERS[settings.fabric];
  const said = layChoices(choices);
  const as = said.as ?? area.proposedAs;
  const spacingMm = said.spacingMm ?? fabric.spacingMm;
  return {
    ...{ as, spacingMm },
    angleDeg: said.angleDeg ?? area.proposedAngleDeg,
    stitchMm: said.stitchMm ?? FILL_STITCH_MM,
    ...{ runMm: RUN_MM, beanMm: BEAN_MM, passes: said.passes ?? 3, splitMm: SPLIT_MM },
    corners: said.corners ?? "mitred",
    pullMm: said.pullMm ?? fabric.pullMm,
    hasUnderlay: said.hasUnderlay ?? (as !== "satin" || spacingMm < LIGHT_MM),
    latticeMm: fabric.latticeMm,
    border: said.border ?? { kind: "none", widthMm: 1.3, spotId: null },
  };
}
