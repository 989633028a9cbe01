// Kerning as older fonts carry it: pairs of glyphs in the `kern` table (OpenType 1.9.1, kern, version 0, format 0). The
// shaping library knows only the newer GPOS table.

/** By how many font units the second glyph of a pair moves. */
export type PairKerning = (left: number, right: number) => number;

const HEADER = 4;
const SUBTABLE_HEADER = 14;
const PAIR = 6;
/** Coverage: horizontal, no minimum values, not across the line; format 0 in the high byte. */
const COVERAGE_MASK = 0xff07;
const PLAIN = 1;

/** Null where a table has no pairs that can be read. */
export function readPairKerning(table: Uint8Array): PairKerning | null {
  const view = new DataView(table.buffer, table.byteOffset, table.byteLength);
  if (table.length < HEADER || view.getUint16(0) !== 0) return null;
  const pairs = new Map<number, number>();
  let at = HEADER;
  for (let left = view.getUint16(2); left > 0 && at + SUBTABLE_HEADER <= table.length; left--) {
    const isPlain = (view.getUint16(at + 4) & COVERAGE_MASK) === PLAIN;
    const first = at + SUBTABLE_HEADER;
    // A length of 16 bits is too short for large tables: the number of pairs says how many there are.
    const count = Math.min(view.getUint16(at + 6), Math.floor((table.length - first) / PAIR));
    for (let k = 0; isPlain && k < count; k++) {
      const o = first + k * PAIR;
      const key = view.getUint32(o);
      pairs.set(key, (pairs.get(key) ?? 0) + view.getInt16(o + 4));
    }
    at = isPlain ? first + count * PAIR : at + Math.max(SUBTABLE_HEADER, view.getUint16(at + 2));
  }
  return pairs.size === 0 ? null : (left, right) => pairs.get(left * 0x10000 + right) ?? 0;
}
