// The bakery's name: found in its typeface, taken away and set again; text after everything before it has changed, and on the
// plates as ghostscript reads them.
import { execFile } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";
import { boundsOfAll, type CubicPath, flattenPath, isInLine } from "@plain-palette/core/geometry";
import { type FoundTypeface, setLettering, tryOn } from "@plain-palette/core/lettering";
import { makeRaster, type Raster } from "@plain-palette/core/raster";
import {
  EMPTY_LIBRARY,
  type LetteringEntry,
  makeRecipe,
  makeResultCache,
  makeShapeEntry,
  type Recipe,
  readRecipe,
  runSteps,
  type ShapeEntry,
  scaleRecipe,
} from "@plain-palette/core/recipe";
import { resultOf } from "@plain-palette/core/steps";
import type { MapFace } from "@plain-palette/core/trace";
import { openTypefaces, type Typeface, type Typefaces } from "@plain-palette/core/typeface";
import { readShippedFiles } from "@plain-palette/server/shipped-typefaces";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { drawBakery } from "../../tools/demo/bakery.ts";
import { readPlates } from "./plates.test.support.ts";

const WIDTH_MM = 150;
const BASE = { colours: { count: 4 }, artwork: { width: { value: WIDTH_MM, unit: "mm" } } } as const;
const FACES = ["zilla-slab-600", "rokkitt-700", "dejavu-serif-700", "libre-baskerville-700", "playfair-display-700"];
const folder = mkdtempSync(join(tmpdir(), "plain-palette-lettering-"));

let file: Buffer;
let old: Raster;
let typefaces: Typefaces;
let proposals: FoundTypeface[] = [];
let entries: ShapeEntry[] = [];
let ink = "";

async function decode(bytes: Buffer, factor = 1): Promise<Raster> {
  const side = Math.round(360 * factor);
  const { data, info } = await sharp(bytes)
    .resize(side, side)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return makeRaster(info.width, info.height, new Uint8ClampedArray(data));
}

function run(recipe: Recipe, raster: Raster) {
  const { kept } = runAll(recipe, raster);
  return { edited: resultOf(kept, "edit"), spots: resultOf(kept, "reduce").spots };
}

function runAll(recipe: Recipe, raster: Raster) {
  const cache = makeResultCache({ ...EMPTY_LIBRARY, typefaces });
  for (const step of runSteps({ key: `${raster.width}`, raster }, recipe, cache))
    if (!["prepare", "find", "reduce", "assign", "read", "trace", "edit"].includes(step.name)) break;
  return cache;
}

/** Dark shapes on the arc of the name, of a picture so many pixels wide. */
function onArc(faces: readonly MapFace[], width: number): MapFace[] {
  const unit = width / 800;
  return faces.filter(({ spotId, paths }) => {
    if (spotId !== ink) return false;
    const { left, top, right, bottom } = boundsOfAll(paths);
    const [x, y] = [(left + right) / 2 / unit - 400, (top + bottom) / 2 / unit - 470];
    const high = Math.max(right - left, bottom - top) / unit;
    return Math.hypot(x, y) > 285 && y < 40 && high > 40;
  });
}

beforeAll(async () => {
  file = await drawBakery();
  old = await decode(file);
  const fonts = await Promise.all(FACES.map(async (id) => ({ id, files: (await readShippedFiles(id)) ?? [] })));
  typefaces = await openTypefaces(fonts);
  const { edited, spots } = run(makeRecipe(BASE), old);
  const light = (rgb: readonly number[]) => rgb.reduce((sum, v) => sum + v, 0);
  ink = spots.toSorted((a, b) => light(a.rgb) - light(b.rgb))[0].id;
  const letters = onArc(edited.drawing.faces, 360);
  const layOn = tryOn(
    letters.flatMap(({ paths }) => paths),
    "HEARTH & RYE",
  );
  const faces = FACES.flatMap((id): Typeface[] => {
    const face = typefaces.get(id);
    return face ? [face] : [];
  });
  proposals = faces.flatMap((face) => layOn?.(face) ?? []).sort((a, b) => b.overlap - a.overlap);
  const { lettering } = proposals[0];
  if (lettering.baseline.kind !== "line") throw new Error("on a curve");
  const { at, along, radius } = lettering.baseline;
  const picks = letters.map(({ paths }) => ({ at: insideOf(paths), spotId: ink }));
  entries = [
    makeShapeEntry({ id: "e1", kind: "pieces", picks, stays: "away" }),
    makeShapeEntry({
      ...{ id: "e2", kind: "lettering", text: "HEARTH & RYE", spotId: ink },
      typeface: { id: "dejavu-serif-700", name: "DejaVu Serif Bold" },
      baseline: { kind: "arc", at, angleDeg: (Math.atan2(along.y, along.x) * 180) / Math.PI, radiusPx: radius ?? 0 },
      capPx: lettering.capHeight,
      letterSpacing: lettering.letterSpacing,
    }),
  ];
}, 60_000);
afterAll(() => rmSync(folder, { recursive: true }));

/** A place in a shape, whatever it looks like. */
function insideOf(paths: readonly CubicPath[]) {
  const { left, top, right, bottom } = boundsOfAll(paths);
  const lines = paths.map((path) => flattenPath(path, 0.05));
  for (let k = 0; k < 2000; k++) {
    const [x, y] = [left + (right - left) * ((k * 0.618034) % 1), top + (bottom - top) * ((k * 0.754878) % 1)];
    if (lines.filter((line) => isInLine(line, x, y)).length % 2 === 1) return { x, y };
  }
  throw new Error("nothing inside");
}

/** Boxes of the name's letters on the garment, mm, from left to right. */
function boxes(recipe: Recipe, raster: Raster) {
  const { edited } = run(recipe, raster);
  expect([...edited.misfits]).toEqual([]);
  const mm = WIDTH_MM / raster.width;
  return onArc(edited.drawing.faces, raster.width)
    .map(({ paths }) => boundsOfAll(paths))
    .map(({ left, top, right, bottom }) => [left * mm, top * mm, right * mm, bottom * mm])
    .sort((a, b) => a[0] - b[0]);
}

describe("the bakery's name", () => {
  it("is found in the typeface that it is drawn in, and covered by it", () => {
    expect(proposals[0].id).toBe("dejavu-serif-700");
    expect(proposals[0].overlap).toBeGreaterThan(0.88);
    expect(proposals[0].overlap).toBeGreaterThan(proposals[1].overlap + 0.1);
    // As it was drawn: 84 units high, an arc of a radius of 290, spaced by 8 (tools/demo/bakery.ts); 0.45 px to a unit.
    const { capHeight, baseline, widthPercent } = proposals[0].lettering;
    expect(capHeight / 0.45).toBeCloseTo(84 * 0.729, -0.5);
    expect(baseline.kind === "line" && baseline.radius ? baseline.radius / 0.45 : 0).toBeCloseTo(290, -1);
    expect(Math.abs(widthPercent - 100)).toBeLessThan(4);
  });

  it("stays text in its place: kept and read, at other tolerances, from a better file", async () => {
    const recipe = makeRecipe({ ...BASE, shapes: { entries } });
    const before = boxes(recipe, old);
    expect(before).toHaveLength(10);
    const expectSame = (after: number[][]) => {
      expect(after).toHaveLength(before.length);
      after.forEach((box, k) => {
        for (const [side, v] of box.entries()) expect(Math.abs(v - before[k][side])).toBeLessThan(0.1);
      });
    };
    expectSame(boxes(readRecipe(JSON.parse(JSON.stringify(recipe))), old));
    for (const tolerancePx of [0.1, 1])
      expectSame(boxes(makeRecipe({ ...BASE, shapes: { entries, tolerancePx } }), old));
    expectSame(boxes(scaleRecipe(recipe, 2), await decode(file, 2)));
    const kept = readRecipe(JSON.parse(JSON.stringify(recipe))).shapes.entries[1];
    expect(kept).toMatchObject({ kind: "lettering", text: "HEARTH & RYE" });
  });

  it("is what films show after it was changed to another word: ink in the new letters, none in the old", async () => {
    const line = entries[1] as LetteringEntry;
    const recipe = makeRecipe({ ...BASE, shapes: { entries: [entries[0], { ...line, text: "MILL" }] } });
    const [art, kept] = [join(folder, "art.jpg"), join(folder, "recipe.json")];
    writeFileSync(art, file);
    writeFileSync(kept, JSON.stringify(recipe));
    await promisify(execFile)("npx", ["tsx", "cli/src/main.ts", art, "--recipe", kept, "--out", folder], {
      cwd: new URL("../..", import.meta.url).pathname,
    });
    const { spots } = await readPlates(join(folder, "art", "separations.pdf"), 150, folder);
    const dark =
      [...spots].find(([name]) => /brown|black/i.test(name) && name.toLowerCase().includes("dark"))?.[1] ??
      [...spots.values()][0];
    const inkAt = ({ x, y }: { x: number; y: number }) =>
      dark.data[Math.round((y / 360) * dark.height) * dark.width + Math.round((x / 360) * dark.width)];
    const { baseline } = proposals[0].lettering;
    const face = typefaces.get("dejavu-serif-700");
    if (!face) throw new Error("not open");
    const set = (text: string) =>
      setLettering({ ...proposals[0].lettering, baseline, text }, face).letters.filter(({ paths }) => paths.length > 0);
    for (const { paths } of set("MILL")) expect(inkAt(insideOf(paths))).toBeLessThan(60);
    // The first and the last letters of the old name are far from the new word.
    const was = set("HEARTH & RYE");
    for (const { paths } of [was[0], was[1], was[8], was[9]]) expect(inkAt(insideOf(paths))).toBeGreaterThan(200);
  }, 60_000);
});
