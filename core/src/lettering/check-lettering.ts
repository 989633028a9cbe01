// What of lettering will not come out at its size, measured on its outlines before it is set.
import { findThinRegion, type ThinLimits, type ThinPlace } from "../checks/index.ts";
import { type CubicPath, recoverCurves, toPolygons, unite } from "../geometry/index.ts";

export interface LetteringLimits extends ThinLimits {
  /** Capitals lower than this do not come out, mm. */
  readonly lettersMm: number;
}

export interface LetteringCheck {
  /** Strokes and openings that are too thin, the thinnest first. */
  readonly strokes: readonly ThinPlace[];
  readonly openings: readonly ThinPlace[];
  readonly capHeightMm: number;
  readonly isTooLow: boolean;
}

const FINE_PX = 0.02;

/** `paths`: outlines of all letters, px. */
export function checkLettering(
  paths: readonly CubicPath[],
  capHeightPx: number,
  limits: LetteringLimits,
  mmPerPx: number,
): LetteringCheck {
  // As one shape: where letters overlap, no outline is between them.
  const whole = recoverCurves(unite(toPolygons(paths, FINE_PX)), paths, FINE_PX);
  const thin = findThinRegion({ line: "line", gap: "gap" }, whole, limits, mmPerPx);
  const capHeightMm = capHeightPx * mmPerPx;
  return {
    strokes: thin.filter(({ kind }) => kind === "line"),
    openings: thin.filter(({ kind }) => kind === "gap"),
    capHeightMm,
    isTooLow: capHeightMm < limits.lettersMm,
  };
}
