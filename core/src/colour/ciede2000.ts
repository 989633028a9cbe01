// CIEDE2000: the colour difference that every limit and every "nearest" in the product is stated in.
import type { Lab } from "./lab.ts";

const TO_RADIANS = Math.PI / 180;
const POW7_OF_25 = 25 ** 7;

function hueDeg(b: number, a: number): number {
  if (a === 0 && b === 0) return 0;
  const degrees = Math.atan2(b, a) / TO_RADIANS;
  return degrees < 0 ? degrees + 360 : degrees;
}

/**
 * CIEDE2000 difference of two CIELAB colours, kL = kC = kH = 1.
 * Source: G. Sharma, W. Wu, E. N. Dalal, "The CIEDE2000 color-difference formula" (Color Research and Application, 2005), equations 2 to 22.
 */
export function ciede2000([l1, a1, b1]: Lab, [l2, a2, b2]: Lab): number {
  const chromaMean = (Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2;
  const chromaMean7 = chromaMean ** 7;
  const g = 0.5 * (1 - Math.sqrt(chromaMean7 / (chromaMean7 + POW7_OF_25)));
  const ap1 = (1 + g) * a1;
  const ap2 = (1 + g) * a2;
  const cp1 = Math.hypot(ap1, b1);
  const cp2 = Math.hypot(ap2, b2);
  const hp1 = hueDeg(b1, ap1);
  const hp2 = hueDeg(b2, ap2);

  const isGrey = cp1 * cp2 === 0;
  let hueStep = 0;
  if (!isGrey) {
    hueStep = hp2 - hp1;
    if (hueStep > 180) hueStep -= 360;
    else if (hueStep < -180) hueStep += 360;
  }
  const dL = l2 - l1;
  const dC = cp2 - cp1;
  const dH = 2 * Math.sqrt(cp1 * cp2) * Math.sin((hueStep / 2) * TO_RADIANS);

  const lMean = (l1 + l2) / 2;
  const cMean = (cp1 + cp2) / 2;
  let hMean = hp1 + hp2;
  if (!isGrey) {
    if (Math.abs(hp1 - hp2) <= 180) hMean /= 2;
    else hMean = hMean < 360 ? (hMean + 360) / 2 : (hMean - 360) / 2;
  }
  const t =
    1 -
    0.17 * Math.cos((hMean - 30) * TO_RADIANS) +
    0.24 * Math.cos(2 * hMean * TO_RADIANS) +
    0.32 * Math.cos((3 * hMean + 6) * TO_RADIANS) -
    0.2 * Math.cos((4 * hMean - 63) * TO_RADIANS);
  const cMean7 = cMean ** 7;
  const rotation =
    -2 * Math.sqrt(cMean7 / (cMean7 + POW7_OF_25)) * Math.sin(60 * Math.exp(-(((hMean - 275) / 25) ** 2)) * TO_RADIANS);
  const fromFifty = (lMean - 50) ** 2;
  const l = dL / (1 + (0.015 * fromFifty) / Math.sqrt(20 + fromFifty));
  const c = dC / (1 + 0.045 * cMean);
  const h = dH / (1 + 0.015 * cMean * t);
  return Math.sqrt(l * l + c * c + h * h + rotation * c * h);
}
