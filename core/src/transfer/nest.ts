// Pieces of one size nested on a roll: in rows, or as a general packing library lays them (maximal rectangles, Jylanki 2010),
// whichever takes less of the roll.
import { MaxRectsPacker } from "maxrects-packer";

/** One piece on the roll: its upper left corner, mm from the roll's left edge and its beginning. */
export interface Placement {
  readonly x: number;
  readonly y: number;
  /** A quarter turn. */
  readonly isTurned: boolean;
}

export interface Nesting {
  readonly placements: readonly Placement[];
  /** How much of the roll it takes, mm. */
  readonly lengthMm: number;
}

export interface Roll {
  readonly widthMm: number;
  /** Kept clear at either edge. */
  readonly edgeMm: number;
  /** Between pieces. */
  readonly gapMm: number;
}

interface Size {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** The library is asked again for so much less each time, as long as it finds a way. */
const SHORTER = 0.97;
/** More pieces than this lie in rows: no packing of many alike is worth the search. */
const MOST_PACKED = 100;

/** Lays `count` pieces of one size, the shortest way that is found; null if one is wider than the roll either way. */
export function nestPieces(count: number, piece: Size, roll: Roll): Nesting | null {
  const inRows = [false, true].flatMap((isTurned) => layRows(count, piece, roll, isTurned) ?? []);
  if (inRows.length === 0) return null;
  let best = inRows.reduce((a, b) => (b.lengthMm < a.lengthMm ? b : a));
  while (count <= MOST_PACKED) {
    const packed = pack(count, piece, roll, best.lengthMm * SHORTER);
    if (!packed) break;
    best = packed;
  }
  return best;
}

/** The widest that a piece may be, the shorter way, mm. */
export function widestOn({ widthMm, edgeMm }: Roll): number {
  return widthMm - 2 * edgeMm;
}

function layRows(count: number, piece: Size, roll: Roll, isTurned: boolean): Nesting | null {
  const [across, along] = isTurned ? [piece.heightMm, piece.widthMm] : [piece.widthMm, piece.heightMm];
  const inRow = Math.floor((widestOn(roll) + roll.gapMm) / (across + roll.gapMm));
  if (inRow < 1) return null;
  const placements = Array.from({ length: count }, (_, i) => ({
    x: roll.edgeMm + (i % inRow) * (across + roll.gapMm),
    y: Math.floor(i / inRow) * (along + roll.gapMm),
    isTurned,
  }));
  return { placements, lengthMm: Math.ceil(count / inRow) * (along + roll.gapMm) - roll.gapMm };
}

/** All on a stretch of the roll this long; null if the library finds no way. */
function pack(count: number, { widthMm, heightMm }: Size, roll: Roll, lengthMm: number): Nesting | null {
  const { gapMm, edgeMm } = roll;
  const [wide, high] = [widthMm + gapMm, heightMm + gapMm];
  // Each piece brings its gap along: so does the stretch, once.
  const packer = new MaxRectsPacker(widestOn(roll) + gapMm, lengthMm + gapMm, 0, {
    ...{ smart: false, pot: false, square: false, allowRotation: true },
  });
  // What does not fit it would lay in a bin of its own size.
  if (Math.min(wide, high) > Math.min(packer.width, packer.height)) return null;
  for (let i = 0; i < count; i++) packer.add(wide, high, null);
  const [bin, ...others] = packer.bins;
  if (!bin || others.length > 0 || bin.rects.length < count) return null;
  const placements = bin.rects.map(({ x, y, rot }) => ({ x: edgeMm + x, y, isTurned: rot }));
  const ends = placements.map(({ y, isTurned }) => y + (isTurned ? widthMm : heightMm));
  const taken = Math.max(...ends);
  return taken <= lengthMm ? { placements, lengthMm: taken } : null;
}
