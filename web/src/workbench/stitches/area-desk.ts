// How areas are sewn, decided on the bench: on one, on its thread, on everything; where the needle comes in, and in which order.
import { placeInside } from "@plain-palette/core/area";
import type { Frame, Point } from "@plain-palette/core/raster";
import {
  type AreaEntry,
  type SewnArea,
  type SewnChoice,
  type Stitches,
  type StitchSettings,
  stitches,
} from "@plain-palette/core/stitch";
import { useJob } from "../../job/use-job.ts";
import { type AreaDecisions, toSourceBy, useAreaDecisions } from "../areas/area-decisions.ts";

export interface AreaDesk extends AreaDecisions<SewnArea, SewnChoice, AreaEntry> {
  /** Where the needle comes in or goes out of the chosen area, mm of the design. */
  movePlace(grip: "start" | "stop", place: Point): void;
  /** The order of areas of one thread, by their faces. */
  setSequence(faces: readonly number[]): void;
}

const choiceOf = ({ id: _, isOn: __, at: ___, start: ____, stop: _____, ...choice }: AreaEntry): SewnChoice => choice;

export function useAreaDesk(made: Stitches | null, frame: Frame | null, mmPerPx: number): AreaDesk {
  const settings = useJob((state) => stitches.settingsIn(state.recipe));
  const edit = useJob((state) => state.edit);
  const set = (part: Partial<StitchSettings>) => edit((r) => stitches.withSettings(r, part));
  const toSource = toSourceBy(frame, mmPerPx);
  const areas = made?.areas ?? [];
  const decisions = useAreaDecisions(areas, settings, set as (part: object) => void, { toSource, choiceOf });
  const { chosen, change } = decisions;
  return {
    ...decisions,
    movePlace: (grip, place) => chosen && change(chosen, { [grip]: toSource(place) }),
    setSequence: (faces) => {
      const places = faces.flatMap((one) => {
        const area = areas.find((each) => each.face === one);
        return area ? [toSource(placeInside(area.rings))] : [];
      });
      // Those of other threads keep their own.
      const others = areas.filter((area) => area.turn !== null && !faces.includes(area.face));
      others.sort((a, b) => (a.turn ?? 0) - (b.turn ?? 0));
      set({ sequence: [...others.map((area) => toSource(placeInside(area.rings))), ...places] });
    },
  };
}
