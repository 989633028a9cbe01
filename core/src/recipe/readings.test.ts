// Readings put away as a browser does, by a structured clone (HTML standard, 2.7), and taken up by another cache: nothing is
// computed again, and what is changed afterwards comes out as from a fresh start.
import { describe, expect, it } from "vitest";
import { allProcesses } from "../processes/index.ts";
import { drawSvg } from "../testing/pictures.test.support.ts";
import {
  makeRecipe,
  makeResultCache,
  nameReadings,
  type Recipe,
  readingsOf,
  runPipeline,
  takeUpReadings,
} from "./index.ts";

const artwork = {
  key: "sails",
  raster: drawSvg(
    180,
    '<rect width="180" height="180" fill="#ffffff"/><circle cx="90" cy="90" r="70" fill="#d8412f"/><path d="M40 50L150 80L90 150Z" fill="#14304f"/><rect x="70" y="70" width="24" height="30" fill="#f2b134"/>',
  ),
};

const recipeFor = (process: string, tolerancePx = 0.4): Recipe => {
  const recipe = makeRecipe({ process, artwork: { garment: "#1d2a44" } });
  return { ...recipe, shapes: { ...recipe.shapes, tolerancePx } };
};

/** A cache as it is after a reload. */
function reopened(recipe: Recipe) {
  const before = makeResultCache();
  runPipeline(artwork, recipe, before);
  const readings = structuredClone(readingsOf(before));
  const cache = makeResultCache();
  takeUpReadings(cache, readings);
  return { cache, readings, before };
}

describe.each(allProcesses().map(({ id }) => id))("readings of a design made with %s", (process) => {
  it("are taken up whole: every step finds what it made", () => {
    const { cache, readings } = reopened(recipeFor(process));
    const { findings, traced, made } = runPipeline(artwork, recipeFor(process), cache);
    expect(findings).toBe(readings.steps.find?.result);
    expect(traced).toBe(readings.steps.trace?.result);
    expect(Object.values(readings.made.get(process) ?? {}).map(({ result }) => result)).toContain(made[0].result);
  });

  it("are gone on from as from a fresh start", () => {
    const { cache } = reopened(recipeFor(process));
    const changed = runPipeline(artwork, recipeFor(process, 1.2), cache);
    const fresh = runPipeline(artwork, recipeFor(process, 1.2));
    expect(changed.map).toEqual(fresh.map);
    expect(changed.made.map(({ result }) => result)).toEqual(fresh.made.map(({ result }) => result));
  });
});

it("are named by what they were made from", () => {
  const { before, readings } = reopened(recipeFor("screens"));
  expect(nameReadings(readings)).toBe(nameReadings(readingsOf(before)));
  runPipeline(artwork, recipeFor("screens", 1.2), before);
  expect(nameReadings(readingsOf(before))).not.toBe(nameReadings(readings));
});
