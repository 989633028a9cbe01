import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { describe, expect, it } from "vitest";
import { openTypeface, unpackWoff } from "../typeface/index.ts";
import { checkLettering, setLettering } from "./index.ts";

const woff = (name: string) =>
  unpackWoff(readFileSync(createRequire(import.meta.url).resolve(`@fontsource/${name}-normal.woff`)), 2 ** 22);
const thin = await openTypeface("poiret", [woff("poiret-one/files/poiret-one-latin-400")]);
const sturdy = await openTypeface("archivo", [woff("archivo-black/files/archivo-black-latin-400")]);
const script = await openTypeface("pacifico", [woff("pacifico/files/pacifico-latin-400")]);

const LIMITS = { lineMm: 0.35, gapMm: 0.5, lettersMm: 2.5 };
/** 0.1 mm to a pixel. */
function check(text: string, capMm: number, face: typeof thin) {
  const baseline = { kind: "line", at: { x: 0, y: 0 }, along: { x: 1, y: 0 }, radius: null } as const;
  const sizes = { capHeight: capMm * 10, widthPercent: 100, slantDeg: 0, letterSpacing: 10, lineSpacing: 160 };
  const { letters } = setLettering({ text, baseline, ...sizes, align: "left", nudges: [] }, face);
  return checkLettering(
    letters.flatMap(({ paths }) => paths),
    capMm * 10,
    LIMITS,
    0.1,
  );
}

describe("lettering at its size", () => {
  it("is told by the thinnest stroke of its outlines, which grows with it", () => {
    const small = check("III", 6, thin);
    expect(small.strokes.length).toBeGreaterThan(2);
    // An I is a bar: its width is that of the outline's box.
    const bar = thin.outline(
      0,
      thin.shape("I", { from: 0, to: 1, isRightToLeft: false, file: 0 }, true)[0].glyphs[0].id,
    )[0];
    const xs = bar.filter((_, i) => i % 2 === 0);
    const widthMm = ((Math.max(...xs) - Math.min(...xs)) / thin.capHeight) * 6;
    expect(small.strokes[0].widthMm).toBeCloseTo(widthMm, 2);
    expect(check("III", (6 * 0.4) / widthMm, thin).strokes).toEqual([]);
  });
  it("fills in where openings are narrow, and is too low under its process's limit", () => {
    const low = check("eBa", 2, sturdy);
    expect(low.openings.length).toBeGreaterThan(0);
    expect(low).toMatchObject({ isTooLow: true, capHeightMm: 2 });
    const large = check("eBa", 30, sturdy);
    expect(large).toMatchObject({ isTooLow: false, strokes: [], openings: [] });
  });
  it("is measured as one shape: letters that run into each other have no gap or stroke between them", () => {
    expect(check("minimum", 20, script)).toMatchObject({ strokes: [], openings: [] });
  });
});
