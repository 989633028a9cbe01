import { apart, fourAt, OPAQUE, wordAt } from "./pixels";

/** Marks of a pixel. */
const EDGE: u8 = 0;
const FLAT: u8 = 1;
const TRANSPARENT: u8 = 2;

/**
 * Marks those of `rows` rows from `first` up to `end`: transparent; flat, if every neighbour of the eight it has differs by at
 * most `reach` in a channel, twice that in alpha. Returns how many are not transparent.
 */
export function markFlat(pixels: usize, marks: usize, width: i32, rows: i32, first: i32, end: i32, reach: i32): i32 {
  const limit = i32x4.splat((reach * 0x010101) | (min(255, 2 * reach) << 24));
  let opaque = 0;
  for (let y = first; y < end; y++) {
    const up = y > 0 ? -width : 0;
    const down = y < rows - 1 ? width : 0;
    const start = y * width;
    const last = start + width - 1;
    let p = start;
    opaque += markOne(pixels, marks, p, up, down, 0, width > 1 ? 1 : 0, limit);
    for (p++; p + 4 <= last; p += 4) {
      const own = fourAt(pixels, p);
      let least = own;
      let most = own;
      for (let q = p + up; ; q += width) {
        const left = fourAt(pixels, q - 1);
        const middle = fourAt(pixels, q);
        const right = fourAt(pixels, q + 1);
        least = i8x16.min_u(least, i8x16.min_u(left, i8x16.min_u(middle, right)));
        most = i8x16.max_u(most, i8x16.max_u(left, i8x16.max_u(middle, right)));
        if (q >= p + down) break;
      }
      const over = i8x16.sub_sat_u(i8x16.max_u(i8x16.sub(own, least), i8x16.sub(most, own)), limit);
      const isOpaque = i32x4.ge_u(own, i32x4.splat(OPAQUE << 24));
      const isFlat = i32x4.eq(over, i32x4.splat(0));
      // A byte each: 1 where flat, 2 where transparent, whatever it is beside.
      const mark = v128.bitselect(v128.and(isFlat, i32x4.splat(FLAT)), i32x4.splat(TRANSPARENT), isOpaque);
      v128.store32_lane(marks + p, i8x16.shuffle(mark, mark, 0, 4, 8, 12, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0), 0);
      opaque += popcnt<i32>(i32x4.bitmask(isOpaque));
    }
    for (; p < last; p++) opaque += markOne(pixels, marks, p, up, down, -1, 1, limit);
    if (width > 1) opaque += markOne(pixels, marks, last, up, down, -1, 0, limit);
  }
  return opaque;
}

/** At the sides; 1 if it is opaque. */
function markOne(pixels: usize, marks: usize, p: i32, up: i32, down: i32, left: i32, right: i32, limit: v128): i32 {
  const word = wordAt(pixels, p);
  const own = i32x4.splat(word);
  let over = i8x16.splat(0);
  for (let k = 0; k < 3; k++) {
    const q = p + (k === 0 ? up : k === 1 ? 0 : down);
    over = v128.or(over, i8x16.sub_sat_u(apart(own, i32x4.splat(wordAt(pixels, q + left))), limit));
    over = v128.or(over, i8x16.sub_sat_u(apart(own, i32x4.splat(wordAt(pixels, q))), limit));
    over = v128.or(over, i8x16.sub_sat_u(apart(own, i32x4.splat(wordAt(pixels, q + right))), limit));
  }
  const isOpaque = word >> 24 >= OPAQUE;
  store<u8>(marks + p, isOpaque ? (v128.any_true(over) ? EDGE : FLAT) : TRANSPARENT);
  return <i32>isOpaque;
}

/** Five bits a channel. */
function binOf(word: u32): u32 {
  return ((word & 0xf8) << 7) | ((word >> 6) & 0x3e0) | ((word >> 19) & 31);
}

/**
 * Stretches of flat pixels in one bin, of the marked pixels from `from` up to `to`: where each starts and ends, and its bin, as
 * three words from `spans` on; and per bin, added to what is there, four doubles from `sums` on: pixels, red, green and blue.
 * Returns how many stretches.
 */
export function collectSpans(pixels: usize, marks: usize, from: i32, to: i32, spans: usize, sums: usize): i32 {
  let span = spans;
  let spanBin: u32 = 0xffff;
  let spanEnd = -1;
  for (let p = from; p < to; ) {
    if (load<u8>(marks + p) !== FLAT) {
      p += p + 8 <= to && load<u64>(marks + p) === 0 ? 8 : 1;
      continue;
    }
    const word = wordAt(pixels, p);
    const start = p++;
    const four = i32x4.splat(word);
    while (p + 4 <= to && load<u32>(marks + p) === 0x01010101 && i32x4.all_true(i32x4.eq(fourAt(pixels, p), four)))
      p += 4;
    while (p < to && load<u8>(marks + p) === FLAT && wordAt(pixels, p) === word) p++;
    const bin = binOf(word);
    const length = <f64>(p - start);
    const sum = sums + (bin << 5);
    store<f64>(sum, load<f64>(sum) + length);
    store<f64>(sum, load<f64>(sum, 8) + length * <f64>(word & 255), 8);
    store<f64>(sum, load<f64>(sum, 16) + length * <f64>((word >> 8) & 255), 16);
    store<f64>(sum, load<f64>(sum, 24) + length * <f64>((word >> 16) & 255), 24);
    if (start === spanEnd && bin === spanBin) {
      store<i32>(span - 8, p);
    } else {
      store<i32>(span, start);
      store<i32>(span, p, 4);
      store<u32>(span, bin, 8);
      span += 12;
    }
    spanBin = bin;
    spanEnd = p;
  }
  return <i32>((span - spans) / 12);
}
