// Strips that are too thin to cut, widened where they are: their middle lines drawn as wide as cuts.
import { thinMiddles } from "../checks/index.ts";
import { type CubicPath, recoverCurves, subtract, toPolygons, unite, widenLines } from "../geometry/index.ts";
import { fitPolyline } from "../trace/index.ts";
import type { LapRoom } from "./lap.ts";

/** Of the cutting tolerance, so much is kept to: what is widened must not come out thinner again. */
const FIT_SHARE = 0.2;

export interface Thickened {
  readonly region: readonly CubicPath[];
  /** What was added. */
  readonly added: readonly CubicPath[];
}

/** The region with all its strips at least `limitMm` wide. No edge that is wide enough moves. */
export function thicken(
  region: readonly CubicPath[],
  limitMm: number,
  mmPerPx: number,
  { tolerancePx, cutPx }: Pick<LapRoom, "tolerancePx" | "cutPx">,
): Thickened {
  const middles = thinMiddles(region, limitMm, mmPerPx);
  if (middles.length === 0) return { region, added: [] };
  const fitPx = cutPx * FIT_SHARE;
  const plain = toPolygons(region, tolerancePx);
  const wide = widenLines(middles, limitMm / mmPerPx / 2 + 2 * fitPx, 0, fitPx, "cut off");
  return {
    region: recoverCurves(unite(plain, wide), region, tolerancePx, (line) => fitPolyline(line, fitPx)),
    added: recoverCurves(subtract(wide, plain), [], tolerancePx),
  };
}
