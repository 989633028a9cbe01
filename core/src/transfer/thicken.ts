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

/** What was widened may lie against something else, and make a new strip there: it is looked at so often. */
const MOST_PASSES = 3;

/** The region with all its strips at least `limitMm` wide. No edge that is wide enough moves. */
export function thicken(
  region: readonly CubicPath[],
  limitMm: number,
  mmPerPx: number,
  precision: Pick<LapRoom, "tolerancePx" | "cutPx">,
): Thickened {
  let widened = region;
  for (let pass = 0; pass < MOST_PASSES; pass++) {
    const middles = thinMiddles(widened, limitMm, mmPerPx);
    if (middles.length === 0) break;
    widened = widenAlong(middles, widened, limitMm / mmPerPx, precision);
  }
  if (widened === region) return { region, added: [] };
  const { tolerancePx } = precision;
  const added = subtract(toPolygons(widened, tolerancePx), toPolygons(region, tolerancePx));
  return { region: widened, added: recoverCurves(added, [...widened, ...region], tolerancePx) };
}

function widenAlong(
  middles: readonly number[][],
  region: readonly CubicPath[],
  widthPx: number,
  { tolerancePx, cutPx }: Pick<LapRoom, "tolerancePx" | "cutPx">,
): readonly CubicPath[] {
  const fitPx = cutPx * FIT_SHARE;
  const wide = widenLines(middles, widthPx / 2 + 2 * fitPx, 0, fitPx, "cut off");
  const united = unite(toPolygons(region, tolerancePx), wide);
  return recoverCurves(united, region, tolerancePx, (line) => fitPolyline(line, fitPx));
}
