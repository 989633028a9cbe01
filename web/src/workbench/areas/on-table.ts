// Millimetres of the design on the light table.
import type { Ring } from "@plain-palette/core/area";
import type { LayerTransform, TableLayer } from "../../light-table/layers.ts";
import { makePolylinePath } from "../../light-table/pieces.ts";

/** From millimetres to the pixels of the art. */
export function onArt(mmPerPx: number): LayerTransform {
  return { scaleX: 1 / mmPerPx, scaleY: 1 / mmPerPx, dx: 0, dy: 0 };
}

/** How lines of what is chosen look. */
export const CHOSEN = { kind: "strokes", colour: "#1e1d1a", screenPx: 1.5, isHaloed: true } as const;

/** The outline of an area that is chosen. */
export function outlineArea(rings: readonly Ring[], mmPerPx: number): TableLayer {
  const path = new Path2D();
  for (const ring of rings)
    path.addPath(
      makePolylinePath(
        Array.from(ring, (mm) => mm / mmPerPx),
        true,
      ),
    );
  return { ...CHOSEN, path };
}
