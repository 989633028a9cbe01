// Artwork on the bench: the prepared picture, the tool in hand, and what is only tried.

import { formatLength } from "@plain-palette/core/geometry";
import type { Recipe } from "@plain-palette/core/recipe";
import { effectiveDpi, printWidthMm } from "@plain-palette/core/recipe";
import { useCallback, useMemo, useState } from "react";
import type { PreparedPicture } from "../../compute/use-compute.ts";
import { STEP_NAMES } from "../../job/step-names.ts";
import type { TableLayer } from "../../light-table/layers.ts";
import type { StepScreen } from "../screen.ts";
import { ArtworkStep } from "./artwork-step.tsx";
import { actionsOnTable, type ChangeDesk, type Desk, EMPTY_DESK } from "./desk.ts";
import { placedTable } from "./placed-table.ts";
import { useToolInHand } from "./use-tool-in-hand.ts";

export const artworkScreen: StepScreen = {
  id: "artwork",
  title: STEP_NAMES.artwork,
  looks: ["source", "result", "split", "difference", "placed"],
  summarise({ recipe, size }) {
    const widthMm = printWidthMm(recipe, size);
    const dpi = Math.round(effectiveDpi(size.width, widthMm));
    return `${formatLength(widthMm, recipe.artwork.width.unit)} wide, ${dpi} dpi`;
  },
  useStep(bench) {
    const { computed, ask, recipe, mmPerPx, look } = bench;
    const { prepared } = computed;
    const [desk, setDesk] = useState<Desk>(EMPTY_DESK);
    const change: ChangeDesk = useCallback((part) => setDesk((old) => ({ ...old, ...part })), []);
    const tool = useToolInHand({ desk, change, prepared, mmPerPx });
    const isPlaced = look === "placed";
    const table = useMemo(
      () => (isPlaced && prepared ? placedTable(prepared, recipe.artwork, mmPerPx) : null),
      [isPlaced, prepared, recipe.artwork, mmPerPx],
    );
    return {
      wishes: { upTo: "prepare", focusId: desk.focusId, compare: look === "difference" ? "prepared" : null },
      recipe: useRecipeOnTable(recipe, desk),
      result: useMemo(() => prepared && preparedLayers(prepared), [prepared]),
      tool,
      table,
      panel: <ArtworkStep computed={computed} ask={ask} desk={desk} change={change} mmPerPx={mmPerPx} />,
    };
  },
};

/** The recipe with what is only tried, or without what is being edited. The same object while nothing of that is so. */
function useRecipeOnTable(recipe: Recipe, { tool, draft }: Desk): Recipe {
  return useMemo(() => {
    const actions = actionsOnTable(recipe.artwork.actions, { ...EMPTY_DESK, tool, draft });
    return actions === recipe.artwork.actions
      ? recipe
      : { ...recipe, artwork: { ...recipe.artwork, actions: [...actions] } };
  }, [recipe, tool, draft]);
}

function preparedLayers({ bitmap, focus, bitmapScale: scale }: PreparedPicture): TableLayer[] {
  const transform = { scaleX: scale, scaleY: scale, dx: 0, dy: 0 };
  const marks: TableLayer[] = focus?.marks ? [{ kind: "bitmap", bitmap: focus.marks, opacity: 0.6, transform }] : [];
  return [{ kind: "bitmap", bitmap, opacity: 1, transform }, ...marks];
}
