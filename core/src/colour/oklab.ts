// OKLab, for quick perceptual distances where CIEDE2000's cost per pair would hurt.
import { LINEAR_OF_BYTE, type Rgb } from "./srgb.ts";

/** OKLab: L 0..1, a, b about -0.4..0.4. */
export type Oklab = readonly [number, number, number];

/** OKLab of an encoded sRGB colour, channels rounded to bytes. Source: B. Ottosson, "A perceptual color space for image processing" (2020). */
export function rgbToOklab(rgb: Rgb): Oklab {
  const r = LINEAR_OF_BYTE[Math.round(rgb[0])];
  const g = LINEAR_OF_BYTE[Math.round(rgb[1])];
  const b = LINEAR_OF_BYTE[Math.round(rgb[2])];
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}
