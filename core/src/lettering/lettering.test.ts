import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { describe, expect, it } from "vitest";
import { applyEdits } from "../edit/index.ts";
import { boundsOfAll, flattenPath, lengthOf, nearestOnPath } from "../geometry/index.ts";
import { areasBy, expectPlanar, spotArea } from "../lay/lay.test.support.ts";
import { wholeFrame } from "../raster/index.ts";
import { EMPTY_LIBRARY, makeRecipe, placeEdits, scaleRecipe } from "../recipe/index.ts";
import { renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { spotPaths } from "../trace/index.ts";
import { openTypeface, unpackWoff } from "../typeface/index.ts";
import { arcThrough, type Lettering, letterLayers, type SetLettering, setLettering } from "./index.ts";

const woff = (name: string) =>
  unpackWoff(readFileSync(createRequire(import.meta.url).resolve(`@fontsource/${name}-normal.woff`)), 2 ** 22);
const oswald = await openTypeface("oswald-500", [woff("oswald/files/oswald-latin-500")]);
const pacifico = await openTypeface("pacifico-400", [woff("pacifico/files/pacifico-latin-400")]);

const STRAIGHT = { kind: "line", at: { x: 200, y: 100 }, along: { x: 1, y: 0 }, radius: null } as const;
const PLAIN: Lettering = {
  text: "HARBOUR",
  baseline: STRAIGHT,
  capHeight: 40,
  widthPercent: 100,
  slantDeg: 0,
  letterSpacing: 0,
  lineSpacing: 160,
  align: "middle",
  nudges: [],
};
const set = (parts: Partial<Lettering>, face = oswald) => setLettering({ ...PLAIN, ...parts }, face);
const boxOf = ({ letters }: SetLettering) => boundsOfAll(letters.flatMap(({ paths }) => paths));

describe("set lettering", () => {
  it("is as high as it should be, wherever it stands and however wide", () => {
    for (const parts of [{}, { widthPercent: 140 }, { letterSpacing: 30 }, { slantDeg: 20 }]) {
      const { top, bottom } = boxOf(set({ ...parts, text: "HIH" }));
      expect(bottom).toBeCloseTo(100, 6);
      expect(bottom - top).toBeCloseTo(40, 6);
    }
    const width = (parts: Partial<Lettering>) => {
      const { left, right } = boxOf(set({ text: "HIH", ...parts }));
      return right - left;
    };
    expect(width({ widthPercent: 150 })).toBeCloseTo(1.5 * width({}), 6);
    expect(width({ letterSpacing: 25 })).toBeCloseTo(width({}) + 2 * 10, 6);
    // Leaning by 45 degrees moves the top by the height.
    expect(width({ slantDeg: 45 })).toBeCloseTo(width({}) + 40, 6);
  });
  it("is aligned at its anchor, line under line", () => {
    for (const [align, x] of [
      ["left", (one: { from: number }) => one.from],
      ["right", (one: { to: number }) => one.to],
      ["middle", (one: { from: number; to: number }) => one.from + one.to],
    ] as const) {
      const { lines, letters } = set({ align, text: "Harbour\nbun", lineSpacing: 150 });
      for (const line of lines) expect(x(line)).toBeCloseTo(0, 9);
      expect(letters[8].stand.y - letters[0].stand.y).toBeCloseTo(60, 9);
    }
  });
  it("stands upright on an arc through three points, and hangs under one", () => {
    for (const [over, sign] of [
      [60, 1],
      [190, -1],
    ] as const) {
      const points = [
        { x: 50, y: 140 },
        { x: 170, y: over },
        { x: 330, y: 120 },
      ] as const;
      const arc = arcThrough(...points);
      const radius = arc.radius ?? 0;
      expect(Math.sign(radius)).toBe(sign);
      const centre = { x: arc.at.x - arc.along.y * radius, y: arc.at.y + arc.along.x * radius };
      for (const { x, y } of points) expect(lengthOf(x - centre.x, y - centre.y)).toBeCloseTo(Math.abs(radius), 6);
      for (const { stand, paths } of set({ baseline: arc, text: "HHHHH" }).letters) {
        expect(lengthOf(stand.x - centre.x, stand.y - centre.y)).toBeCloseTo(Math.abs(radius), 6);
        // Its top is the cap height farther out, or in.
        const far = paths.flatMap((path) =>
          [...path.keys()].filter((i) => i % 2 === 0).map((i) => lengthOf(path[i] - centre.x, path[i + 1] - centre.y)),
        );
        const reach = sign > 0 ? Math.max(...far) - radius : -radius - Math.min(...far);
        expect(reach).toBeGreaterThan(39);
        expect(reach).toBeLessThan(41.5);
      }
    }
  });
  it("follows a curve, and goes on straight beyond its ends", () => {
    const path = Float64Array.from([0, 100, 60, 20, 140, 20, 200, 100]);
    const { letters } = set({ baseline: { kind: "curve", path, share: 0.5, gap: 3 }, text: "harbour" });
    for (const { stand } of letters) {
      const near = nearestOnPath(path, stand.x, stand.y, 10);
      expect(near?.distance).toBeCloseTo(3, 1);
      expect(stand.y).toBeLessThan(100);
    }
    const long = set({ baseline: { kind: "curve", path, share: 0, gap: 0 }, align: "right", text: "before" });
    expect(long.letters[0].stand.cos).toBeCloseTo(0.6, 2);
  });
  it("has single letters moved, turned and grown, the others as they were", () => {
    const plain = set({ text: "HHHH" });
    const nudged = set({ text: "HHHH", nudges: [{ at: 2, right: 0.5, down: -0.25, angleDeg: 90, scale: 2 }] });
    plain.letters.forEach(({ paths }, k) => {
      if (k !== 2) expect(nudged.letters[k].paths).toEqual(paths);
    });
    const [before, after] = [boundsOfAll(plain.letters[2].paths), boundsOfAll(nudged.letters[2].paths)];
    expect(after.right - after.left).toBeCloseTo(2 * (before.bottom - before.top), 6);
    expect((after.top + after.bottom) / 2 - (before.top + before.bottom) / 2).toBeCloseTo(-10, 6);
  });
});

describe("a line round letters", () => {
  it.each(["round", "sharp"] as const)("keeps its distance, with %s corners", (corners) => {
    const { letters } = set({ text: "R", capHeight: 60 });
    const [ring] = letterLayers(letters, { spotId: "a", outline: { width: 5, spotId: "b", corners }, shadow: null });
    const far: number[] = [];
    for (const path of ring.paths) {
      const points = flattenPath(path, 0.01);
      for (let i = 0; i < points.length; i += 2)
        far.push(
          letters.reduce(
            (least, one) =>
              one.paths.reduce(
                (l, p) => Math.min(l, nearestOnPath(p, points[i], points[i + 1], 20)?.distance ?? 20),
                least,
              ),
            20,
          ),
        );
    }
    expect(Math.min(...far)).toBeGreaterThan(5 - 0.15);
    expect(Math.max(...far)).toBeLessThan(corners === "round" ? 5 + 0.15 : 10.2);
  });
});

const sea = traceRaster(
  renderSvg(
    '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="200"><rect width="400" height="200" fill="#1d6f72"/><rect x="0" y="80" width="400" height="60" fill="#f4ead2"/></svg>',
  ),
).map;
const entry = {
  id: "words",
  kind: "lettering",
  text: "Bäckerei",
  typeface: { id: "oswald-500", name: "Oswald" },
  baseline: { kind: "straight", at: { x: 200, y: 120 }, angleDeg: -4 },
  capPx: 50,
  spotId: "ink",
  outline: { widthPx: 4, spotId: "line" },
  shadow: { dx: 5, dy: 6, spotId: "shade" },
} as const;

describe("lettering in the map", () => {
  const typefaces = { get: (id: string) => [oswald, pacifico].find((one) => one.id === id) ?? null };
  const layIn = (parts: object, factor = 1) => {
    const recipe = scaleRecipe(makeRecipe({ shapes: { entries: [{ ...entry, ...parts }] } }), factor);
    return placeEdits(recipe.shapes.entries, wholeFrame(400 * factor, 200 * factor), 0.25, {
      ...EMPTY_LIBRARY,
      typefaces,
    });
  };
  it.each([{}, { typeface: { id: "pacifico-400", name: "Pacifico" } }])(
    "takes its place, layer over layer %j",
    (parts) => {
      const edits = layIn(parts);
      const { drawing, misfits } = applyEdits(sea, edits);
      expect([...misfits]).toEqual([]);
      expectPlanar(drawing);
      const [{ edit }] = edits;
      const layers = edit.kind === "stack" ? edit.layers : [];
      // Areas as a polygon library has them: what is on top hides what is below.
      for (const [k, { paths, spotId }] of layers.entries()) {
        const above = layers.slice(k + 1).flatMap((one) => one.paths);
        const alone = areasBy(spotPaths(sea, "none"), paths, sea).both;
        const seen =
          above.length === 0
            ? alone
            : areasBy(spotPaths(sea, "none"), [...paths, ...above], sea).both - areasBy([], above, sea).both;
        expect(Math.abs(spotArea(drawing, spotId ?? "") - seen)).toBeLessThan(0.5);
      }
    },
  );
  it("is the same, twice as large, in twice as many pixels", () => {
    const [one, two] = [layIn({}), layIn({}, 2)].map(([{ edit }]) =>
      edit.kind === "stack" ? edit.layers[2].paths : [],
    );
    expect(
      two
        .map((path) => path.map((v) => v / 2))
        .every((path, k) => path.every((v, i) => Math.abs(v - one[k][i]) < 1e-6)),
    ).toBe(true);
  });
  it("shows the garment where it has no spot, and what it cannot do says why", () => {
    const { drawing } = applyEdits(sea, layIn({ spotId: null, outline: null, shadow: null }));
    const before = sea.faces.reduce(
      (sum, { spotId }, i, all) =>
        all.findIndex((f) => f.spotId === spotId) === i ? sum + spotArea(sea, spotId) : sum,
      0,
    );
    const after = drawing.faces.reduce(
      (sum, { spotId }, i, all) =>
        all.findIndex((f) => f.spotId === spotId) === i ? sum + spotArea(drawing, spotId) : sum,
      0,
    );
    expect(before - after).toBeGreaterThan(1000);
    const gone = placeEdits(
      makeRecipe({ shapes: { entries: [entry] } }).shapes.entries,
      wholeFrame(400, 200),
      0.25,
      EMPTY_LIBRARY,
    );
    expect(applyEdits(sea, gone).misfits.get("words")).toContain("is set in Oswald, which is not here");
    expect(applyEdits(sea, layIn({ text: " " })).misfits.get("words")).toContain("no letters");
  });
});
