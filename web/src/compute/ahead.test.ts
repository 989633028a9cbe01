// What is computed while the hand rests: there when it is wanted, left when the hand is back.
import { type Artwork, makeRecipe, makeResultCache, runPipeline, runSteps } from "@plain-palette/core/recipe";
import { describe, expect, it } from "vitest";
import { computeAhead } from "./ahead.ts";
import type { ComputeRequest } from "./messages.ts";

/** Flat stripes in five colours. */
function stripes(side: number): Artwork {
  const colours = [0xffffffff, 0xff4f3014, 0xff2f41d8, 0xff31b1f2, 0xff8c7a1f];
  const words = Uint32Array.from({ length: side * side }, (_, i) => colours[Math.floor((i % side) / (side / 5))] ?? 0);
  return { key: `stripes ${side}`, raster: { width: side, height: side, data: new Uint8ClampedArray(words.buffer) } };
}

const recipe = makeRecipe();
const request = { recipe, focusId: null, countsColours: true } as ComputeRequest;
const helpers = { all: [], breathe: async () => {} };

/** The cache as it is when only the picture has been looked at. */
function openedAt(artwork: Artwork) {
  const cache = makeResultCache();
  const steps = runSteps(artwork, recipe, cache);
  steps.next();
  steps.next();
  return cache;
}

describe("while the hand rests", () => {
  it("the shapes are computed, and those of one colour fewer", async () => {
    const artwork = stripes(60);
    const cache = openedAt(artwork);
    await computeAhead({ artwork, request, cache, helpers, isOver: async () => false });
    const traced = cache.kept.trace?.result;
    const [fewer] = cache.kept.trace?.before ?? [];
    expect(runPipeline(artwork, recipe, cache).traced).toBe(traced);
    const { spots } = runPipeline(artwork, recipe, cache).reduction;
    const oneFewer = { ...recipe, colours: { ...recipe.colours, count: spots.length - 1 } };
    expect(runPipeline(artwork, oneFewer, cache).traced).toBe(fewer?.result);
    expect(new Set(fewer?.result.faces.map(({ spotId }) => spotId)).size).toBe(spots.length - 1);
  });

  it("nothing more is as soon as it is back", async () => {
    const artwork = stripes(60);
    const cache = openedAt(artwork);
    let asked = 0;
    await computeAhead({ artwork, request, cache, helpers, isOver: async () => ++asked === 3 });
    expect(Object.keys(cache.kept)).toEqual(["prepare", "find"]);
  });

  it("nothing is of a picture whose steps are long", async () => {
    const artwork = stripes(1740);
    const cache = openedAt(artwork);
    await computeAhead({ artwork, request, cache, helpers, isOver: async () => false });
    expect(Object.keys(cache.kept)).toEqual(["prepare"]);
  });
});
