import { converter, differenceCiede2000 } from "culori";
import { describe, expect, it } from "vitest";
import { ciede2000, type Lab, parseHex, rgbToLab, rgbToOklab } from "./index.ts";

// G. Sharma, W. Wu, E. N. Dalal, "The CIEDE2000 color-difference formula", Color Research and Application 30 (2005),
// table 1: L1 a1 b1, L2 a2 b2, difference. The table is written from memory; culori is asked for every pair, too.
const PAIRS: readonly (readonly number[])[] = [
  [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
  [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
  [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
  [50, -1.3802, -84.2814, 50, 0, -82.7485, 1.0],
  [50, -1.1848, -84.8006, 50, 0, -82.7485, 1.0],
  [50, -0.9009, -85.5211, 50, 0, -82.7485, 1.0],
  [50, 0, 0, 50, -1, 2, 2.3669],
  [50, -1, 2, 50, 0, 0, 2.3669],
  [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
  [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
  [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461],
  [50, 2.5, 0, 50, 0, -2.5, 4.3065],
  [50, 2.5, 0, 73, 25, -18, 27.1492],
  [50, 2.5, 0, 61, -5, 29, 22.8977],
  [50, 2.5, 0, 56, -27, -3, 31.903],
  [50, 2.5, 0, 58, 24, 15, 19.4535],
  [50, 2.5, 0, 50, 3.1736, 0.5854, 1.0],
  [50, 2.5, 0, 50, 3.2972, 0, 1.0],
  [50, 2.5, 0, 50, 1.8634, 0.5757, 1.0],
  [50, 2.5, 0, 50, 3.2592, 0.335, 1.0],
  [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
  [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
  [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
  [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
  [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
  [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
  [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
  [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
  [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
  [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
];

describe("colour difference", () => {
  it.each(PAIRS)("of (%f %f %f) and (%f %f %f) is %f", (l1, a1, b1, l2, a2, b2, published) => {
    expect(ciede2000([l1, a1, b1], [l2, a2, b2])).toBeCloseTo(published, 4);
    expect(ciede2000([l2, a2, b2], [l1, a1, b1])).toBeCloseTo(published, 4);
    const one = { mode: "lab65" as const, l: l1, a: a1, b: b1 };
    expect(differenceCiede2000()(one, { mode: "lab65", l: l2, a: a2, b: b2 })).toBeCloseTo(published, 4);
  });

  it("agrees with culori over a grid of colours", () => {
    const independent = differenceCiede2000();
    const toLab = (lab: Lab) => ({ mode: "lab65" as const, l: lab[0], a: lab[1], b: lab[2] });
    for (let l = 5; l < 100; l += 19)
      for (let a = -80; a <= 80; a += 32)
        for (let b = -80; b <= 80; b += 32) {
          const one: Lab = [l, a, b];
          const other: Lab = [l + 7, -a / 2, b + 11];
          expect(ciede2000(one, other)).toBeCloseTo(independent(toLab(one), toLab(other)), 6);
        }
  });
});

describe("colour conversion", () => {
  const lab65 = converter("lab65");
  const oklab = converter("oklab");
  const steps = [0, 1, 10, 51, 128, 200, 254, 255];
  it("to CIELAB and OKLab agrees with culori for bytes", () => {
    for (const r of steps)
      for (const g of steps)
        for (const b of steps) {
          const encoded = { mode: "rgb" as const, r: r / 255, g: g / 255, b: b / 255 };
          const lab = lab65(encoded);
          const ok = oklab(encoded);
          const own = rgbToLab([r, g, b]);
          const ownOk = rgbToOklab([r, g, b]);
          // culori's D65 has one digit more than IEC 61966-2-1's chromaticity: 0.02 in b* at most.
          [lab.l, lab.a, lab.b].forEach((value, i) => {
            expect(own[i]).toBeCloseTo(value, 1);
          });
          [ok.l, ok.a, ok.b].forEach((value, i) => {
            expect(ownOk[i]).toBeCloseTo(value, 5);
          });
        }
  });

  it("refuses a word that is no colour and names it", () => {
    expect(() => parseHex("teal-ish")).toThrow(/"teal-ish" is not a colour/);
    expect(parseHex("#0af")).toEqual([0, 170, 255]);
  });
});
