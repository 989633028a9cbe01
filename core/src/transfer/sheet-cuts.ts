// How pieces of film are cut as they lie on a roll.
import { type Contour, type CutPlan, type PenText, planCuts, planOf } from "../cut/index.ts";
import { mapPath } from "../geometry/index.ts";
import type { Nesting, Roll } from "./nest.ts";
import { type FilmPiece, NAME_MM, placeOnRoll } from "./piece.ts";

/**
 * Plans the cutting of one piece, mm from its upper left corner, y down: its film and marks, then the lines through its waste, its
 * box last, so that nothing is loose before it is cut.
 */
export function planPieceCuts({ widthMm, heightMm, film, marks, weedLines, box }: FilmPiece): Contour[] {
  const sheet = { widthPx: widthMm, heightPx: heightMm, mmPerPx: 1, isMirrored: false };
  const { contours } = planCuts([...film, ...marks], sheet);
  const line = (points: readonly number[], kind: Contour["kind"]) => ({ points: Float64Array.from(points), kind });
  return [
    // From y up to y down.
    ...contours.map(({ points, kind }) => ({ points: points.map((v, i) => (i % 2 === 0 ? v : heightMm - v)), kind })),
    ...weedLines.map((points) => line(points, "line")),
    ...(box ? [line(box, "outline")] : []),
  ];
}

/** Plans the cutting of all pieces on a roll, one after the other as they lie; x along it and y across, as roll cutters have it. */
export function planSheetCuts(piece: FilmPiece, { placements, lengthMm }: Nesting, { widthMm }: Roll): CutPlan {
  const all = planPieceCuts(piece);
  const { name } = piece;
  const inOrder = [...placements].sort((a, b) => a.y - b.y || a.x - b.x);
  const contours: Contour[] = [];
  const words: PenText[] = [];
  for (const placement of inOrder) {
    // The roll's y is the cutter's x, and its x the cutter's y.
    const place = (x: number, y: number) => placeOnRoll(piece, placement, x, y).reverse() as [number, number];
    for (const { points, kind } of all) contours.push({ points: mapPath(points, place), kind });
    if (name) {
      const [x, y] = place(name.x, name.y);
      words.push({ ...{ text: name.text, x, y }, turnDeg: placement.isTurned ? 0 : 90, heightMm: NAME_MM });
    }
  }
  return planOf(lengthMm, widthMm, contours, words);
}
