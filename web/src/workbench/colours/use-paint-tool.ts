// The tool in hand at the colours step, tied to the recipe.
import { formatHex } from "@plain-palette/core/colour";
import { mapPoint, type Point } from "@plain-palette/core/raster";
import type { Correction } from "@plain-palette/core/recipe";
import type { PreparedPicture } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { makePolylinePath } from "../../light-table/pieces.ts";
import type { ToolEvent } from "../../light-table/tool.ts";
import type { ToolInHand } from "../artwork/frame-tools.ts";
import { addPoint } from "../artwork/touch-tools.ts";
import { pixelAt } from "../read-place.ts";
import { addCorrection, decideSpot, type Target } from "./edit-colours.ts";
import type { ChangePaintDesk, PaintDesk } from "./paint-desk.ts";

interface Work {
  readonly desk: PaintDesk;
  readonly change: ChangePaintDesk;
  readonly prepared: PreparedPicture | null;
}

const hundredth = (v: number) => Math.round(v * 100) / 100;

/** The tool and what it draws; null while the hand is empty. */
export function usePaintTool({ desk, change, prepared }: Work): ToolInHand | null {
  const edit = useJob((state) => state.edit);
  const { tool, sketch } = desk;
  if (!tool || !prepared) return null;
  const toSource = (place: Point): Point => {
    const { x, y } = mapPoint(prepared.frame.toSource, place);
    return { x: hundredth(x), y: hundredth(y) };
  };
  const target: Target = desk.target === null ? { hex: desk.hex } : { spotId: desk.target };
  const correct = (make: (id: string, spotId: string) => Correction) => {
    // What was made new is given on to the next areas, too.
    let madeId: string | null = null;
    edit((r) => {
      const { recipe, spotId } = addCorrection(r, target, make);
      madeId = spotId;
      return recipe;
    });
    if (tool.kind !== "divide") change({ target: madeId });
  };
  const onClick = (hint: string, onPress: (place: Point) => void): ToolInHand => ({
    tool: { hint, cursor: "crosshair", onPress, onDrag: () => {}, onRelease: () => {} },
    overlays: [],
  });
  switch (tool.kind) {
    case "recolour":
      return onClick("Click on an area: it becomes that spot.", (place) =>
        correct((id, spotId) => ({ id, isOn: true, kind: "recolour", at: toSource(place), spotId })),
      );
    case "pour":
      return onClick("Click into an area between lines: it is filled to the middle of the lines.", (place) =>
        correct((id, spotId) => ({ id, isOn: true, kind: "pour", at: toSource(place), spotId })),
      );
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
            const line: number[] = [];
            for (let i = 0; i + 1 < drawn.length && line.length < 8000; i += 2) {
              const { x, y } = toSource({ x: drawn[i], y: drawn[i + 1] });
              line.push(x, y);
            }
            correct((id, spotId) => ({ id, isOn: true, kind: "divide", line, isFlipped: false, spotId }));
          },
        },
        overlays:
          sketch.length >= 4
            ? [
                {
                  kind: "strokes",
                  path: makePolylinePath(sketch, false),
                  colour: "#1e1d1a",
                  screenPx: 2,
                  isHaloed: true,
                },
              ]
            : [],
      };
    }
  }
}
