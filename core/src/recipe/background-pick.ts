// The proposed background as an entry of the recipe: what the page's button and the shell's option both do.
import { formatHex } from "../colour/index.ts";
import { type BackgroundProposal, type Frame, mapPoint } from "../raster/index.ts";
import type { ActionOf } from "./actions.ts";

/** How much a proposed background takes along: only what reaches the border, small patches inside too, or all of its colour. */
export type BackgroundReach = "border" | "counters" | "everywhere";

/** The pick that takes a proposed background away; its places in the client's pixels. */
export function pickBackground(
  { seeds, counters, rgb, tolerance }: BackgroundProposal,
  frame: Frame,
  id: string,
  reach: BackgroundReach = "border",
): ActionOf<"pick"> {
  const hundredths = (v: number) => Math.round(v * 100) / 100;
  const places = [...seeds, ...(reach === "counters" ? counters : [])].map((seed) => {
    const { x, y } = mapPoint(frame.toSource, seed);
    return { x: hundredths(x), y: hundredths(y) };
  });
  return {
    id,
    isOn: true,
    kind: "pick",
    seeds: places,
    hex: formatHex(rgb),
    tolerance,
    reach: reach === "everywhere" ? reach : "connected",
  };
}
