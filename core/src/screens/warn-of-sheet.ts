// Whether a print goes on the film it is meant for.
import type { ScreensSettings } from "./settings.ts";

/** Rounding that is no size, mm. */
const ROUNDING_MM = 0.05;

/** Whether the art alone is larger than the sheet of film, in words. */
export function warnOfSheet(
  { width, height }: { readonly width: number; readonly height: number },
  { sheetMm }: ScreensSettings["films"],
): string | null {
  if (!sheetMm || (width <= sheetMm.width + ROUNDING_MM && height <= sheetMm.height + ROUNDING_MM)) return null;
  const size = (w: number, h: number) => `${w.toFixed(0)} × ${h.toFixed(0)} mm`;
  return `${size(width, height)} is too big for the sheet of ${size(sheetMm.width, sheetMm.height)}: the film will grow.`;
}
