// Mixes of colours: what pixels on an edge are, and how far a pixel is from being one.
import type { Palette } from "./palette.ts";

/**
 * The share of colour `i` (0..1) in a pixel mixed of colours `i` and `j`, from its squared distances to the two and theirs
 * to each other: renderers mix encoded values, so encoded values unmix.
 */
export function mixShare(i2: number, j2: number, apart2: number): number {
  if (apart2 === 0) return 1;
  const t = (j2 + apart2 - i2) / (2 * apart2);
  return t < 0 ? 0 : Math.min(t, 1);
}

/** Squared distance of a pixel to the nearest mix of two colours, from the same three distances. */
export function mixDistance2(i2: number, j2: number, apart2: number): number {
  const along = (j2 + apart2 - i2) / 2;
  if (along <= 0) return j2;
  if (along >= apart2) return i2;
  const d2 = j2 - (along * along) / apart2;
  return Math.max(d2, 0);
}

/**
 * Encoded-RGB distance of a pixel to the nearest mix of colours `i` and `j` whose luma and chroma are mixed each on its
 * own: JPEG keeps chroma at half the resolution (ITU-T T.871 gives the transform), so a thin line has its own lightness
 * with the hue of what lies beside it.
 */
export function bleedDistance(palette: Palette, i: number, j: number, r: number, g: number, b: number): number {
  const yi = luma(palette.r[i], palette.g[i], palette.b[i]);
  const yj = luma(palette.r[j], palette.g[j], palette.b[j]);
  const y = luma(r, g, b);
  const dy = y < Math.min(yi, yj) ? Math.min(yi, yj) - y : y > Math.max(yi, yj) ? y - Math.max(yi, yj) : 0;
  // Chroma as r - y and b - y: differences of the two are all that counts.
  const ur = palette.r[i] - yi - palette.r[j] + yj;
  const ub = palette.b[i] - yi - palette.b[j] + yj;
  const length2 = ur * ur + ub * ub;
  const pr = r - y - palette.r[j] + yj;
  const pb = b - y - palette.b[j] + yj;
  const t = length2 === 0 ? 0 : Math.min(1, Math.max(0, (pr * ur + pb * ub) / length2));
  const cr = pr - t * ur;
  const cb = pb - t * ub;
  return Math.sqrt(dy * dy + cr * cr + cb * cb);
}

/** How light a colour is (encoded RGB; ITU-T T.871). */
export function luma(r: number, g: number, b: number): number {
  return 0.299 * r + 0.587 * g + 0.114 * b;
}

/** Whether a pixel is a mix, within `reach` (encoded RGB), of colours `i`, `j` and at most `mostOfK` of `k`. */
export function isMixOfThree(
  palette: Palette,
  i: number,
  j: number,
  k: number,
  r: number,
  g: number,
  b: number,
  mostOfK: number,
  reach: number,
): boolean {
  // Barycentric coordinates of the pixel's foot on the plane of the three.
  const ar = palette.r[j] - palette.r[i];
  const ag = palette.g[j] - palette.g[i];
  const ab = palette.b[j] - palette.b[i];
  const br = palette.r[k] - palette.r[i];
  const bg = palette.g[k] - palette.g[i];
  const bb = palette.b[k] - palette.b[i];
  const pr = r - palette.r[i];
  const pg = g - palette.g[i];
  const pb = b - palette.b[i];
  const aa = ar * ar + ag * ag + ab * ab;
  const ba = ar * br + ag * bg + ab * bb;
  const bb2 = br * br + bg * bg + bb * bb;
  const pa = pr * ar + pg * ag + pb * ab;
  const pb2 = pr * br + pg * bg + pb * bb;
  const det = aa * bb2 - ba * ba;
  if (det <= 1e-6 * aa * bb2) return false;
  const u = (bb2 * pa - ba * pb2) / det;
  const v = (aa * pb2 - ba * pa) / det;
  if (u < 0 || v < 0 || u + v > 1 || v > mostOfK) return false;
  const dr = pr - u * ar - v * br;
  const dg = pg - u * ag - v * bg;
  const db = pb - u * ab - v * bb;
  return dr * dr + dg * dg + db * db <= reach * reach;
}
