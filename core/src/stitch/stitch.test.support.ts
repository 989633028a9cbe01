// Known shapes, and plans of them, for the tests of stitches.
import { findColumns, makeArea, type Ring } from "../area/index.ts";

import { type ChosenArea, type PlanColour, planStitches, type StitchPlan } from "./index.ts";
import { COMMANDS, STITCH_KINDS, type StitchKind } from "./plan.ts";
import type { SewNumbers } from "./sew-area.ts";

export const NUMBERS: SewNumbers = {
  ...{ as: "fill", angleDeg: 0, spacingMm: 0.4, stitchMm: 3.75, runMm: 2.5, beanMm: 2.8, passes: 3, pullMm: 0.2 },
  ...{
    splitMm: 7,
    corners: "mitred",
    hasUnderlay: true,
    latticeMm: 2.5,
    border: { kind: "none", widthMm: 1.3, spotId: null },
  },
};

export function chosen(rings: readonly Ring[], numbers: Partial<SewNumbers>, spotId = "aa0000", face = 0): ChosenArea {
  const area = makeArea(face, spotId, rings);
  const widthMm = (2 * area.areaMm2) / area.aroundMm;
  return {
    ...area,
    ...{ columns: findColumns(area.rings, widthMm), proposedAs: "fill", proposedAngleDeg: 45, widthMm },
    ...{ numbers: { ...NUMBERS, ...numbers }, start: null, stop: null, turn: null, entryIds: [] },
  };
}

export const RED: PlanColour = { spotId: "aa0000", name: "Red", rgb: [170, 0, 0] };
export const BLUE: PlanColour = { spotId: "0000aa", name: "Blue", rgb: [0, 0, 170] };

export const planOf = (areas: readonly ChosenArea[], colours: readonly PlanColour[] = [RED], size = 60): StitchPlan =>
  planStitches(areas, colours, size, size);

export interface Stitch {
  readonly kind: StitchKind;
  readonly x: number;
  readonly y: number;
  readonly area: number;
  readonly colour: number;
  /** From the stitch before; 0 after a jump. */
  readonly lengthMm: number;
}

/** Its stitches alone. */
export function stitchesOf(plan: StitchPlan): Stitch[] {
  return Array.from(plan.command, (code, i): Stitch[] => {
    if (COMMANDS[code] !== "stitch") return [];
    const isOn = i > 0 && COMMANDS[plan.command[i - 1]] === "stitch";
    const lengthMm = isOn ? Math.hypot(plan.x[i] - plan.x[i - 1], plan.y[i] - plan.y[i - 1]) : 0;
    return [
      {
        kind: STITCH_KINDS[plan.kind[i]],
        x: plan.x[i],
        y: plan.y[i],
        area: plan.area[i],
        colour: plan.colour[i],
        lengthMm,
      },
    ];
  }).flat();
}

export const commandsOf = (plan: StitchPlan): string[] => Array.from(plan.command, (code) => COMMANDS[code]);
