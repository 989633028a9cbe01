// Picks the shape that is to be simplified.
import { mapPoint } from "@plain-palette/core/raster";
import type { PreparedPicture } from "../../compute/use-compute.ts";
import type { ToolInHand } from "../../light-table/tool.ts";
import type { ChangeShapesDesk, ShapesDesk } from "./shapes-desk.ts";

/** The tool while a shape is meant; it stays in hand, so that another can be picked. */
export function shapePicker(
  { trying }: ShapesDesk,
  change: ChangeShapesDesk,
  prepared: PreparedPicture | null,
): ToolInHand | null {
  if (trying?.scope.kind !== "shape" || !prepared) return null;
  return {
    tool: {
      hint: "Click on the shape to take nodes out of.",
      cursor: "crosshair",
      onPress: (place) => {
        const { x, y } = mapPoint(prepared.frame.toSource, place);
        const at = { x: Math.round(x * 100) / 100, y: Math.round(y * 100) / 100 };
        change({ trying: { ...trying, scope: { kind: "shape", at } } });
      },
      onDrag: () => {},
      onRelease: () => {},
    },
    overlays: [],
  };
}
