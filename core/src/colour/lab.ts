// CIELAB under D65, from encoded sRGB. Named `Lab` because the trade's colour difference is defined on it.
import { encodeChannel, LINEAR_OF_BYTE, type Rgb } from "./srgb.ts";

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

/** Encoded sRGB of a CIELAB (D65) colour, clipped to what sRGB holds and rounded to bytes. */
export function labToRgb([l, a, b]: Lab): Rgb {
  const fy = (l + 16) / 116;
  const x = WHITE_X * unlightness(fy + a / 500);
  const y = unlightness(fy);
  const z = WHITE_Z * unlightness(fy - b / 200);
  return [
    encodeChannel(3.2409699419045226 * x - 1.537383177570094 * y - 0.4986107602930034 * z),
    encodeChannel(-0.9692436362808796 * x + 1.8759675015077202 * y + 0.04155505740717559 * z),
    encodeChannel(0.05563007969699366 * x - 0.20397695888897652 * y + 1.0569715142428786 * z),
  ];
}

function unlightness(t: number): number {
  const cube = t * t * t;
  return cube > EPSILON ? cube : (116 * t - 16) / KAPPA;
}

/** D50 white of ICC profiles and ISO 13655, Y = 1. */
const D50_X = 0.96422;
const D50_Z = 0.82521;

/**
 * CIELAB as measured under D50 to CIELAB under D65, by the linear Bradford transform (as in ICC.1 Annex E; the matrix
 * D50 to D65 as widely published).
 */
export function labD50ToD65([l, a, b]: Lab): Lab {
  const fy = (l + 16) / 116;
  const x = D50_X * unlightness(fy + a / 500);
  const y = unlightness(fy);
  const z = D50_Z * unlightness(fy - b / 200);
  const fx = lightness((0.9555766 * x - 0.0230393 * y + 0.0631636 * z) / WHITE_X);
  const gy = lightness(-0.0282895 * x + 1.0099416 * y + 0.0210077 * z);
  const fz = lightness((0.0122982 * x - 0.020483 * y + 1.3299098 * z) / WHITE_Z);
  return [116 * gy - 16, 500 * (fx - gy), 200 * (gy - fz)];
}
