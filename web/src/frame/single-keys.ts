// Whether a letter alone is a command. Who speaks to the machine, or rests a hand on the keys, can switch that off.
import { create } from "zustand";
import { takesText } from "../parts/takes-text.ts";

const KEPT = "plain-palette single keys";

export const useSingleKeys = create<{ readonly isOn: boolean }>(() => ({ isOn: localStorage.getItem(KEPT) !== "off" }));

export function switchSingleKeys(isOn: boolean): void {
  localStorage.setItem(KEPT, isOn ? "on" : "off");
  useSingleKeys.setState({ isOn });
}

/** Whether a key is meant as a command by itself. */
export function isCommand(event: KeyboardEvent, key: string): boolean {
  const isAlone = !event.ctrlKey && !event.metaKey && !event.altKey;
  return isAlone && event.key.toLowerCase() === key && !takesText(event.target) && useSingleKeys.getState().isOn;
}
