// A motif's colours in a job: matched, added, and gone with the last that used them.
import type { Motif } from "@plain-palette/core/motif";
import { makeRecipe } from "@plain-palette/core/recipe";
import { describe, expect, it } from "vitest";
import { jobSpot, placeMotif, removeMotif, takeOver } from "./place-motif.ts";

const square = [0, 0, 0, 0, 0, 9, 0, 9, 0, 9, 9, 9, 9, 9, 9, 9, 9, 0, 9, 0, 9, 0, 0, 0, 0, 0];
const motif = (...hexes: string[]): Motif => ({
  ...{ format: 1, widthMm: 9, heightMm: 9 },
  spots: hexes.map((hex) => ({ name: `N${hex}`, hex, stock: null, shapes: [[square]] })),
});
const listed = { hash: "a".repeat(64), name: "Buoy" };
const where = { places: [{ at: { x: 5, y: 5 }, widthPx: 30, angleDeg: 0, isFlipped: false }] };
const recipe = makeRecipe();
const navy = jobSpot({ id: "14304f", rgb: [20, 48, 79] }, recipe);

describe("a motif that is placed in a job", () => {
  it("takes the job's spots for what is the same ink, and brings what is not there", () => {
    const placed = placeMotif(recipe, { listed, content: motif("#14304f", "#00aa55") }, [navy], where);
    expect(placed.entry.spots).toEqual(["14304f", "new-1"]);
    expect(placed.recipe.colours.added).toEqual([{ id: "new-1", hex: "#00aa55" }]);
    expect(placed.recipe.colours.decided["new-1"]).toMatchObject({ name: "N#00aa55" });
    const again = placeMotif(placed.recipe, { listed, content: motif("#ff00ff") }, [navy], where);
    expect(again.entry.spots).toEqual(["new-2"]);
    const without = removeMotif(again.recipe, placed.entry.id);
    expect(without.colours.added.map(({ id }) => id)).toEqual(["new-2"]);
  });
  it("keeps its colours, and its scale, when a newer version is taken over", () => {
    const before = motif("#14304f", "#00aa55");
    const placed = placeMotif(recipe, { listed, content: before }, [navy], where);
    const content = { ...motif("#00aa55", "#112233"), widthMm: 18 };
    const next = { listed: { hash: "b".repeat(64), name: "Buoy" }, content };
    const { entry, recipe: after } = takeOver(placed.recipe, placed.entry, before, next, [navy]);
    expect(entry).toMatchObject({
      motif: { hash: next.listed.hash },
      spots: ["new-1", "new-2"],
      places: [{ widthPx: 60 }],
    });
    expect(after.colours.added.map(({ hex }) => hex)).toEqual(["#00aa55", "#112233"]);
  });
});
