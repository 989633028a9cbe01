// Shapes on the bench: the traced picture, how far its curves are from the source, and a simplification that is tried.
import { useCallback, useMemo, useState } from "react";
import { STEP_NAMES } from "../../job/step-names.ts";
import { count } from "../count.ts";
import { useShapesResult } from "../looks.ts";
import type { StepScreen } from "../screen.ts";
import { DistanceLegend } from "./distance-legend.tsx";
import { distanceLayers, triedLayers } from "./shape-layers.ts";
import { shapePicker } from "./shape-picker.ts";
import { type ChangeShapesDesk, EMPTY_SHAPES_DESK, type ShapesDesk } from "./shapes-desk.ts";
import { ShapesStep } from "./shapes-step.tsx";

export const shapesScreen: StepScreen = {
  id: "shapes",
  title: STEP_NAMES.shapes,
  looks: ["source", "result", "split", "outlines", "distance"],
  summarise: ({ computed: { traced } }) =>
    traced ? `${count(traced.counts.shapes, "shape")}, ${count(traced.counts.nodes, "node")}` : "not traced yet",
  useStep(bench) {
    const { computed, ask, look, table, mmPerPx } = bench;
    const { prepared, traced } = computed;
    const [desk, setDesk] = useState<ShapesDesk>(EMPTY_SHAPES_DESK);
    const change: ChangeShapesDesk = useCallback((part) => setDesk((old) => ({ ...old, ...part })), []);
    const deviation = traced?.deviation ?? null;
    const tried = traced?.tried ?? null;
    return {
      wishes: { upTo: "edit", measure: true, trying: desk.trying },
      result: useShapesResult(bench),
      looked: useMemo(() => ({ distance: deviation && distanceLayers(deviation) }), [deviation]),
      marks: useMemo(() => (tried ? triedLayers(tried) : undefined), [tried]),
      tool: shapePicker(desk, change, prepared),
      legend: look === "distance" && deviation ? <DistanceLegend mmPerPx={mmPerPx} /> : null,
      panel: <ShapesStep computed={computed} ask={ask} mmPerPx={mmPerPx} desk={desk} change={change} table={table} />,
    };
  },
};
