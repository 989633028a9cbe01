// Colours on the bench: the shapes in their spots, and the tool that gives areas to spots.
import { processOf } from "@plain-palette/core/processes";
import type { Spot } from "@plain-palette/core/reduce";
import { useCallback, useMemo, useState } from "react";
import { STEP_NAMES } from "../../job/step-names.ts";
import { count } from "../../parts/count.ts";
import { useThinLimits } from "../../shop/use-shop.ts";
import { ringPlaces, useShapesResult } from "../looks.ts";
import type { StepScreen } from "../screen.ts";
import { ColoursStep } from "./colours-step.tsx";
import { type ChangePaintDesk, EMPTY_PAINT_DESK, type PaintDesk } from "./paint-desk.ts";
import { usePaintTool } from "./use-paint-tool.ts";

const NO_SPOTS: readonly Spot[] = [];

export const coloursScreen: StepScreen = {
  id: "colours",
  title: STEP_NAMES.colours,
  looks: ["source", "result", "split", "difference", "outlines"],
  summarise({ computed: { reduced } }) {
    if (!reduced) return "not looked at yet";
    const inks = reduced.spots.filter((spot) => spot.role === "ink").length;
    return `${count(reduced.spots.length, "colour")}, ${count(inks, "ink")}`;
  },
  useStep(bench) {
    const { computed, recipe, ask, look, pointer, table, mmPerPx } = bench;
    const { prepared, reduced, checks } = computed;
    const [desk, setDesk] = useState<PaintDesk>({
      ...EMPTY_PAINT_DESK,
      stockKind: processOf(recipe.process).stock,
    });
    const change: ChangePaintDesk = useCallback((part) => setDesk((old) => ({ ...old, ...part })), []);
    const tool = usePaintTool({ desk, change, prepared, spots: reduced?.spots ?? NO_SPOTS, pointer, ask });
    const limits = useThinLimits(bench.recipe.process);
    const isChecking = desk.section === "checks";
    return {
      wishes: {
        upTo: "edit",
        compare: look === "difference" ? "reduced" : null,
        checkThin: isChecking ? limits : null,
        countsColours: true,
      },
      result: useShapesResult(bench),
      marks: useMemo(
        () => (isChecking && checks ? [ringPlaces(checks.thin, mmPerPx)] : undefined),
        [isChecking, checks, mmPerPx],
      ),
      tool,
      panel: <ColoursStep computed={computed} desk={desk} change={change} table={table} />,
    };
  },
};
