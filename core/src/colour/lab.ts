// CIELAB under D65, from encoded sRGB. Named `Lab` because the trade's colour difference is defined on it.
import { LINEAR_OF_BYTE, type Rgb } from "./srgb.ts";

/** CIELAB: L* 0..100, a*, b* (D65, 2 degree observer). */
export type Lab = readonly [number, number, number];

/** D65 white, Y = 1, from the chromaticity x = 0.3127, y = 0.3290 that IEC 61966-2-1 gives. */
const WHITE_X = 0.3127 / 0.329;
const WHITE_Z = (1 - 0.3127 - 0.329) / 0.329;
/** CIE 15:2004: the linear part of the lightness function begins at (6/29)^3. */
const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;

function lightness(t: number): number {
  return t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116;
}

/** CIELAB of an encoded sRGB colour (IEC 61966-2-1 to XYZ, CIE 15:2004 to Lab). Channels may not be fractions: they are rounded. */
export function rgbToLab(rgb: Rgb): Lab {
  const r = LINEAR_OF_BYTE[Math.round(rgb[0])];
  const g = LINEAR_OF_BYTE[Math.round(rgb[1])];
  const b = LINEAR_OF_BYTE[Math.round(rgb[2])];
  const x = 0.4123907992659595 * r + 0.35758433938387796 * g + 0.1804807884018343 * b;
  const y = 0.21263900587151036 * r + 0.7151686787677559 * g + 0.07219231536073371 * b;
  const z = 0.01933081871559185 * r + 0.11919477979462599 * g + 0.9505321522496606 * b;
  const fx = lightness(x / WHITE_X);
  const fy = lightness(y);
  const fz = lightness(z / WHITE_Z);
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
}
