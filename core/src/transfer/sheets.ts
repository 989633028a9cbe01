// Sheets: what is cut from each roll of film, the job's pieces nested on it, and what that takes.
import type { Rgb } from "../colour/index.ts";
import type { Contour } from "../cut/index.ts";
import { lengthAlong } from "../geometry/index.ts";
import type { Design } from "../process/index.ts";
import type { StockReference } from "../shelf/index.ts";
import { CUT_MM_PER_S, LIFT_S } from "../trade/index.ts";
import type { Layer, Layering } from "./layers.ts";
import { type Nesting, nestPieces, type Roll, widestOn } from "./nest.ts";
import { type FilmPiece, layPiece } from "./piece.ts";
import type { TransferSettings } from "./settings.ts";
import { planPieceCuts } from "./sheet-cuts.ts";

/** All pieces of one layer on its roll. */
export interface FilmSheet {
  readonly spotId: string;
  readonly name: string;
  readonly rgb: Rgb;
  readonly order: number;
  /** The film of the shelf; null: none was chosen. */
  readonly stock: StockReference | null;
  readonly piece: FilmPiece;
  readonly copies: number;
  readonly roll: Roll;
  /** Null: a piece is wider than the roll. */
  readonly nesting: Nesting | null;
  /** The widest print of which a piece goes on the roll, mm. */
  readonly widestPrintMm: number;
  readonly cost: number;
  /** Share of the film that is weeded away, 0..1. */
  readonly wasteShare: number;
  /** Cutting all of it, seconds. */
  readonly cutS: number;
}

/** Lays out the sheets of all layers, in press order. */
export function planSheets(
  layering: Layering,
  { stock, pieces, widthMm }: Pick<Design, "stock" | "pieces" | "widthMm">,
  settings: TransferSettings,
): FilmSheet[] {
  const { sheets } = settings;
  return layering.layers.map((layer): FilmSheet => {
    const chosen = stock[layer.spotId];
    const film = chosen?.kind === "transfer-film" ? chosen : null;
    const roll: Roll = {
      widthMm: film?.film?.rollWidthMm ?? sheets.rollWidthMm,
      ...{ edgeMm: sheets.edgeMm, gapMm: sheets.gapMm },
    };
    const piece = layPiece(layering, layer, settings);
    const nesting = nestPieces(pieces, piece, roll);
    const price = film?.film?.pricePerMetre ?? sheets.pricePerMetre;
    const lengthMm = nesting?.lengthMm ?? 0;
    return {
      ...{ spotId: layer.spotId, name: layer.name, rgb: layer.rgb, order: layer.order, stock: film },
      ...{ piece, copies: pieces, roll, nesting },
      widestPrintMm: widestPrint(piece, roll, widthMm, sheets.hasBox ? sheets.boxMm : 0),
      cost: (lengthMm / 1000) * price,
      wasteShare: nesting ? wasteOf(layer, pieces, roll, lengthMm) : 0,
      cutS: nesting ? pieces * secondsOf(planPieceCuts(piece)) : 0,
    };
  });
}

/** Share of a stretch of roll, over its whole width, that is not film in the end. */
function wasteOf({ areaMm2 }: Layer, pieces: number, { widthMm }: Roll, lengthMm: number): number {
  return Math.max(0, 1 - (areaMm2 * pieces) / (widthMm * lengthMm));
}

/** The print width at which the piece's shorter side is as wide as the roll: all of it but the box's margin grows with the print. */
function widestPrint({ widthMm, heightMm }: FilmPiece, roll: Roll, printMm: number, marginMm: number): number {
  const fixed = 2 * marginMm;
  const shorter = Math.min(widthMm, heightMm) - fixed;
  return shorter > 0 ? (printMm * (widestOn(roll) - fixed)) / shorter : printMm;
}

function secondsOf(contours: readonly Contour[]): number {
  const lengthMm = contours.reduce((sum, { points }) => sum + lengthAlong(points), 0);
  return lengthMm / CUT_MM_PER_S + contours.length * LIFT_S;
}
