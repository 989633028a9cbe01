// Two fingers on the table: what is under each stays under it.
import type { Point } from "@plain-palette/core/raster";
import { MAX_ZOOM, MIN_ZOOM, type View } from "./tiles.ts";

/** Where two fingers are, px from the table's corner. */
export type Touch = readonly [Point, Point];

/** The view once two fingers have gone from one place to another; what is between them stays between them. */
export function pinchView(view: View, from: Touch, to: Touch): View {
  const wanted = (view.zoom * spread(to)) / Math.max(1, spread(from));
  const zoom = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, wanted));
  const f = zoom / view.zoom;
  const [before, after] = [middle(from), middle(to)];
  return { zoom, x: after.x - (before.x - view.x) * f, y: after.y - (before.y - view.y) * f };
}

const spread = ([a, b]: Touch) => Math.hypot(a.x - b.x, a.y - b.y);
const middle = ([a, b]: Touch): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
