import { apart, fourAt, wordAt } from "./pixels";

const RADIUS: i32 = 2;
const RGB: u32 = 0x00ffffff;
/** Red and blue, sixteen bits each: sums of 25 bytes have room. */
const RED_BLUE: u32 = 0x00ff00ff;

/**
 * Sigma filter over `rows` rows of `width` pixels, of which those from `first` up to `end` are written: each pixel the mean of
 * those in its 5 x 5 neighbourhood that differ from it by at most `reach` in every channel. Alpha is kept.
 */
export function smoothRows(pixels: usize, out: usize, width: i32, rows: i32, first: i32, end: i32, reach: i32): void {
  // In grain it may be more than a byte holds: then all are alike.
  const limit = i32x4.splat(min(255, reach) * 0x010101);
  for (let y = first; y < end; y++) {
    const top = max(0, y - RADIUS);
    const bottom = min(rows - 1, y + RADIUS);
    let x = 0;
    for (; x < min(RADIUS, width); x++) smoothOne(pixels, out, width, top, bottom, x, y, reach);
    for (; x + 3 < width - RADIUS; x += 4) smoothFour(pixels, out, width, top, bottom, x, y, limit);
    for (; x < width; x++) smoothOne(pixels, out, width, top, bottom, x, y, reach);
  }
}

function smoothFour(pixels: usize, out: usize, width: i32, top: i32, bottom: i32, x: i32, y: i32, limit: v128): void {
  const at = y * width + x;
  const own = fourAt(pixels, at);
  let count = i32x4.splat(0);
  let redBlue = i32x4.splat(0);
  let green = i32x4.splat(0);
  for (let v = top; v <= bottom; v++)
    for (let q = v * width + x - RADIUS, last = q + 2 * RADIUS; q <= last; q++) {
      const there = fourAt(pixels, q);
      const over = v128.and(i8x16.sub_sat_u(apart(own, there), limit), i32x4.splat(RGB));
      const isAlike = i32x4.eq(over, i32x4.splat(0));
      const word = v128.and(there, isAlike);
      count = i32x4.sub(count, isAlike);
      redBlue = i32x4.add(redBlue, v128.and(word, i32x4.splat(RED_BLUE)));
      green = i32x4.add(green, v128.and(i32x4.shr_u(word, 8), i32x4.splat(0xff)));
    }
  const red = meanOf(v128.and(redBlue, i32x4.splat(0xffff)), count);
  const blue = meanOf(i32x4.shr_u(redBlue, 16), count);
  const colour = v128.or(red, v128.or(i32x4.shl(meanOf(green, count), 8), i32x4.shl(blue, 16)));
  v128.store(out + (at << 2), v128.or(v128.andnot(own, i32x4.splat(RGB)), colour));
}

/** Rounded. Of at most 25 bytes single precision tells every mean from a half. */
function meanOf(sum: v128, count: v128): v128 {
  const mean = f32x4.div(f32x4.convert_i32x4_s(sum), f32x4.convert_i32x4_s(count));
  return i32x4.trunc_sat_f32x4_s(f32x4.add(mean, f32x4.splat(0.5)));
}

/** At the sides, where a pixel has fewer neighbours. */
function smoothOne(pixels: usize, out: usize, width: i32, top: i32, bottom: i32, x: i32, y: i32, reach: i32): void {
  const own = wordAt(pixels, y * width + x);
  const x1 = min(width - 1, x + RADIUS);
  let count = 0;
  let red = 0;
  let green = 0;
  let blue = 0;
  for (let v = top; v <= bottom; v++)
    for (let u = max(0, x - RADIUS); u <= x1; u++) {
      const there = wordAt(pixels, v * width + u);
      const r = there & 255;
      const g = (there >> 8) & 255;
      const b = (there >> 16) & 255;
      if (abs<i32>(r - (own & 255)) > reach) continue;
      if (abs<i32>(g - ((own >> 8) & 255)) > reach || abs<i32>(b - ((own >> 16) & 255)) > reach) continue;
      count++;
      red += r;
      green += g;
      blue += b;
    }
  const half = count >> 1;
  const colour = ((red + half) / count) | (((green + half) / count) << 8) | (((blue + half) / count) << 16);
  store<u32>(out + ((y * width + x) << 2), (own & ~RGB) | colour);
}
