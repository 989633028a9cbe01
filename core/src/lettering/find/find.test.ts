import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { flattenPath, isInLine, polygonPath } from "../../geometry/index.ts";
import { openTypeface, unpackWoff } from "../../typeface/index.ts";
import { arcThrough, type Lettering, setLettering } from "../index.ts";
import { coverPaths, overlapOf } from "./cover-paths.ts";
import { tryOn } from "./index.ts";
import { distanceAt, layOutOld } from "./old-letters.ts";

const open = (id: string, file: string) =>
  openTypeface(id, [
    unpackWoff(readFileSync(createRequire(import.meta.url).resolve(`@fontsource/${file}-normal.woff`)), 2 ** 22),
  ]);
const oswald = await open("oswald", "oswald/files/oswald-latin-600");
const montserrat = await open("montserrat", "montserrat/files/montserrat-latin-800");
const lobster = await open("lobster", "lobster/files/lobster-latin-400");

const SIDE = 24;
const coordinate = fc.integer({ min: -4000, max: 28000 }).map((v) => v / 1000);
const polygon = fc
  .array(fc.tuple(coordinate, coordinate), { minLength: 3, maxLength: 5 })
  .map((points) => points.flat());

describe("what paths cover", () => {
  it("is, pixel by pixel, what many points in it say", () => {
    fc.assert(
      fc.property(polygon, (points) => {
        const path = polygonPath(points);
        const { cover } = coverPaths([path], SIDE, SIDE);
        const line = flattenPath(path, 0.01);
        const fine = 20;
        for (let y = 1; y < SIDE; y += 5)
          for (let x = 0; x < SIDE; x += 3) {
            let inside = 0;
            let winds = false;
            for (let k = 0; k < fine * fine; k++) {
              const [px, py] = [x + ((k % fine) + 0.5) / fine, y + (Math.floor(k / fine) + 0.5) / fine];
              if (isInLine(line, px, py)) inside++;
              else winds ||= windingOf(line, px, py) !== 0;
            }
            // Where a polygon crosses itself it winds both ways in one pixel, or twice.
            if (!winds && isOneWay(line, x, y))
              expect(Math.abs(cover[y * SIDE + x] - inside / fine / fine)).toBeLessThan(0.12);
          }
      }),
      { numRuns: 60 },
    );
  });
  it("is known to the last digit for squares, holes and what lies half outside", () => {
    const { cover } = coverPaths([polygonPath([2.25, 3.5, 6.5, 3.5, 6.5, 6, 2.25, 6])], 8, 8);
    expect([...cover.subarray(3 * 8, 4 * 8)]).toEqual([0, 0, 0.375, 0.5, 0.5, 0.5, 0.25, 0]);
    expect([...cover.subarray(4 * 8, 5 * 8)]).toEqual([0, 0, 0.75, 1, 1, 1, 0.5, 0]);
    const ring = [polygonPath([-4, -4, 12, -4, 12, 12, -4, 12]), polygonPath([2, 2, 2, 6, 6, 6, 6, 2])];
    const holed = coverPaths(ring, 8, 8).cover;
    expect([holed[0], holed[3 * 8 + 3], holed[7 * 8 + 7]]).toEqual([1, 0, 1]);
    expect(overlapOf(cover, cover)).toBe(1);
    expect(overlapOf(cover, new Float32Array(64))).toBe(0);
  });
});

/** How often a closed line winds round a place. */
function windingOf(line: readonly number[], x: number, y: number): number {
  let winding = 0;
  for (let i = 0; i + 3 < line.length; i += 2) {
    const [x0, y0, x1, y1] = line.slice(i, i + 4);
    if (y0 <= y !== y1 <= y && x0 + ((y - y0) / (y1 - y0)) * (x1 - x0) > x) winding += y1 > y0 ? 1 : -1;
  }
  return winding;
}

/** Whether all corners of a pixel are wound round the same way, or not at all. */
function isOneWay(line: readonly number[], x: number, y: number): boolean {
  const signs = new Set<number>();
  for (let k = 0; k < 25; k++) signs.add(windingOf(line, x + (k % 5) / 4, y + Math.floor(k / 5) / 4));
  signs.delete(0);
  return signs.size < 2 && [...signs].every((v) => Math.abs(v) === 1);
}

describe("old letters", () => {
  it("have distances to their outline that the nearest point of it confirms, negative inside", () => {
    const square = polygonPath([10, 10, 40, 10, 40, 40, 10, 40]);
    const old = layOutOld([square], 1);
    if (!old) throw new Error("nothing there");
    for (let k = 0; k < 400; k++) {
      const [x, y] = [-2 + ((k * 0.618034) % 1) * 54, -2 + ((k * 0.754878) % 1) * 54];
      const [dx, dy] = [Math.max(10 - x, x - 40), Math.max(10 - y, y - 40)];
      const far = dx > 0 && dy > 0 ? Math.hypot(dx, dy) : Math.max(dx, dy);
      const found = distanceAt(old, (x - old.left) * old.scale, (y - old.top) * old.scale) / old.scale;
      expect(Math.abs(found - far)).toBeLessThan(0.9);
    }
  });
  it("are none where nothing is marked, or nothing is said", () => {
    expect(layOutOld([], 3)).toBeNull();
    expect(layOutOld([polygonPath([0, 0, 9, 0, 9, 9, 0, 9])], 0)).toBeNull();
    expect(tryOn([], "Tern")).toBeNull();
  });
});

const PLAIN: Lettering = {
  text: "Tern Harbour",
  baseline: { kind: "line", at: { x: 300, y: 200 }, along: { x: 1, y: 0 }, radius: null },
  capHeight: 40,
  widthPercent: 100,
  slantDeg: 0,
  letterSpacing: 0,
  lineSpacing: 160,
  align: "middle",
  nudges: [],
};
const over = arcThrough({ x: 100, y: 260 }, { x: 300, y: 150 }, { x: 500, y: 260 });
const under = arcThrough({ x: 100, y: 150 }, { x: 300, y: 260 }, { x: 500, y: 150 });
const tilted = { kind: "line", at: { x: 300, y: 200 }, along: { x: 0.96, y: -0.28 }, radius: null } as const;

describe("a typeface laid on old letters", () => {
  it.each([
    ["on a line", {}],
    ["on a slant of 14 degrees", { slantDeg: 14 }],
    ["wide and spaced", { widthPercent: 130, letterSpacing: 20 }],
    ["at an angle", { baseline: tilted }],
    ["on an arch", { baseline: over }],
    ["hanging", { baseline: under, letterSpacing: 12 }],
    ["in two lines", { text: "Tern\nHarbour", lineSpacing: 150 }],
    ["in two lines from the left", { text: "Tern Quay\nHarbour", align: "left" }],
  ] as const)("lies as they do: %s", (_, parts) => {
    const wanted: Lettering = { ...PLAIN, ...parts };
    const paths = setLettering(wanted, montserrat).letters.flatMap((letter) => letter.paths);
    const found = tryOn(paths, wanted.text)?.(montserrat);
    if (!found) throw new Error("not found");
    expect(found.overlap).toBeGreaterThan(0.97);
    const { capHeight, widthPercent, slantDeg, letterSpacing } = found.lettering;
    expect(Math.abs(capHeight / wanted.capHeight - 1)).toBeLessThan(0.02);
    expect(Math.abs(widthPercent - wanted.widthPercent)).toBeLessThan(4);
    expect(Math.abs(slantDeg - wanted.slantDeg)).toBeLessThan(1.5);
    expect(Math.abs(letterSpacing - wanted.letterSpacing)).toBeLessThan(3);
    if (wanted.baseline.kind === "line" && wanted.baseline.radius === null)
      expect(found.lettering.baseline).toMatchObject({ kind: "line", radius: null });
    // Set by what was found, every letter stands where it stood.
    const [was, is] = [wanted, found.lettering].map((one) => setLettering(one, montserrat).letters);
    was.forEach(({ paths: [path] }, k) => {
      if (path) expect(Math.hypot(path[0] - is[k].paths[0][0], path[1] - is[k].paths[0][1])).toBeLessThan(1);
    });
  });
  it("covers them better than any other does, and one that lacks letters is not tried", () => {
    const paths = setLettering({ ...PLAIN, baseline: over }, lobster).letters.flatMap((letter) => letter.paths);
    const layOn = tryOn(paths, PLAIN.text);
    const overlap = [lobster, oswald, montserrat].map((face) => layOn?.(face)?.overlap ?? 0);
    expect(overlap[0]).toBeGreaterThan(0.95);
    expect(Math.max(overlap[1], overlap[2])).toBeLessThan(0.75);
    expect(tryOn(paths, "שלום")?.(oswald)).toBeNull();
  });
});
