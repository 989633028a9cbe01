// What is under the pointer: place, source colour, spot.
import type { Rgb } from "@plain-palette/core/colour";
import type { Spot } from "@plain-palette/core/reduce";
import type { ReadOut } from "../light-table/look-bar.tsx";
import { partOf } from "../light-table/pieces.ts";
import type { ArtSize, DrawnTrace } from "./drawn-trace.ts";

let probe: OffscreenCanvasRenderingContext2D | null = null;

function probeContext(): OffscreenCanvasRenderingContext2D | null {
  probe ??= new OffscreenCanvas(1, 1).getContext("2d", { willReadFrequently: true });
  return probe;
}

/** Reads the place (source pixels); null outside the art. */
export function readPlace(
  { x, y }: { x: number; y: number },
  size: ArtSize,
  mmPerPx: number,
  bitmap: ImageBitmap | null,
  trace: DrawnTrace | null,
  spots: readonly Spot[],
): ReadOut | null {
  if (x < 0 || y < 0 || x >= size.width || y >= size.height) return null;
  const context = probeContext();
  const here = { left: x, top: y, right: x, bottom: y };
  // The highest layer that has something here.
  const fills = trace?.layers.toReversed().flatMap((layer) => layer.fills);
  const hit = context && fills?.find(({ path }) => context.isPointInPath(partOf(path, here), x, y));
  const spot = spots.find(({ id }) => id === hit?.spotId) ?? null;
  return {
    xMm: x * mmPerPx,
    yMm: y * mmPerPx,
    source: bitmap ? pixelAt(bitmap, x, y) : null,
    spot,
  };
}

/** Colour of a bitmap at a place; null where it is clear. */
export function pixelAt(bitmap: ImageBitmap, x: number, y: number): Rgb | null {
  const context = probeContext();
  if (!context) return null;
  context.clearRect(0, 0, 1, 1);
  context.drawImage(bitmap, Math.floor(x), Math.floor(y), 1, 1, 0, 0, 1, 1);
  const [r = 0, g = 0, b = 0, alpha = 0] = context.getImageData(0, 0, 1, 1).data;
  return alpha < 128 ? null : [r, g, b];
}
