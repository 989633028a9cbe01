// An action in the shop's words, one line each.
import type { Action } from "@plain-palette/core/recipe";

const QUARTERS = { 1: "Turned a quarter right", 2: "Turned upside down", 3: "Turned a quarter left" } as const;
const STROKES = { erase: "Erased", restore: "Restored", paint: "Painted" } as const;
const SPECKS = { both: "Specks away", dark: "Dark specks away", light: "Light specks away" } as const;

const SEE_THROUGH = {
  garment: "Half-transparent: on the garment",
  drop: "Half-transparent: dropped",
  solid: "Half-transparent: solid",
} as const;

/** What was done; `mmPerPx` turns the client's pixels into print size. */
export function describeAction(action: Action, mmPerPx: number): string {
  const mm = (px: number) => `${(px * mmPerPx).toFixed(1)} mm`;
  switch (action.kind) {
    case "turn":
      return QUARTERS[action.quarters];
    case "flip":
      return action.axis === "left-right" ? "Flipped left to right" : "Flipped top to bottom";
    case "straighten":
      return `Straightened by ${action.angleDeg.toFixed(2).replace("-", "−")}°`;
    case "keystone":
      return "Laid flat by its corners";
    case "crop":
      return `Cropped to ${Math.round(action.width)} × ${Math.round(action.height)} px`;
    case "line-art":
      return action.method === "even"
        ? `Line art, cut-off ${Math.round(action.cutOff * 100)} %`
        : "Line art, local threshold";
    case "pick":
      return `${action.hex} away${action.reach === "everywhere" ? " everywhere" : ""}, tolerance ${action.tolerance}`;
    case "stroke":
      return `${STROKES[action.mode]}, ${mm(action.radiusPx * 2)} across`;
    case "move-piece":
      return action.dx === 0 && action.dy === 0 ? "Piece cut out, in its place" : "Piece moved";
    case "pinholes":
      return `Pinholes filled, up to ${action.maxPx} px`;
    case "specks":
      return `${SPECKS[action.which]}, up to ${action.maxPx} px`;
    case "see-through":
      return SEE_THROUGH[action.treatment];
    case "silhouette":
      return `All in ${action.hex}`;
  }
}

/** The section of the panel in which an action is changed. */
export function sectionOf(action: Action): "upright" | "line-art" | "background" | "touch-up" {
  switch (action.kind) {
    case "turn":
    case "flip":
    case "straighten":
    case "keystone":
    case "crop":
      return "upright";
    case "line-art":
      return "line-art";
    case "pick":
    case "see-through":
      return "background";
    default:
      return "touch-up";
  }
}
