import { fourAt, OPAQUE, wordAt } from "./pixels";

/**
 * Writes 1 for those pixels of `rows` rows that lie between two alike and of another colour, each as the next beyond it:
 * straight across, or across a step of a line; 0 for all others and for the outer two rows and columns. Returns how many.
 */
export function markThin(pixels: usize, marks: usize, width: i32, rows: i32): i32 {
  memory.fill(marks, 0, width * rows);
  let count = 0;
  for (let y = 2; y < rows - 2; y++) {
    const end = (y + 1) * width - 2;
    let p = y * width + 2;
    for (; p + 3 < end; p += 4) {
      const own = fourAt(pixels, p);
      // Nearly every pixel is like those around it: no line runs there.
      const isUnlike = v128.or(
        v128.or(v128.xor(fourAt(pixels, p - 1), own), v128.xor(fourAt(pixels, p - width), own)),
        v128.or(v128.xor(fourAt(pixels, p - width - 1), own), v128.xor(fourAt(pixels, p - width + 1), own)),
      );
      if (!v128.any_true(isUnlike)) continue;
      const isThin = v128.or(
        v128.or(areBetween(pixels, p, 1, own), areBetween(pixels, p, width, own)),
        v128.or(areBetween(pixels, p, width + 1, own), areBetween(pixels, p, width - 1, own)),
      );
      const bits = i32x4.bitmask(isThin);
      for (let k = 0; k < 4; k++) if (bits & (1 << k)) count += mark(pixels, marks, p + k);
    }
    for (; p < end; p++)
      if (
        isBetween(pixels, p, 1) ||
        isBetween(pixels, p, width) ||
        isBetween(pixels, p, width + 1) ||
        isBetween(pixels, p, width - 1)
      )
        count += mark(pixels, marks, p);
  }
  return count;
}

function mark(pixels: usize, marks: usize, p: i32): i32 {
  const isOpaque = <i32>(wordAt(pixels, p) >> 24 >= OPAQUE);
  store<u8>(marks + p, <u8>isOpaque);
  return isOpaque;
}

function areBetween(pixels: usize, p: i32, step: i32, own: v128): v128 {
  const ground = fourAt(pixels, p - step);
  const isAlike = v128.and(
    i32x4.eq(ground, fourAt(pixels, p + step)),
    v128.and(i32x4.eq(ground, fourAt(pixels, p - 2 * step)), i32x4.eq(ground, fourAt(pixels, p + 2 * step))),
  );
  return v128.andnot(isAlike, i32x4.eq(ground, own));
}

function isBetween(pixels: usize, p: i32, step: i32): bool {
  const ground = wordAt(pixels, p - step);
  return (
    ground !== wordAt(pixels, p) &&
    ground === wordAt(pixels, p + step) &&
    ground === wordAt(pixels, p - 2 * step) &&
    ground === wordAt(pixels, p + 2 * step)
  );
}
