// Pixels are words of RGBA bytes, red lowest; a pointer to one goes on by four bytes.

/** Least alpha that counts as opaque, as in `core/src/raster`. */
export const OPAQUE: u32 = 128;

export function wordAt(pixels: usize, index: i32): u32 {
  return load<u32>(pixels + (index << 2));
}

/** Four pixels from `index` on. */
export function fourAt(pixels: usize, index: i32): v128 {
  return v128.load(pixels + (index << 2));
}

/** How far bytes are apart. */
export function apart(a: v128, b: v128): v128 {
  return v128.or(i8x16.sub_sat_u(a, b), i8x16.sub_sat_u(b, a));
}
