// Thread as it is sewn: strands, each in one go without lifting, of pieces that say what they are for.
import type { Point } from "../raster/index.ts";

/**
 * What a piece is for: to get somewhere, to hold the cloth, to cover it, to edge it, to show where cloth is laid. A stop has
 * no needle points: the machine waits for a person.
 */
export const PIECE_KINDS = ["way", "underlay", "cover", "border", "guide", "stop"] as const;
export type PieceKind = (typeof PIECE_KINDS)[number];

/** Needle points x, y, ..., mm. */
export interface Piece {
  readonly kind: PieceKind;
  readonly needles: readonly number[];
}

export type Strand = readonly Piece[];

/** Strands while they are sewn. */
export class Sewing {
  readonly strands: Piece[][] = [];
  private isLifted = true;

  /** Where the needle is; null before the first stitch. */
  get at(): Point | null {
    const needles = this.strands.at(-1)?.findLast((piece) => piece.needles.length > 0)?.needles;
    return needles ? { x: needles[needles.length - 2], y: needles[needles.length - 1] } : null;
  }

  lift(): void {
    this.isLifted = true;
  }

  /** The machine waits after what was sewn last. */
  stop(): void {
    this.strands.at(-1)?.push({ kind: "stop", needles: [] });
    this.isLifted = true;
  }

  add(kind: PieceKind, needles: readonly number[]): void {
    if (needles.length === 0) return;
    if (this.isLifted) this.strands.push([]);
    this.isLifted = false;
    this.strands.at(-1)?.push({ kind, needles });
  }
}
