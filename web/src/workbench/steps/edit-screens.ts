// Decisions about screens, as edits of the recipe.
import type { Recipe } from "@plain-palette/core/recipe";
import type { ScreensSettings } from "@plain-palette/core/screens";

/** The recipe with some of its settings for screens changed. */
export function setScreens(recipe: Recipe, part: Partial<ScreensSettings>): Recipe {
  return { ...recipe, processes: { ...recipe.processes, screens: { ...recipe.processes.screens, ...part } } };
}
