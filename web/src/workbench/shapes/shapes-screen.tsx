// Shapes on the bench: the traced picture, how far its curves are from the source, and a simplification that is tried.
import { useCallback, useMemo, useState } from "react";
import type { LetteringView } from "../../compute/messages.ts";
import { STEP_NAMES } from "../../job/step-names.ts";
import type { TableTool } from "../../light-table/tool.ts";
import { count } from "../count.ts";
import { useShapesResult } from "../looks.ts";
import type { StepScreen } from "../screen.ts";
import { brushTool, drawTool, partTool } from "./by-hand/draw-tool.ts";
import { type HandDesk, type HandMode, useHandDesk } from "./by-hand/hand-desk.ts";
import { handLayers } from "./by-hand/hand-layers.ts";
import { linesTool } from "./by-hand/lines-tool.ts";
import { piecesTool } from "./by-hand/pieces-tool.ts";
import { DistanceLegend } from "./distance-legend.tsx";
import { useLetteringDesk } from "./lettering/lettering-desk.ts";
import { letteringLayers } from "./lettering/lettering-layers.ts";
import { letteringTool } from "./lettering/lettering-tool.ts";
import { distanceLayers, triedLayers } from "./shape-layers.ts";
import { shapePicker } from "./shape-picker.ts";
import { type ChangeShapesDesk, EMPTY_SHAPES_DESK, type ShapesDesk } from "./shapes-desk.ts";
import { ShapesStep } from "./shapes-step.tsx";

const TOOLS: Readonly<Record<HandMode, (desk: HandDesk) => TableTool>> = {
  lines: linesTool,
  pieces: piecesTool,
  draw: drawTool,
  part: partTool,
  brush: brushTool,
};
const toolOf = (desk: HandDesk) => TOOLS[desk.mode](desk);

const NO_LETTERING: readonly LetteringView[] = [];

export const shapesScreen: StepScreen = {
  id: "shapes",
  title: STEP_NAMES.shapes,
  looks: ["source", "result", "split", "outlines", "distance"],
  summarise: ({ computed: { traced } }) =>
    traced ? `${count(traced.counts.shapes, "shape")}, ${count(traced.counts.nodes, "node")}` : "not traced yet",
  useStep(bench) {
    const { computed, ask, look, table, mmPerPx, size, recipe } = bench;
    const { prepared, traced } = computed;
    const [desk, setDesk] = useState<ShapesDesk>(EMPTY_SHAPES_DESK);
    const change: ChangeShapesDesk = useCallback((part) => setDesk((old) => ({ ...old, ...part })), []);
    const deviation = traced?.deviation ?? null;
    const tried = traced?.tried ?? null;
    const isByHand = desk.section === "hand";
    const hand = useHandDesk(isByHand ? (traced?.hand ?? null) : null, prepared?.frame ?? null, mmPerPx);
    const isLettering = desk.section === "lettering";
    const lettering = useLetteringDesk(
      isLettering ? (traced?.hand ?? null) : null,
      isLettering ? computed.lettering : NO_LETTERING,
      prepared?.frame ?? null,
      mmPerPx,
    );
    const scene = { prepared, spots: traced?.spots ?? [], garment: recipe.artwork.garment };
    const handMarks = isByHand && traced?.hand ? handLayers(hand) : undefined;
    const tool = () => {
      if (isByHand && traced?.hand) return { tool: toolOf(hand), overlays: [] };
      if (isLettering && traced?.hand)
        return { tool: letteringTool(lettering), overlays: letteringLayers(lettering, scene) };
      return shapePicker(desk, change, prepared);
    };
    return {
      wishes: {
        upTo: "edit",
        measure: !isByHand && !isLettering,
        trying: desk.trying,
        byHand: isByHand || isLettering,
      },
      result: useShapesResult(bench),
      looked: useMemo(() => ({ distance: deviation && distanceLayers(deviation) }), [deviation]),
      marks: useMemo(() => (tried ? triedLayers(tried) : undefined), [tried]) ?? handMarks,
      canFade: !isLettering,
      tool: tool(),
      legend: look === "distance" && deviation ? <DistanceLegend mmPerPx={mmPerPx} /> : null,
      panel: (
        <ShapesStep
          computed={computed}
          ask={ask}
          mmPerPx={mmPerPx}
          desk={desk}
          hand={hand}
          lettering={lettering}
          size={size}
          change={change}
          table={table}
        />
      ),
    };
  },
};
