import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { drawLines, drawPlot, farFrom } from "../../../tools/testing/cut-pictures.ts";
import { pathToSvg, polygonPath, reversePath } from "../geometry/index.ts";
import { circleRegion } from "../testing/separation.test.support.ts";
import { planCuts } from "./cut-plan.ts";
import { UNITS_PER_MM, writeHpgl } from "./hpgl.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-cut-"));
afterAll(() => rmSync(folder, { recursive: true }));

/** A flag of 30 x 20 mm with a round hole, a wedge far from it and a round dot near the sheet's corner; outlines turn one way. */
const FLAG = polygonPath([20, 10, 50, 10, 50, 30, 20, 30]);
const WEDGE = polygonPath([70, 35, 75, 5, 79, 35]);
const region = [FLAG, WEDGE, reversePath(circleRegion(35, 20, 6)[0]), circleRegion(6, 34, 3)[0]];
const sheet = { widthPx: 80, heightPx: 40, mmPerPx: 1, isMirrored: false };

describe("a layer's cuts", () => {
  const { contours, cutLengthMm } = planCuts(region, sheet);

  it("are all of its contours, closed, a hole before the outline round it", () => {
    expect(contours).toHaveLength(4);
    for (const { points } of contours) expect([...points.subarray(-2)]).toEqual([...points.subarray(0, 2)]);
    const kinds = contours.map(({ kind }) => kind === "hole");
    expect(kinds.filter(Boolean)).toHaveLength(1);
    const after = contours[kinds.indexOf(true) + 1];
    expect(Math.min(...after.points)).toBeCloseTo(10, 9);
    expect(after.points).toHaveLength(10);
  });

  it("go from piece to piece by short ways, from the sheet's corner on", () => {
    expect(contours.map(({ points }) => Math.round(points[0] / 10))).toEqual([1, 4, 2, 8]);
  });

  it("begin where the contour turns most", () => {
    const wedge = contours.at(-1);
    expect([...(wedge?.points.subarray(0, 2) ?? [])]).toEqual([75, 35]);
  });

  it("are as long as the contours are", () => {
    const wedge = Math.hypot(5, 30) + Math.hypot(4, 30) + 9;
    expect(cutLengthMm).toBeCloseTo(100 + wedge + 2 * Math.PI * 9, 1);
  });

  it("stay on the sheet where a curve at the art's edge swings beyond it", () => {
    const beyond = planCuts([polygonPath([-0.3, -0.2, 80.4, 5, 80, 40.2, 10, 30])], { ...sheet, isMirrored: true });
    for (const { points } of beyond.contours)
      points.forEach((value, i) => {
        expect(value).toBeGreaterThanOrEqual(0);
        expect(value).toBeLessThanOrEqual(i % 2 === 0 ? 80 : 40);
      });
  });

  it("are mirrored where the sheet is", () => {
    const mirrored = planCuts(region, { ...sheet, isMirrored: true }).contours;
    const across = (plan: typeof contours) =>
      plan.flatMap(({ points }) => [...points].filter((_, i) => i % 2 === 0)).sort((a, b) => a - b);
    const turned = across(contours).map((x) => 80 - x);
    for (const [i, x] of across(mirrored).entries()) expect(x).toBeCloseTo(turned[turned.length - 1 - i], 9);
  });
});

describe("a plot in the plotter language", () => {
  const plot = writeHpgl(planCuts(region, sheet));

  it("cuts each contour closed and a millimetre on over its start, with the blade up in between", () => {
    const instructions = plot.split(/[;\n]+/).filter(Boolean);
    expect(instructions.slice(0, 3)).toEqual(["IN", "SP1", "PA"]);
    expect(instructions.slice(-2)).toEqual(["PU", "SP0"]);
    const cuts: number[][] = [];
    for (const one of instructions.slice(3, -2)) {
      const places = one.slice(2).split(",").map(Number);
      if (one.startsWith("PU")) cuts.push(places);
      else cuts.at(-1)?.push(...places);
    }
    expect(cuts).toHaveLength(4);
    const flag = cuts.find((places) => places.length === 12) ?? [];
    // Four corners, the first again, and a millimetre on towards the second.
    expect(flag.slice(8, 10)).toEqual(flag.slice(0, 2));
    const over = [flag[10] - flag[8], flag[11] - flag[9]];
    expect(Math.hypot(...over)).toBe(UNITS_PER_MM);
    expect(Math.abs(over[0] * (flag[3] - flag[1]) - over[1] * (flag[2] - flag[0]))).toBe(0);
  });

  it("drawn by hp2xx is what librsvg draws of the layer's outlines, within a tenth of a millimetre, at the same size", async () => {
    const stroke = `<path fill="none" stroke="#000" stroke-width="0.1" d="${region.map((path) => pathToSvg(path, 4)).join("")}"/>`;
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="40mm" viewBox="0 0 80 40">${stroke}</svg>`;
    const [plotted, drawn] = [await drawPlot(folder, plot), await drawLines(folder, svg)];
    // 20 pixels to the millimetre.
    expect(Math.abs(plotted.width - drawn.width)).toBeLessThanOrEqual(2);
    expect(Math.abs(plotted.height - drawn.height)).toBeLessThanOrEqual(2);
    expect(farFrom(plotted, drawn, 2)).toBe(0);
    expect(farFrom(drawn, plotted, 2)).toBe(0);
  });
});
