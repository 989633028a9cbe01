// Printed film: the art in one piece on a page with four marks, and the line along which it is cut.
import {
  boundsOfAll,
  type CubicPath,
  fillHoles,
  growRegion,
  mapPath,
  recoverCurves,
  toPolygons,
} from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";
import { fitPolyline } from "../trace/index.ts";
import type { Layering } from "./layers.ts";
import type { TransferSettings } from "./settings.ts";

/** Everything in millimetres from the page's upper left corner, y down, as it is printed: right-reading. */
export interface PrintedFilm {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Where the art's own corner lies. */
  readonly art: Point;
  readonly cutLine: readonly CubicPath[];
  /** Centres of the marks that a cutter finds the art by: one in each corner. */
  readonly marks: readonly Point[];
}

/** Marks are discs, this large and this far from the cut line and the page's edge, mm (common practice, no source). */
export const PRINT_MARK_MM = 5;
const MARK_CLEAR_MM = 5;
/** How finely outlines are followed, mm. */
const FOLLOW_MM = 0.01;

/** Lays out the page; null where there is nothing to print. */
export function layPrinted(
  { outline, mmPerPx }: Pick<Layering, "outline" | "mmPerPx">,
  { printed, toleranceMm }: Pick<TransferSettings, "printed" | "toleranceMm">,
): PrintedFilm | null {
  if (outline.length === 0) return null;
  const round = cutRound(outline, mmPerPx, printed, toleranceMm);
  const { left, top, right, bottom } = boundsOfAll(round);
  const rim = MARK_CLEAR_MM * 2 + PRINT_MARK_MM;
  const [widthMm, heightMm] = [right - left + 2 * rim, bottom - top + 2 * rim];
  const near = MARK_CLEAR_MM + PRINT_MARK_MM / 2;
  return {
    ...{ widthMm, heightMm },
    art: { x: rim - left, y: rim - top },
    cutLine: round.map((path) => mapPath(path, (x, y) => [x - left + rim, y - top + rim])),
    marks: [near, heightMm - near].flatMap((y) => [near, widthMm - near].map((x) => ({ x, y }))),
  };
}

/** The art's outline grown by the cut's distance, without narrow holes; mm from the art's corner. */
function cutRound(
  outline: readonly CubicPath[],
  mmPerPx: number,
  { distanceMm, closesHolesMm }: TransferSettings["printed"],
  toleranceMm: number,
): CubicPath[] {
  const inMm = outline.map((path) => mapPath(path, (x, y) => [x * mmPerPx, y * mmPerPx]));
  const art = toPolygons(inMm, FOLLOW_MM);
  const grown = distanceMm > 0 ? growRegion(art, distanceMm, FOLLOW_MM) : art;
  // Four times the area over the length round it is how wide a round hole is, and twice how wide a long one is.
  const closed = fillHoles(grown, (area, around) => (4 * area) / around < closesHolesMm);
  return recoverCurves(closed, inMm, FOLLOW_MM, (line) => fitPolyline(line, toleranceMm / 2));
}
