// The live line of each step on the ticket.
import type { JobStep } from "@plain-palette/contract";
import { formatLength } from "@plain-palette/core/geometry";
import { effectiveDpi, printWidthMm, type Recipe } from "@plain-palette/core/recipe";
import type { Computed } from "../compute/use-compute.ts";

export function summariseSteps(
  size: { readonly width: number; readonly height: number },
  recipe: Recipe,
  { reduced, traced, separation }: Computed,
): Record<JobStep, string> {
  const widthMm = printWidthMm(recipe, size);
  const inks = reduced?.spots.filter((spot) => spot.role === "ink").length;
  return {
    artwork: `${formatLength(widthMm, recipe.artwork.width.unit)} wide, ${Math.round(effectiveDpi(size.width, widthMm))} dpi`,
    colours: reduced ? `${count(reduced.spots.length, "colour")}, ${count(inks ?? 0, "ink")}` : "not looked at yet",
    shapes: traced
      ? `${count(traced.counts.shapes, "shape")}, ${count(traced.counts.nodes, "node")}`
      : "not traced yet",
    separations: separation
      ? `${count(separation.plates.length, "plate")}, trap ${recipe.processes.screens.trapMm} mm`
      : `trap ${recipe.processes.screens.trapMm} mm`,
    output: recipe.processes.screens.films.isMirrored ? "films, mirrored" : "films, right-reading",
    proof: "to look at and show",
  };
}

function count(n: number, what: string): string {
  return `${n} ${what}${n === 1 ? "" : "s"}`;
}
