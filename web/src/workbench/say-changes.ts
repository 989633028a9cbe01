// What a change brought about, in words for whoever does not see the table: by name, once it is there.
import type { Action } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { useEffect, useRef } from "react";
import { say } from "../frame/say.tsx";
import { describeAction } from "./artwork/action-words.ts";
import type { Bench } from "./screen.ts";

/** What was done to the artwork, undone or switched; null where nothing was but a tuning of what is there. */
export function tellActions(before: readonly Action[], after: readonly Action[], mmPerPx: number): string | null {
  const told: string[] = [];
  const words = (action: Action) => describeAction(action, mmPerPx);
  for (const action of after) {
    const was = before.find(({ id }) => id === action.id);
    if (!was) told.push(`${words(action)}.`);
    else if (was.isOn !== action.isOn) told.push(`${words(action)}: ${action.isOn ? "in force" : "switched off"}.`);
  }
  for (const action of before) if (!after.some(({ id }) => id === action.id)) told.push(`${words(action)}: taken out.`);
  return told.length === 0 ? null : told.join(" ");
}

type Told = Pick<Spot, "id" | "name" | "role">;

const ROLE_WORDS = { ink: "is an ink", garment: "is the garment's", drop: "is dropped" } as const;

/** Which colours came, went or are something else to the press; null where none did. */
export function tellSpots(before: readonly Told[], after: readonly Told[]): string | null {
  const told: string[] = [];
  const names = (spots: readonly Told[]) => spots.map(({ name }) => name).join(", ");
  const gone = before.filter(({ id }) => !after.some((spot) => spot.id === id));
  const come = after.filter(({ id }) => !before.some((spot) => spot.id === id));
  if (gone.length > 0) told.push(`No longer a colour: ${names(gone)}.`);
  if (come.length > 0) told.push(`New: ${names(come)}.`);
  for (const { id, name, role } of after) {
    const was = before.find((spot) => spot.id === id);
    if (was && was.role !== role) told.push(`${name} ${ROLE_WORDS[role]}.`);
  }
  if (told.length === 0) return null;
  const inks = after.filter(({ role }) => role === "ink").length;
  return `${told.join(" ")} ${inks === 1 ? "One ink" : `${inks} inks`} now.`;
}

/** Says them as they come, at whichever step. */
export function useSaidChanges({ recipe, computed, mmPerPx }: Pick<Bench, "recipe" | "computed" | "mmPerPx">): void {
  const { actions } = recipe.artwork;
  const toldActions = useRef(actions);
  useEffect(() => {
    const words = tellActions(toldActions.current, actions, mmPerPx);
    toldActions.current = actions;
    if (words) say(words);
  }, [actions, mmPerPx]);
  const spots = computed.reduced?.spots;
  const toldSpots = useRef<readonly Told[] | undefined>(undefined);
  useEffect(() => {
    if (!spots) return;
    const words = toldSpots.current && tellSpots(toldSpots.current, spots);
    toldSpots.current = spots;
    if (words) say(words);
  }, [spots]);
}
