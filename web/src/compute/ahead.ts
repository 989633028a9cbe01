// What a person will most likely want next, computed while the hand rests: the shapes, and one colour fewer. It is left where
// it is as soon as anything is asked.
import { type Artwork, type Recipe, type ResultCache, runStepsTogether } from "@plain-palette/core/recipe";
import type { Helpers } from "@plain-palette/core/share";
import { keepBeside, resultOf } from "@plain-palette/core/steps";
import type { ComputeRequest } from "./messages.ts";

/** Larger pictures have steps so long that a hand would wait for one to end, px. So have processes. */
const MOST_PX = 3e6;
const LAST_STEP = "edit";

interface AheadWork {
  readonly artwork: Artwork;
  readonly request: ComputeRequest;
  readonly cache: ResultCache;
  readonly helpers: Helpers;
  /** Lets the hand in, and says whether it is back. */
  isOver(): Promise<boolean>;
}

export async function computeAhead({ artwork, request, cache, helpers, isOver }: AheadWork): Promise<void> {
  if (artwork.raster.width * artwork.raster.height > MOST_PX) return;
  const { recipe, countsColours, focusId } = request;
  /** Whether it came to the end. */
  const run = async (wanted: Recipe, into: ResultCache): Promise<boolean> => {
    const steps = runStepsTogether(helpers, artwork, wanted, into, focusId);
    for (;;) {
      const step = await steps.next();
      if (step.done || step.value.name === LAST_STEP) return true;
      if (await isOver()) return false;
    }
  };
  if (!(await run(recipe, cache)) || !countsColours) return;
  const count = resultOf(cache.kept, "reduce").spots.filter(({ members }) => members.length > 0).length - 1;
  if (count < 1) return;
  const beside: ResultCache = { ...cache, kept: { ...cache.kept }, makers: new Map() };
  if (await run({ ...recipe, colours: { ...recipe.colours, count } }, beside)) keepBeside(cache.kept, beside.kept);
}
