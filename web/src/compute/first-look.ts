// A first look at a change on a large picture: the same actions on a smaller copy, shown at once while the real ones follow.
import { type Raster, shrinkRaster, wholeFrame } from "@plain-palette/core/raster";
import { garmentRgb, layUpright, makePrepareCache, prepareArtwork, scaleRecipe } from "@plain-palette/core/recipe";
import { viewFocus, viewPrepared } from "./artwork-views.ts";
import type { ComputeRequest, PreparedView } from "./messages.ts";

/** About what a table shows of a whole picture, px; up to there pictures are computed in a moment as they are. */
const SMALL_PX = 360_000;

/** What a request would show; null where the picture is the same as last time. */
export type FirstLook = (request: ComputeRequest) => Promise<PreparedView | null>;

/** Looks at a smaller copy of a picture; null for a picture that needs none. */
export function makeFirstLook(source: Raster): FirstLook | null {
  const scale = Math.ceil(Math.sqrt((source.width * source.height) / SMALL_PX));
  if (scale < 2) return null;
  let small: Raster | null = null;
  const cache = makePrepareCache();
  // The picture as it came is no change.
  let lastKey = "[]";
  return async ({ recipe, focusId }) => {
    const { actions } = recipe.artwork;
    const key = JSON.stringify([actions.filter(({ isOn }) => isOn), recipe.artwork.garment]);
    if (key === lastKey) return null;
    lastKey = key;
    small ??= shrinkRaster(source, scale);
    const scaled = scaleRecipe(recipe, 1 / scale).artwork.actions;
    const prepared = prepareArtwork(small, scaled, cache, focusId, garmentRgb(recipe));
    const action = scaled.find(({ id }) => id === focusId);
    const { frame, misfits } = layUpright(source.width, source.height, actions);
    const [focus, { bitmap, box, seeThrough }] = await Promise.all([
      action && prepared.focus ? viewFocus(action, prepared) : null,
      viewPrepared(prepared, small, null),
    ]);
    return {
      frame,
      misfits,
      bitmap,
      bitmapScale: scale,
      isAsSent: JSON.stringify(frame) === JSON.stringify(wholeFrame(source.width, source.height)),
      // The large one follows; until then the one before it stands.
      upright: null,
      box: box && { x: box.x * scale, y: box.y * scale, width: box.width * scale, height: box.height * scale },
      seeThrough: seeThrough && { ...seeThrough, at: { x: seeThrough.at.x * scale, y: seeThrough.at.y * scale } },
      focus: focus && { ...focus, markedPx: focus.markedPx * scale * scale },
    };
  };
}
