// Shapes on the bench: the traced picture, how far its curves are from the source, and a simplification that is tried.
import type { Spot } from "@plain-palette/core/reduce";
import { useCallback, useMemo, useState } from "react";
import type { LetteringView } from "../../compute/messages.ts";
import { STEP_NAMES } from "../../job/step-names.ts";
import type { TableTool } from "../../light-table/tool.ts";
import { count } from "../../parts/count.ts";
import { useShapesResult } from "../looks.ts";
import type { StepScreen } from "../screen.ts";
import { brushTool, drawTool, partTool } from "./by-hand/draw-tool.ts";
import { type HandDesk, type HandMode, NO_LINES, useHandDesk } from "./by-hand/hand-desk.ts";
import { handLayers, stillLayers } from "./by-hand/hand-layers.ts";
import { linesTool } from "./by-hand/lines-tool.ts";
import { piecesTool } from "./by-hand/pieces-tool.ts";
import { DistanceLegend } from "./distance-legend.tsx";
import { useLetteringDesk } from "./lettering/lettering-desk.ts";
import { letteringLayers } from "./lettering/lettering-layers.ts";
import { letteringTool } from "./lettering/lettering-tool.ts";
import { useMotifDesk } from "./motifs/motif-desk.ts";
import { motifLayers } from "./motifs/motif-layers.ts";
import { motifTool } from "./motifs/motif-tool.ts";
import { distanceLayers, triedLayers } from "./shape-layers.ts";
import { shapePicker } from "./shape-picker.ts";
import { type ChangeShapesDesk, EMPTY_SHAPES_DESK, isByHand, type ShapesDesk } from "./shapes-desk.ts";
import { ShapesStep } from "./shapes-step.tsx";

const TOOLS: Readonly<Record<HandMode, (desk: HandDesk) => TableTool>> = {
  lines: linesTool,
  pieces: piecesTool,
  draw: drawTool,
  part: partTool,
  brush: brushTool,
};
const toolOf = (desk: HandDesk) => TOOLS[desk.mode](desk);

const NO_SPOTS: readonly Spot[] = [];
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
    const isHand = desk.section === "hand";
    const hand = useHandDesk(isHand ? (traced?.hand ?? null) : null, prepared?.frame ?? null, mmPerPx);
    const isLettering = desk.section === "lettering";
    const lettering = useLetteringDesk(
      isLettering ? (traced?.hand ?? null) : null,
      isLettering ? computed.lettering : NO_LETTERING,
      prepared?.frame ?? null,
      mmPerPx,
    );
    const isMotifs = desk.section === "motifs";
    const motifs = useMotifDesk(
      isMotifs ? (traced?.hand ?? null) : null,
      traced?.spots ?? NO_SPOTS,
      prepared?.frame ?? null,
      mmPerPx,
    );
    const scene = { prepared, spots: traced?.spots ?? [], garment: recipe.artwork.garment };
    const { mode, edges } = hand;
    const replaced = hand.drag ? NO_LINES : hand.replaced;
    const still = useMemo(() => stillLayers({ mode, edges, replaced }), [mode, edges, replaced]);
    const tool = () => {
      if (isHand && traced?.hand) return { tool: toolOf(hand), overlays: handLayers(hand) };
      if (isLettering && traced?.hand)
        return { tool: letteringTool(lettering), overlays: letteringLayers(lettering, scene) };
      if (isMotifs && traced?.hand)
        return { tool: motifTool(motifs), overlays: motifLayers(motifs, scene.spots, scene.garment) };
      return shapePicker(desk, change, prepared);
    };
    return {
      wishes: {
        upTo: "edit",
        measure: !isByHand(desk.section),
        trying: desk.trying,
        byHand: isByHand(desk.section),
      },
      result: useShapesResult(bench),
      looked: useMemo(() => ({ distance: deviation && distanceLayers(deviation) }), [deviation]),
      marks: useMemo(() => (tried ? triedLayers(tried) : undefined), [tried]) ?? (isHand ? still : undefined),
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
          motifs={motifs}
          size={size}
          change={change}
          table={table}
        />
      ),
    };
  },
};
