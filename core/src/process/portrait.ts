// What of a made design is seen on the garment: its looks for whoever says yes to it, in millimetres from its top left corner.
import { formatHex } from "../colour/index.ts";
import { type CubicPath, mapPath, pathToSvg } from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import { type Drawing, layersOf, spotPaths } from "../trace/index.ts";

/** Path data in words, so that a portrait can be kept as it is. */
export type PicturePart =
  | { readonly kind: "fill"; readonly hex: string; readonly d: string }
  /** Lines of thread. */
  | { readonly kind: "thread"; readonly hex: string; readonly widthMm: number; readonly d: string }
  /** Stones by their middles, x, y, ... */
  | { readonly kind: "stones"; readonly hex: string; readonly diameterMm: number; readonly places: readonly number[] };

export interface Portrait {
  readonly parts: readonly PicturePart[];
  /** What the client pays by beside pieces: stitches, stones. */
  readonly counts: readonly string[];
}

interface DrawnDesign {
  readonly map: Drawing;
  readonly spots: readonly Spot[];
  readonly widthMm: number;
}

/** A micrometre is a fifteenth of what any eye or machine tells apart. */
const DIGITS = 3;

/** The design's own shapes in its inks. */
export function portrayShapes({ map, spots, widthMm }: DrawnDesign): Portrait {
  const mmPerPx = widthMm / map.width;
  const inMm = (path: CubicPath) =>
    pathToSvg(
      mapPath(path, (x, y) => [x * mmPerPx, y * mmPerPx]),
      DIGITS,
    );
  const parts = layersOf(map).flatMap((layer) =>
    spots.flatMap(({ id, role, rgb }): PicturePart[] => {
      const paths = role === "ink" ? spotPaths(layer, id) : [];
      return paths.length > 0 ? [{ kind: "fill", hex: formatHex(rgb), d: paths.map(inMm).join("") }] : [];
    }),
  );
  return { parts, counts: [] };
}
