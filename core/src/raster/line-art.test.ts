import { Image, threshold as referenceThreshold } from "image-js";
import { describe, expect, it } from "vitest";
import { drawSvg, paint } from "../testing/pictures.test.support.ts";
import { drawLineArt, greyHistogram, greyOf, otsuThreshold, sauvolaThresholds } from "./index.ts";

const PLAIN = {
  method: "even",
  cutOff: 0.5,
  windowPx: 51,
  k: 0.25,
  isInverted: false,
  weightPx: 0,
  paper: "clear",
} as const;
const alphaSum = ({ data }: { data: Uint8ClampedArray }) => {
  let sum = 0;
  for (let i = 3; i < data.length; i += 4) sum += data[i] / 255;
  return sum;
};

describe("Otsu's threshold", () => {
  it("parts the six-level example that lecture notes on Otsu 1979 work through (8, 7, 2, 6, 9, 4) after level 2", () => {
    // Values from memory: between-class variances 0.6968.. to 2.5635 at "t = 3", where t is the first light level.
    expect(otsuThreshold([8, 7, 2, 6, 9, 4])).toBe(2);
  });

  it.each([3, 11, 29])("agrees with image-js on a drawing with grain, seed %s", (seed) => {
    let state = seed;
    const raster = paint(80, 60, (x, y) => {
      state = (Math.imul(state, 1103515245) + 12345) >>> 0;
      const base = (x - 40) ** 2 + (y - 30) ** 2 < 400 ? 70 + seed : 215 - seed;
      const g = Math.min(255, base + ((state >>> 16) % 41) - 20);
      return [g, g, g];
    });
    const grey = greyOf(raster);
    const image = new Image(80, 60, { data: grey, colorModel: "GREY" });
    const ours = otsuThreshold(greyHistogram(grey));
    const mask = fromReference(image);
    // Whichever of equally good levels each takes, every pixel falls on the same side.
    for (let p = 0; p < grey.length; p++) expect(grey[p] > ours).toBe(mask[p]);
  });
});

/** Light pixels by image-js' own Otsu. */
function fromReference(image: Image): boolean[] {
  const mask = referenceThreshold(image, { algorithm: "otsu" });
  return Array.from({ length: image.width * image.height }, (_, p) => mask.getBitByIndex(p) === 1);
}

describe("the local threshold of Sauvola & Pietikainen 2000", () => {
  it("is the formula's value, window by window", () => {
    const raster = paint(23, 17, (x, y) => {
      const g = (x * 37 + y * 91 + x * y * 13) % 256;
      return [g, g, g];
    });
    const grey = greyOf(raster);
    const [k, window, reach] = [0.34, 7, 3];
    const thresholds = sauvolaThresholds(grey, 23, 17, window, k);
    for (let y = 0; y < 17; y++)
      for (let x = 0; x < 23; x++) {
        const around: number[] = [];
        for (let v = Math.max(0, y - reach); v <= Math.min(16, y + reach); v++)
          for (let u = Math.max(0, x - reach); u <= Math.min(22, x + reach); u++) around.push(grey[v * 23 + u]);
        const mean = around.reduce((sum, g) => sum + g, 0) / around.length;
        const deviation = Math.sqrt(around.reduce((sum, g) => sum + (g - mean) ** 2, 0) / around.length);
        expect(thresholds[y * 23 + x]).toBeCloseTo(mean * (1 + k * (deviation / 128 - 1)), 2);
      }
  });

  it("keeps lines in the shade and paper clean where one cut-off cannot", () => {
    // Paper from 240 down to 90, lines at 55 % of it, 5 px in every 40.
    const raster = paint(400, 80, (x) => {
      const paper = 240 - (150 * x) / 400;
      const g = Math.round(x % 40 < 5 ? paper * 0.55 : paper);
      return [g, g, g];
    });
    const truth = (400 / 40) * 5 * 80;
    const local = alphaSum(drawLineArt(raster, { ...PLAIN, method: "local", windowPx: 61 }));
    expect(Math.abs(local - truth) / truth).toBeLessThan(0.1);
    const otsu = otsuThreshold(greyHistogram(greyOf(raster))) / 255;
    const even = alphaSum(drawLineArt(raster, { ...PLAIN, cutOff: otsu }));
    expect(Math.abs(even - truth) / truth).toBeGreaterThan(1);
  });
});

describe("line art", () => {
  const disc = drawSvg(120, '<circle cx="60" cy="60" r="40" fill="#000"/>');

  it("keeps the edge's coverage: the area of a disc to two thousandths", () => {
    expect(Math.abs(alphaSum(drawLineArt(disc, PLAIN)) / (Math.PI * 1600) - 1)).toBeLessThan(0.002);
  });

  it("takes faint flats wholly to one side", () => {
    const faint = drawSvg(60, '<rect x="20" y="20" width="20" height="20" fill="#aaaaaa"/>');
    expect(alphaSum(drawLineArt(faint, PLAIN))).toBe(0);
    expect(alphaSum(drawLineArt(faint, { ...PLAIN, cutOff: 0.75 }))).toBeCloseTo(400, 0);
  });

  it.each([3, -3, 0.5])("changes the weight of a line by %s px across", (weightPx) => {
    const area = alphaSum(drawLineArt(disc, { ...PLAIN, weightPx }));
    expect(Math.abs(Math.sqrt(area / Math.PI) - (40 + weightPx / 2))).toBeLessThan(0.06);
  });

  it("inverted, the light becomes the line; on white paper nothing is clear", () => {
    const inverted = alphaSum(drawLineArt(disc, { ...PLAIN, isInverted: true }));
    expect(Math.abs(inverted / (120 * 120 - Math.PI * 1600) - 1)).toBeLessThan(0.002);
    const { data } = drawLineArt(disc, { ...PLAIN, paper: "white" });
    expect([...data.subarray(0, 4)]).toEqual([255, 255, 255, 255]);
    expect([...data.subarray((60 * 120 + 60) * 4, (60 * 120 + 60) * 4 + 4)]).toEqual([0, 0, 0, 255]);
  });
});
