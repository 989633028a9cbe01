// The chosen area, and what is decided on it, on its thread, or on everything: entries of the recipe.
import { placeInside } from "@plain-palette/core/area";
import { type Frame, mapPoint, type Point } from "@plain-palette/core/raster";
import {
  type AreaEntry,
  type SewnArea,
  type SewnChoice,
  type Stitches,
  type StitchSettings,
  stitches,
} from "@plain-palette/core/stitch";
import { useState } from "react";
import { useJob } from "../../job/use-job.ts";
import { nextEntryId } from "./entry-ids.ts";

/** What a change is for. */
export type Scope = "area" | "thread" | "all";

export interface AreaDesk {
  readonly chosen: SewnArea | null;
  choose(face: number | null): void;
  readonly scope: Scope;
  setScope(scope: Scope): void;
  /** What was decided there. */
  choiceAt(scope: Scope): SewnChoice;
  decide(scope: Scope, part: Partial<SewnChoice>): void;
  reset(scope: Scope): void;
  /** Where the needle comes in or goes out of the chosen area, mm of the design. */
  movePlace(grip: "start" | "stop", place: Point): void;
  /** The order of areas of one thread, by their faces. */
  setSequence(faces: readonly number[]): void;
}

/** Places are kept to a hundredth of a pixel. */
const hundredth = (value: number) => Math.round(value * 100) / 100;

export function useAreaDesk(made: Stitches | null, frame: Frame | null, mmPerPx: number): AreaDesk {
  const [face, setFace] = useState<number | null>(null);
  const [scope, setScope] = useState<Scope>("area");
  const settings = useJob((state) => stitches.settingsIn(state.recipe));
  const edit = useJob((state) => state.edit);
  const set = (part: Partial<StitchSettings>) => edit((r) => stitches.withSettings(r, part));
  const chosen = made?.areas.find((area) => area.face === face) ?? null;
  /** A place of the design, mm, as one of the client's pixels. */
  const toSource = ({ x, y }: Point): Point => {
    const on = { x: x / mmPerPx, y: y / mmPerPx };
    const { x: sx, y: sy } = frame ? mapPoint(frame.toSource, on) : on;
    return { x: hundredth(sx), y: hundredth(sy) };
  };
  const entryOf = (area: SewnArea): AreaEntry | null =>
    settings.areas.findLast(({ id }) => id === area.entryIds.at(-1)) ?? null;
  const change = (area: SewnArea, part: Partial<AreaEntry>) => {
    const entry = entryOf(area);
    const areas = entry
      ? settings.areas.map((one) => (one === entry ? { ...one, ...part } : one))
      : [
          ...settings.areas,
          { id: nextEntryId(settings.areas), isOn: true, at: toSource(placeInside(area.rings)), ...part },
        ];
    set({ areas });
  };
  return {
    ...{ chosen, scope, setScope, choose: setFace },
    choiceAt: (at) => {
      if (at === "all") return settings.everywhere;
      if (!chosen) return {};
      if (at === "thread") return settings.decided[chosen.spotId] ?? {};
      const { id: _, isOn: __, at: ___, start: ____, stop: _____, ...choice } = entryOf(chosen) ?? NO_ENTRY;
      return choice;
    },
    decide: (at, part) => {
      if (at === "all") set({ everywhere: { ...settings.everywhere, ...part } });
      else if (chosen && at === "thread") {
        const { spotId } = chosen;
        set({ decided: { ...settings.decided, [spotId]: { ...settings.decided[spotId], ...part } } });
      } else if (chosen) change(chosen, part);
    },
    reset: (at) => {
      if (at === "all") set({ everywhere: {} });
      else if (chosen && at === "thread") {
        const { [chosen.spotId]: _, ...decided } = settings.decided;
        set({ decided });
      } else if (chosen) set({ areas: settings.areas.filter(({ id }) => !chosen.entryIds.includes(id)) });
    },
    movePlace: (grip, place) => chosen && change(chosen, { [grip]: toSource(place) }),
    setSequence: (faces) => {
      const places = faces.flatMap((one) => {
        const area = made?.areas.find((each) => each.face === one);
        return area ? [toSource(placeInside(area.rings))] : [];
      });
      // Those of other threads keep their own.
      const others = made?.areas.filter((area) => area.turn !== null && !faces.includes(area.face)) ?? [];
      others.sort((a, b) => (a.turn ?? 0) - (b.turn ?? 0));
      set({ sequence: [...others.map((area) => toSource(placeInside(area.rings))), ...places] });
    },
  };
}

const NO_ENTRY: AreaEntry = { id: "", isOn: true, at: { x: 0, y: 0 } };
