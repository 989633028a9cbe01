// The smallest of art: hard lines one pixel wide, and lettering of which a counter is a few pixels.
import { describe, expect, it } from "vitest";
import type { Rgb } from "../colour/index.ts";
import { flattenPath, pathArea } from "../geometry/index.ts";
import { drawLettering, PLAIN_SHAPES, paint, traceRaster } from "../testing/pictures.test.support.ts";

const WHITE: Rgb = [255, 255, 255];
const BLACK: Rgb = [16, 16, 20];

/** Pixels of a line from (10, y) by (dx, dy), one for each step along it, as programs without anti-aliasing draw it. */
function hardLine(y: number, dx: number, dy: number): [number, number][] {
  const steps = Math.max(Math.abs(dx), Math.abs(dy));
  return Array.from({ length: steps + 1 }, (_, k) => [
    Math.round(10 + (dx * k) / steps),
    Math.round(y + (dy * k) / steps),
  ]);
}

describe("hard-edged lines one pixel wide, aslant", () => {
  const slopes = [7, 12, 18, 25, 33, 44, 80];
  const lines = slopes.map((dy, i) => hardLine(12 + i * 24, 150, dy));
  const isLine = new Set(lines.flat().map(([x, y]) => y * 180 + x));
  const { map, reduction } = traceRaster(paint(180, 260, (x, y) => (isLine.has(y * 180 + x) ? BLACK : WHITE)));
  const black = reduction.spots.find(({ pictureRgb }) => pictureRgb[0] < 60)?.id;
  const faces = map.faces.filter(({ spotId }) => spotId === black);

  it("stay as many as they are, each a pixel wide on the whole", () => {
    expect(faces).toHaveLength(slopes.length);
    const widths = faces.map((face) => Math.abs(face.paths.reduce((sum, path) => sum + pathArea(path), 0)));
    const wanted = slopes.map((dy) => Math.hypot(151, dy));
    widths.sort((a, b) => a - b);
    for (const [i, area] of widths.entries()) expect(Math.abs(area / wanted[i] - 1)).toBeLessThan(0.12);
  });

  it("are even from end to end: hardly a tenth of any is thinner than half a pixel", () => {
    for (const face of faces) {
      const [outline] = face.paths;
      const points = flattenPath(outline, 0.01);
      let thin = 0;
      let looked = 0;
      for (let x = 11; x < 158; x += 0.5) {
        const ys: number[] = [];
        for (let i = 0; i + 3 < points.length; i += 2)
          if (points[i] > x !== points[i + 2] > x)
            ys.push(points[i + 1] + ((x - points[i]) / (points[i + 2] - points[i])) * (points[i + 3] - points[i + 1]));
        looked++;
        if (ys.length < 2 || Math.max(...ys) - Math.min(...ys) < 0.5) thin++;
      }
      expect(thin / looked).toBeLessThan(0.1);
    }
  });
});

describe("lettering of a few pixels", () => {
  const counters = (
    { heightPx, isBold, shiftPx = 0 }: { heightPx: number; isBold: boolean; shiftPx?: number },
    keepsText = true,
  ) => {
    const look = { heightPx, isBold, shiftPx, colour: "#101014", background: "#ffffff" };
    const { map } = traceRaster(drawLettering("ABDOPQRabdegopq", look), { ...PLAIN_SHAPES, specksPx: 3, keepsText });
    // The ground and the holes in the letters.
    return map.faces.filter(({ spotId }) => spotId === "ffffff").length - 1;
  };
  it("keeps its counters from the specks, unless that is not wanted", () => {
    expect(counters({ heightPx: 10, isBold: true })).toBe(16);
    expect(counters({ heightPx: 10, isBold: true }, false)).toBeLessThan(16);
  });
  it.each([
    [8, true, 62],
    [10, true, 64],
    [8, false, 60],
    [10, false, 56],
  ])(
    "keeps the counters of capitals of %i px, bold %s, wherever they lie on the grid: %i of 64",
    (heightPx, isBold, least) => {
      const kept = [0, 0.25, 0.5, 0.75].map((shiftPx) => counters({ heightPx, isBold, shiftPx }));
      expect(kept.reduce((sum, count) => sum + count)).toBeGreaterThanOrEqual(least);
    },
  );
});
