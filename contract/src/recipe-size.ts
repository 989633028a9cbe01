// How large a recipe may be, said alike wherever one is saved.
import type { Problem } from "./problem.ts";

/** As JSON: some three thousand strokes of a brush, or several hundred lines of lettering. */
export const MOST_RECIPE_BYTES = 4 * 2 ** 20;

/** What is said of one that is larger. */
export const RECIPE_TOO_LARGE: Problem = {
  type: "about:blank",
  title: "This job has more in its recipe than can be saved",
  status: 413,
  detail: `A recipe may have ${MOST_RECIPE_BYTES / 2 ** 20} MB: some three thousand strokes, or as many shapes by hand.`,
  kept: "The version before is saved. What was changed since is only on this screen.",
  cure: "Undo the last change, or take out strokes and shapes that are not needed, in the lists of what was done.",
};
