import type { Recipe } from "@plain-palette/core/recipe";

/** The recipe with some of what was decided on colours changed. */
export function setColours(recipe: Recipe, part: Partial<Recipe["colours"]>): Recipe {
  return { ...recipe, colours: { ...recipe.colours, ...part } };
}
