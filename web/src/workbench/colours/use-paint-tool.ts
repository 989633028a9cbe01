// The tool in hand at the colours step, tied to the recipe.
import { formatHex } from "@plain-palette/core/colour";
import { mapPoint, type Point } from "@plain-palette/core/raster";
import type { Correction } from "@plain-palette/core/recipe";
import { NOTHING, type Spot } from "@plain-palette/core/reduce";
import { useEffect, useMemo, useRef, useState } from "react";
import type { AreaView } from "../../compute/messages.ts";
import type { Ask, PreparedPicture } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePolylinePath } from "../../light-table/pieces.ts";
import type { ToolEvent } from "../../light-table/tool.ts";
import type { ToolInHand } from "../artwork/frame-tools.ts";
import { addPoint } from "../artwork/touch-tools.ts";
import { pixelAt } from "../read-place.ts";
import { addCorrection, decideSpot, resolveTarget } from "./edit-colours.ts";
import { type ChangePaintDesk, type PaintDesk, TO_GARMENT } from "./paint-desk.ts";

interface Work {
  readonly desk: PaintDesk;
  readonly change: ChangePaintDesk;
  readonly prepared: PreparedPicture | null;
  readonly spots: readonly Spot[];
  /** Where the pointer is, upright pixels. */
  readonly pointer: Point | null;
  readonly ask: Ask;
}

const hundredth = (v: number) => Math.round(v * 100) / 100;

/** The tool and what it draws; null while the hand is empty. */
export function usePaintTool({ desk, change, prepared, spots, pointer, ask }: Work): ToolInHand | null {
  const edit = useJob((state) => state.edit);
  const garment = useJob((state) => state.recipe.artwork.garment);
  const { tool, sketch, reach } = desk;
  const preview = useAreaPreview(desk, pointer, spots, ask);
  if (!tool || !prepared) return null;
  const toSource = (place: Point): Point => {
    const { x, y } = mapPoint(prepared.frame.toSource, place);
    return { x: hundredth(x), y: hundredth(y) };
  };
  const target = resolveTarget(desk, spots, garment);
  const correct = (make: (id: string, spotId: string) => Correction) => {
    // What was made new is given on to the next areas, too.
    let madeId: string | null = null;
    edit((r) => {
      const { recipe, spotId } = addCorrection(r, target, make);
      madeId = spotId;
      return recipe;
    });
    const isSpecial = desk.target === NOTHING || desk.target === TO_GARMENT;
    if (tool.kind !== "divide" && !isSpecial) change({ target: madeId });
  };
  const onClick = (hint: string, onPress: (place: Point) => void): ToolInHand => ({
    tool: { hint, refusal: preview.reason, cursor: "crosshair", onPress, onDrag: () => {}, onRelease: () => {} },
    overlays: preview.layers,
  });
  const toSourceLine = (drawn: readonly number[]): number[] => {
    const line: number[] = [];
    for (let i = 0; i + 1 < drawn.length && line.length < 8000; i += 2) {
      const { x, y } = toSource({ x: drawn[i], y: drawn[i + 1] });
      line.push(x, y);
    }
    return line;
  };
  const sketched: TableLayer[] =
    sketch.length >= 4
      ? [{ kind: "strokes", path: makePolylinePath(sketch, false), colour: "#1e1d1a", screenPx: 2, isHaloed: true }]
      : [];
  switch (tool.kind) {
    case "recolour":
    case "pour": {
      const { kind } = tool;
      if (reach === "loop") {
        const grown = ({ x, y, unitsPerPx }: ToolEvent) => addPoint(sketch, x, y, 2 * unitsPerPx);
        return {
          tool: {
            hint: "Drag a loop: every area that lies wholly inside it becomes that spot.",
            cursor: "crosshair",
            onPress: ({ x, y }) => change({ sketch: [x, y] }),
            onDrag: (event) => change({ sketch: grown(event) }),
            onRelease: (event) => {
              change({ sketch: [] });
              const loop = toSourceLine(grown(event));
              if (loop.length < 6) return;
              const at = { x: loop[0], y: loop[1] };
              correct((id, spotId) => ({ id, isOn: true, kind, at, reach, loop, spotId }));
            },
          },
          overlays: sketched,
        };
      }
      const hint =
        kind === "pour"
          ? "Click into an area between lines: it is filled to the middle of the lines."
          : "Click on an area: it becomes that spot.";
      return onClick(hint, (place) => {
        // What takes nothing leaves no entry behind.
        const isHere = preview.at?.x === Math.floor(place.x) && preview.at.y === Math.floor(place.y);
        if (preview.reason !== null && isHere) return;
        preview.hide(place);
        correct((id, spotId) => ({ id, isOn: true, kind, at: toSource(place), reach, loop: [], spotId }));
      });
    }
    case "take-colour":
      return onClick("Click on the colour in the picture.", ({ x, y }) => {
        const rgb = pixelAt(prepared.upright, x, y);
        if (!rgb) return;
        edit((r) => decideSpot(r, tool.spotId, { hex: formatHex(rgb), stock: null }));
        change({ tool: null });
      });
    case "divide": {
      const grown = ({ x, y, isStraight, unitsPerPx }: ToolEvent) =>
        isStraight ? [sketch[0], sketch[1], x, y] : addPoint(sketch, x, y, 2 * unitsPerPx);
      return {
        tool: {
          hint: "Drag a line right through the area, from outside to outside; with Shift it is straight.",
          cursor: "crosshair",
          onPress: ({ x, y }) => change({ sketch: [x, y] }),
          onDrag: (event) => change({ sketch: grown(event) }),
          onRelease: (event) => {
            change({ sketch: [] });
            const drawn = grown(event);
            if (drawn.length < 4) return;
            const line = toSourceLine(drawn);
            correct((id, spotId) => ({ id, isOn: true, kind: "divide", line, isFlipped: false, spotId }));
          },
        },
        overlays: sketched,
      };
    }
  }
}

interface AreaPreview {
  readonly layers: readonly TableLayer[];
  /** Why the pixel under the pointer would take nothing, and which it is. */
  readonly reason: string | null;
  readonly at: Point | null;
  /** Takes the marks away until the pointer moves on: what was done is to be seen. */
  hide(clicked: Point): void;
}

/** What a click would take, marked under the pointer; or why it would take nothing. */
function useAreaPreview(
  { tool, reach }: PaintDesk,
  pointer: Point | null,
  spots: readonly Spot[],
  ask: Ask,
): AreaPreview {
  const [found, setFound] = useState<{ readonly at: Point; readonly view: AreaView } | null>(null);
  const kind = tool?.kind === "recolour" || tool?.kind === "pour" ? tool.kind : null;
  const x = pointer === null ? null : Math.floor(pointer.x);
  const y = pointer === null ? null : Math.floor(pointer.y);
  const seen = useRef("");
  const here = `${x} ${y}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: areas are others whenever spots were computed anew
  useEffect(() => {
    if (kind === null || x === null || y === null || reach === "loop" || seen.current === here) {
      setFound(null);
      return;
    }
    seen.current = "";
    let isCurrent = true;
    const at = { x, y };
    void ask("area", { kind, reach, at }).then((view) => {
      if (isCurrent && view) setFound({ at, view });
    });
    return () => {
      isCurrent = false;
    };
  }, [kind, reach, x, y, spots, ask]);
  const hide = (clicked: Point) => {
    // By the place of the click itself: the pointer's may be told a moment later.
    seen.current = `${Math.floor(clicked.x)} ${Math.floor(clicked.y)}`;
    setFound(null);
  };
  const shown = useMemo((): Omit<AreaPreview, "hide"> => {
    if (!found) return { layers: [], reason: null, at: null };
    const { view, at } = found;
    if (view.bitmap === null) return { layers: [], reason: `Takes nothing here: ${view.reason}.`, at };
    const placement = { scaleX: 1, scaleY: 1, dx: view.x, dy: view.y };
    return { layers: [{ kind: "bitmap", bitmap: view.bitmap, opacity: 0.75, placement }], reason: null, at };
  }, [found]);
  return { ...shown, hide };
}
