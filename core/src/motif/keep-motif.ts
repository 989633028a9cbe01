// Keeping a motif: shapes of a drawing, moved to the corner and measured in millimetres.
import { formatHex, type Rgb } from "../colour/index.ts";
import { boundsOfAll, type CubicPath } from "../geometry/index.ts";
import type { StockReference } from "../shelf/index.ts";
import type { MapFace } from "../trace/index.ts";
import { type Motif, motifSchema } from "./motif.ts";

/** Decimals of a millimetre: a hundredth of what any machine moves by, and a shared boundary stays shared. */
const DIGITS = 5;

/** A spot as far as a motif keeps it. */
export interface KeptSpot {
  readonly id: string;
  readonly name: string;
  readonly rgb: Rgb;
  readonly stock: StockReference | null;
}

/**
 * Shapes as a motif, spots in the order given; null where none of the shapes is of one of them. What lies hidden under the
 * art is not kept. Throws a ZodError for what is no motif: too large, or too small.
 */
export function keepMotif(
  faces: readonly Pick<MapFace, "spotId" | "paths">[],
  spots: readonly KeptSpot[],
  mmPerPx: number,
): Motif | null {
  const own = faces.filter(({ spotId }) => spots.some(({ id }) => id === spotId));
  if (own.length === 0) return null;
  const box = boundsOfAll(own.flatMap(({ paths }) => paths));
  const corner = [box.left, box.top] as const;
  const shapesOf = (id: string) =>
    own.filter(({ spotId }) => spotId === id).map(({ paths }) => paths.map((path) => inMm(path, corner, mmPerPx)));
  return motifSchema.parse({
    format: 1,
    widthMm: round((box.right - box.left) * mmPerPx),
    heightMm: round((box.bottom - box.top) * mmPerPx),
    spots: spots
      .map(({ id, name, rgb, stock }) => ({ name, hex: formatHex(rgb), stock, shapes: shapesOf(id) }))
      .filter(({ shapes }) => shapes.length > 0),
  } satisfies Motif);
}

function inMm(path: CubicPath, corner: readonly [number, number], mmPerPx: number): number[] {
  return Array.from(path, (value, i) => round((value - corner[i % 2]) * mmPerPx));
}

function round(mm: number): number {
  const steps = 10 ** DIGITS;
  // Adding 0 turns -0 into 0.
  return Math.round(mm * steps) / steps + 0;
}
