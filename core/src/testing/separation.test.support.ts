// A separation made by hand, for tests of what comes after it.
import type { CubicPath } from "../geometry/index.ts";
import { pathArea } from "../geometry/index.ts";
import type { Separation } from "../screens/index.ts";
import { circlePath } from "../trace/index.ts";

export function circleRegion(cx: number, cy: number, radius: number): CubicPath[] {
  return [circlePath(cx, cy, radius, true)];
}

/** One navy plate on an art of `width` x `height` pixels, a millimetre each. */
export function oneSpotSeparation(width: number, height: number, region: CubicPath[]): Separation {
  const coverage = Math.abs(region.reduce((sum, path) => sum + pathArea(path), 0)) / (width * height);
  const plate = {
    id: "14304f",
    kind: "spot" as const,
    name: "Navy",
    rgb: [20, 48, 79] as const,
    order: 1,
    region,
    coverage,
    trapMm2: 0,
    isBased: false,
  };
  return { widthPx: width, heightPx: height, mmPerPx: 1, plates: [plate] };
}
