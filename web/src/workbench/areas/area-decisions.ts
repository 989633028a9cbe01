// The chosen area, and what is decided on it, on its spot, or on everything: entries of the recipe.
import { type Area, placeInside } from "@plain-palette/core/area";
import { type Frame, mapPoint, type Point } from "@plain-palette/core/raster";
import { useState } from "react";
import { nextEntryId } from "./entry-ids.ts";

/** What a change is for. */
export type Scope = "area" | "spot" | "all";

/** An area as a process made it: the entries that were decided on it, later ones last. */
interface DecidedArea extends Pick<Area, "face" | "spotId" | "rings"> {
  readonly entryIds: readonly string[];
}

interface PlacedEntry {
  readonly id: string;
  readonly isOn: boolean;
  readonly at: Point;
}

/** The part of a process's settings that is about areas. `C` is what is decided, `E` an entry with such decisions. */
interface AreaSettings<C, E> {
  readonly everywhere: C;
  readonly decided: Readonly<Record<string, C>>;
  readonly areas: readonly E[];
}

export interface AreaDecisions<A, C, E> {
  readonly chosen: A | null;
  choose(face: number | null): void;
  readonly scope: Scope;
  setScope(scope: Scope): void;
  /** What was decided there. */
  choiceAt(scope: Scope): C;
  decide(scope: Scope, part: Partial<C>): void;
  reset(scope: Scope): void;
  /** More about one area than is decided on many. */
  change(area: A, part: Partial<E>): void;
}

/** Places are kept to a hundredth of a pixel. */
const hundredth = (value: number) => Math.round(value * 100) / 100;

/** Makes of a place of the design, mm, one of the client's pixels. */
export function toSourceBy(frame: Frame | null, mmPerPx: number): (place: Point) => Point {
  return ({ x, y }) => {
    const on = { x: x / mmPerPx, y: y / mmPerPx };
    const { x: sx, y: sy } = frame ? mapPoint(frame.toSource, on) : on;
    return { x: hundredth(sx), y: hundredth(sy) };
  };
}

/** `choiceOf` takes from an entry what is decided on many areas alike. */
export function useAreaDecisions<A extends DecidedArea, C extends object, E extends PlacedEntry>(
  areas: readonly A[],
  settings: AreaSettings<C, E>,
  set: (part: Partial<AreaSettings<C, E>>) => void,
  { toSource, choiceOf }: { toSource(place: Point): Point; choiceOf(entry: E): C },
): AreaDecisions<A, C, E> {
  const [face, setFace] = useState<number | null>(null);
  const [scope, setScope] = useState<Scope>("area");
  const chosen = areas.find((area) => area.face === face) ?? null;
  const entryOf = (area: A): E | null => settings.areas.findLast(({ id }) => id === area.entryIds.at(-1)) ?? null;
  const change = (area: A, part: Partial<E>) => {
    const entry = entryOf(area);
    const fresh = {
      id: nextEntryId(settings.areas, "area"),
      isOn: true,
      at: toSource(placeInside(area.rings)),
      ...part,
    };
    set({
      areas: entry
        ? settings.areas.map((one) => (one === entry ? { ...one, ...part } : one))
        : [...settings.areas, fresh as unknown as E],
    });
  };
  return {
    ...{ chosen, scope, setScope, choose: setFace, change },
    choiceAt: (at) => {
      if (at === "all") return settings.everywhere;
      const entry = chosen && entryOf(chosen);
      if (at === "spot") return (chosen && settings.decided[chosen.spotId]) ?? ({} as C);
      return entry ? choiceOf(entry) : ({} as C);
    },
    decide: (at, part) => {
      if (at === "all") set({ everywhere: { ...settings.everywhere, ...part } });
      else if (chosen && at === "spot") {
        const { spotId } = chosen;
        set({ decided: { ...settings.decided, [spotId]: { ...settings.decided[spotId], ...part } as C } });
      } else if (chosen) change(chosen, part as unknown as Partial<E>);
    },
    reset: (at) => {
      if (at === "all") set({ everywhere: {} as C });
      else if (chosen && at === "spot") {
        const { [chosen.spotId]: _, ...decided } = settings.decided;
        set({ decided });
      } else if (chosen) set({ areas: settings.areas.filter(({ id }) => !chosen.entryIds.includes(id)) });
    },
  };
}
