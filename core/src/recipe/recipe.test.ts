import { describe, expect, it } from "vitest";
import { layShapes, writeSeparationsPdf, writeShapesSvg } from "../formats/index.ts";
import { drawSvg } from "../testing/pictures.test.support.ts";
import { makeRecipe, makeReport, makeResultCache, recipeSchema, runPipeline, runSteps } from "./index.ts";

const raster = drawSvg(
  128,
  '<circle cx="60" cy="64" r="44" fill="#d8412f"/><rect x="50" y="50" width="60" height="20" fill="#14304f"/>',
);
const artwork = { key: "a", raster };
const recipe = makeRecipe({ artwork: { garment: "#1d2a44" } });

describe("artwork and recipe give every result", () => {
  it("byte for byte the same, however often", async () => {
    const date = new Date("2026-11-25T00:00:00Z");
    const [one, other] = [runPipeline(artwork, recipe), runPipeline(artwork, recipe)];
    expect(writeShapesSvg(layShapes(one.map, one.reduction.spots, 1))).toBe(
      writeShapesSvg(layShapes(other.map, other.reduction.spots, 1)),
    );
    expect(await writeSeparationsPdf(one.separation, date)).toEqual(await writeSeparationsPdf(other.separation, date));
  });

  it("a change redoes its step and those after it, nothing before", () => {
    const cache = makeResultCache();
    const before = runPipeline(artwork, recipe, cache);
    const trapped = runPipeline(artwork, { ...recipe, separations: { ...recipe.separations, trapMm: 1 } }, cache);
    expect(trapped.map).toBe(before.map);
    expect(trapped.separation).not.toBe(before.separation);
    const renamed = runPipeline(
      artwork,
      { ...recipe, colours: { ...recipe.colours, spots: { d8412f: { name: "Brick" } } } },
      cache,
    );
    expect(renamed.map).toBe(before.map);
    expect(renamed.separation.plates.map((plate) => plate.name)).toContain("Brick");
    const retraced = runPipeline(artwork, { ...recipe, shapes: { ...recipe.shapes, tolerancePx: 1 } }, cache);
    expect(retraced.findings).toBe(before.findings);
    expect(retraced.map).not.toBe(before.map);
  });

  it("a new tolerance does not read the boundaries again, and gives what a fresh start gives", () => {
    const cache = makeResultCache();
    const withTolerance = (tolerancePx: number) => ({ ...recipe, shapes: { ...recipe.shapes, tolerancePx } });
    runPipeline(artwork, withTolerance(0.2), cache);
    const boundaries = cache.kept.get("boundaries")?.result;
    for (const tolerancePx of [0.5, 0.1, 0.2]) {
      const after = runPipeline(artwork, withTolerance(tolerancePx), cache);
      expect(cache.kept.get("boundaries")?.result).toBe(boundaries);
      expect(after.map).toEqual(runPipeline(artwork, withTolerance(tolerancePx)).map);
    }
    runPipeline(artwork, { ...recipe, shapes: { ...recipe.shapes, cornerDeg: 50 } }, cache);
    expect(cache.kept.get("boundaries")?.result).not.toBe(boundaries);
  });

  it("moving a plate, renaming a spot or switching the base does not spread the traps again", () => {
    const cache = makeResultCache();
    const before = runPipeline(artwork, recipe, cache);
    const region = (results: typeof before, id: string) => results.separation.plates.find((p) => p.id === id)?.region;
    const { separations, colours } = recipe;
    const moved = { ...recipe, separations: { ...separations, order: ["14304f", "d8412f"] } };
    const renamed = { ...moved, colours: { ...colours, spots: { d8412f: { name: "Brick" } } } };
    const bare = {
      ...renamed,
      separations: { ...moved.separations, base: { ...separations.base, mode: "off" as const } },
    };
    for (const changed of [moved, renamed, bare]) {
      const after = runPipeline(artwork, changed, cache);
      expect(region(after, "d8412f")).toBe(region(before, "d8412f"));
      // What is kept must be what a fresh start gives.
      expect(after.separation).toEqual(runPipeline(artwork, changed).separation);
    }
    const spread = { ...bare, separations: { ...bare.separations, trapMm: 1 } };
    expect(region(runPipeline(artwork, spread, cache), "d8412f")).not.toBe(region(before, "d8412f"));
  });

  it("tells each step before it is computed", () => {
    const steps = [...runSteps(artwork, recipe, makeResultCache())];
    expect(steps).toEqual(["prepare", "find", "reduce", "assign", "trace", "simplify", "separate"]);
  });
});

describe("the recipe's schema", () => {
  it("fills an empty recipe with the trade's defaults", () => {
    const { artwork: art, separations, shapes } = makeRecipe();
    expect(art.width).toEqual({ value: 10.5, unit: "in" });
    expect([separations.trapMm, separations.base.chokeMm, shapes.specksPx]).toEqual([0.3, 0.35, 2]);
  });
  it.each([
    { artwork: { width: { value: 3, unit: "mm" } } },
    { artwork: { garment: "navy" } },
    { separations: { trapMm: -1 } },
    { colours: { count: 0 } },
  ])("refuses %j", (parts) => {
    expect(recipeSchema.safeParse(parts).success).toBe(false);
  });
});

describe("the report", () => {
  it("states coverage per spot that adds up to the picture, and warns of low resolution", () => {
    const results = runPipeline(artwork, recipe);
    const report = makeReport(recipe, results, {});
    expect(report.spots.reduce((sum, spot) => sum + spot.coverage, 0)).toBeCloseTo(1, 3);
    expect(report.warnings.join()).toContain("12 dpi");
    expect(report.plates[0]).toMatchObject({ name: "Underbase", kind: "base", order: 1 });
  });
});
