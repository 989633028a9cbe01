import { describe, expect, it } from "vitest";
import { renderSvg } from "../testing/pictures.test.support.ts";
import { findSeeThrough, type Raster, type SeeThroughTreatment, settleSeeThrough } from "./index.ts";

const svg = (content: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="120" height="120" viewBox="0 0 120 120">${content}</svg>`;
const DISC = '<circle cx="60" cy="60" r="30" fill="#d8412f"/>';
/** A flat shadow at two fifths under and beside a disc, as resvg draws it. */
const SHADOWED = svg(`<rect x="50" y="50" width="60" height="50" fill="#14304f" fill-opacity="0.4"/>${DISC}`);

function settle(raster: Raster, treatment: SeeThroughTreatment): Raster {
  const found = findSeeThrough(raster);
  if (!found) throw new Error("nothing half-transparent");
  return settleSeeThrough(raster, found, treatment, [30, 140, 60]);
}

/** Pixels that differ by more than a tenth: in alpha, or in colour where both are opaque. Where three things meet some may. */
function differ(a: Raster, b: Raster): number {
  let count = 0;
  for (let i = 0; i < a.data.length; i += 4) {
    let worst = Math.abs(a.data[i + 3] - b.data[i + 3]);
    if (a.data[i + 3] > 250 && b.data[i + 3] > 250)
      for (let c = 0; c < 3; c++) worst = Math.max(worst, Math.abs(a.data[i + c] - b.data[i + c]));
    if (worst > 25) count++;
  }
  return count;
}

describe("half-transparent areas", () => {
  it("are measured, with a place inside them; anti-aliased edges and small lettering are none", () => {
    const found = findSeeThrough(renderSvg(SHADOWED));
    const shadow = 60 * 50 - (Math.PI * 900) / 4 - 2 * 20 * 10 - 100;
    expect(Math.abs((found?.areaPx ?? 0) / shadow - 1)).toBeLessThan(0.35);
    expect(found?.faintPx).toBeGreaterThan(0.95 * (found?.areaPx ?? 0));
    const { x, y } = found?.at ?? { x: 0, y: 0 };
    expect(x > 50 && x < 110 && y > 50 && y < 100 && Math.hypot(x - 60, y - 60) > 30).toBe(true);
    expect(findSeeThrough(renderSvg(svg(DISC)))).toBeNull();
    const lines = Array.from(
      { length: 30 },
      (_, i) => `<path d="M5 ${4 + i * 3.7}L115 ${3 + i * 3.7}" stroke="#000" stroke-width="0.9"/>`,
    );
    expect(findSeeThrough(renderSvg(svg(lines.join(""))))).toBeNull();
  });

  it("leave the shape beside them as if they had never been there when they are dropped, or fall under one half", () => {
    const clean = renderSvg(svg(DISC));
    for (const treatment of ["drop", "half"] as const)
      expect(differ(settle(renderSvg(SHADOWED), treatment), clean)).toBeLessThan(9);
  });

  it("become a tone of the garment, as an independent renderer lays them on it, edges included", () => {
    const onGarment = settle(renderSvg(SHADOWED), "garment");
    const drawn = renderSvg(svg(`<rect x="50" y="50" width="60" height="50" fill="rgb(24,103,57)"/>${DISC}`));
    expect(differ(onGarment, drawn)).toBeLessThan(9);
  });

  it("print solid with the edge that they were drawn with", () => {
    const solid = svg(`<rect x="50.4" y="50.3" width="60" height="50" fill="#14304f"/>`);
    const part = svg(`<rect x="50.4" y="50.3" width="60" height="50" fill="#14304f" fill-opacity="0.6"/>`);
    for (const treatment of ["solid", "half"] as const)
      expect(differ(settle(renderSvg(part), treatment), renderSvg(solid))).toBeLessThan(9);
  });

  it("that fade end where they are half there", () => {
    const fade = `<defs><linearGradient id="g"><stop stop-color="#14304f"/><stop offset="1" stop-color="#14304f" stop-opacity="0"/></linearGradient></defs><rect x="10" y="10" width="100" height="100" fill="url(#g)"/>`;
    const { data } = settle(renderSvg(svg(fade)), "half");
    const row = Array.from({ length: 120 }, (_, x) => data[(60 * 120 + x) * 4 + 3]);
    expect(row.slice(12, 58).every((alpha) => alpha > 250)).toBe(true);
    expect(row.slice(62, 110).every((alpha) => alpha < 5)).toBe(true);
  });
});
