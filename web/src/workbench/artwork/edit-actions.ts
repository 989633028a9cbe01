// Changes to the list of actions, as changes of the recipe.
import { type Action, isUpright, type Recipe } from "@plain-palette/core/recipe";

export type EditRecipe = (change: (recipe: Recipe) => Recipe) => void;

function withActions(recipe: Recipe, actions: readonly Action[]): Recipe {
  return { ...recipe, artwork: { ...recipe.artwork, actions: [...actions] } };
}

export function addAction(recipe: Recipe, ...added: Action[]): Recipe {
  return withActions(recipe, [...recipe.artwork.actions, ...added]);
}

/** Replaces the action of the same id; the recipe itself if it is no longer there. */
export function changeAction(recipe: Recipe, changed: Action): Recipe {
  const { actions } = recipe.artwork;
  if (!actions.some(({ id }) => id === changed.id)) return recipe;
  return withActions(
    recipe,
    actions.map((action) => (action.id === changed.id ? changed : action)),
  );
}

export function removeAction(recipe: Recipe, id: string): Recipe {
  return withActions(
    recipe,
    recipe.artwork.actions.filter((action) => action.id !== id),
  );
}

/** The list with one action in the place of another; upright ones and those on pixels keep to themselves. */
export function moveAction(recipe: Recipe, id: string, toPlaceOf: string): Recipe {
  const { actions } = recipe.artwork;
  const action = actions.find((one) => one.id === id);
  const there = actions.find((one) => one.id === toPlaceOf);
  if (!action || !there || isUpright(action) !== isUpright(there)) return recipe;
  const moved = actions.filter((one) => one !== action);
  moved.splice(actions.indexOf(there), 0, action);
  return withActions(recipe, moved);
}
