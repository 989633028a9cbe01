import { converter } from "culori";
import { describe, expect, it } from "vitest";
import { labD50ToD65, labToRgb, parseHex, rgbToLab } from "../colour/index.ts";
import { matchStock, priceColours, type Stock, shopSettingsSchema, stockRgb } from "./index.ts";

const ink = (code: string, hex: string): Stock => ({
  kind: "ink",
  code,
  name: code,
  colour: { space: "srgb", hex },
  detail: "",
  film: null,
  stones: null,
});

describe("colours on the shelf", () => {
  it("CIELAB under D50 becomes sRGB as culori has it (Bradford), within a step", () => {
    const toRgb = converter("rgb");
    for (const [l, a, b] of [
      [50, 0, 0],
      [48.2, 51.5, 30],
      [70, -30, 20],
      [30, 10, -45],
      [97, 0, 3],
      [12, 4, 2],
    ]) {
      const reference = toRgb({ mode: "lab", l, a, b });
      const ours = stockRgb({ colour: { space: "lab", l, a, b } });
      for (const [i, channel] of [reference.r, reference.g, reference.b].entries())
        expect(Math.abs(ours[i] - Math.min(255, Math.max(0, channel * 255)))).toBeLessThan(1.01);
    }
  });
  it("D50's white is D65's white, and a round through CIELAB returns the colour", () => {
    for (const v of labD50ToD65([100, 0, 0])) expect(Math.abs(v - (v > 50 ? 100 : 0))).toBeLessThan(0.05);
    for (const hex of ["#d8412f", "#14304f", "#f2b134", "#ffffff", "#000000"])
      expect(labToRgb(rgbToLab(parseHex(hex)))).toEqual(parseHex(hex));
  });
  it("the nearest of a kind comes first, with its difference and the shop's verdict", () => {
    const shelf = [ink("navy", "#16345a"), ink("red", "#d8412f"), { ...ink("t", "#d8412f"), kind: "thread" as const }];
    const matches = matchStock(parseHex("#d8402f"), shelf, "ink", { same: 2, near: 5 });
    expect(matches.map(({ stock, verdict }) => [stock.code, verdict])).toEqual([
      ["red", "same"],
      ["navy", "off"],
    ]);
    expect(matches[0].difference).toBeLessThan(0.5);
  });
  it("a colour costs its screen and its pass over every piece", () => {
    const settings = shopSettingsSchema.parse({ perScreen: 20, perColourPiece: 0.5 });
    expect(priceColours(3, 100, settings)).toBe(3 * 20 + 3 * 100 * 0.5);
  });
});
