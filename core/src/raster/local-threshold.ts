// A threshold for every pixel from its surroundings, for drawings under uneven light.

/** Dynamic range of the deviation, for 8-bit greys (Sauvola & Pietikainen 2000, section 3.3). */
const RANGE = 128;

/**
 * Thresholds m (1 + k (s / R - 1)) from mean m and standard deviation s of a `windowPx` wide square around each pixel (cut
 * at the picture's edge). Column sums slide down, window sums slide along: linear in pixels whatever its size.
 * Source: J. Sauvola & M. Pietikainen, "Adaptive document image binarization" (Pattern Recognition, 2000).
 */
export function sauvolaThresholds(
  grey: Uint8Array,
  width: number,
  height: number,
  windowPx: number,
  k: number,
): Float32Array {
  const reach = Math.max(1, Math.floor(windowPx / 2));
  const out = new Float32Array(grey.length);
  const sums = new Float64Array(width);
  const squares = new Float64Array(width);
  const addRow = (y: number, sign: 1 | -1) => {
    for (let x = 0, p = y * width; x < width; x++, p++) {
      const v = grey[p];
      sums[x] += sign * v;
      squares[x] += sign * v * v;
    }
  };
  for (let y = 0; y < Math.min(reach, height); y++) addRow(y, 1);
  for (let y = 0; y < height; y++) {
    if (y + reach < height) addRow(y + reach, 1);
    if (y - reach - 1 >= 0) addRow(y - reach - 1, -1);
    const rows = Math.min(height - 1, y + reach) - Math.max(0, y - reach) + 1;
    let sum = 0;
    let square = 0;
    for (let x = 0; x < Math.min(reach, width); x++) {
      sum += sums[x];
      square += squares[x];
    }
    for (let x = 0, p = y * width; x < width; x++, p++) {
      if (x + reach < width) {
        sum += sums[x + reach];
        square += squares[x + reach];
      }
      if (x - reach - 1 >= 0) {
        sum -= sums[x - reach - 1];
        square -= squares[x - reach - 1];
      }
      const n = rows * (Math.min(width - 1, x + reach) - Math.max(0, x - reach) + 1);
      const mean = sum / n;
      const deviation = Math.sqrt(Math.max(0, square / n - mean * mean));
      out[p] = mean * (1 + k * (deviation / RANGE - 1));
    }
  }
  return out;
}
