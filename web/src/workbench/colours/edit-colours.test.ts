import { makeRecipe, recipeSchema } from "@plain-palette/core/recipe";
import { NOTHING, type Spot } from "@plain-palette/core/reduce";
import { describe, expect, it } from "vitest";
import {
  addCorrection,
  mergeSpots,
  removeCorrection,
  resolveTarget,
  type Target,
  unmergeSpot,
} from "./edit-colours.ts";
import { TO_GARMENT } from "./paint-desk.ts";

const pour = (target: Target, recipe = makeRecipe()) =>
  addCorrection(recipe, target, (id, spotId) => ({
    id,
    isOn: true,
    kind: "pour",
    at: { x: 1, y: 1 },
    reach: "area",
    loop: [],
    spotId,
  }));
const divide = (target: Target, recipe = makeRecipe()) =>
  addCorrection(recipe, target, (id, spotId) => ({
    id,
    isOn: true,
    kind: "divide",
    line: [0, 0, 9, 9],
    isFlipped: false,
    spotId,
  }));

describe("areas in the recipe", () => {
  it("a new colour makes one spot, however many areas are poured with it; a line divides off one of its own", () => {
    const first = pour({ hex: "#f2b134" });
    const second = pour({ hex: "#f2b134" }, first.recipe);
    expect(second.spotId).toBe(first.spotId);
    expect(second.recipe.colours.added).toHaveLength(1);
    const third = divide({ hex: "#f2b134" }, second.recipe);
    expect(third.recipe.colours.added).toHaveLength(2);
    expect(new Set(third.recipe.colours.corrections.map(({ id }) => id)).size).toBe(3);
    expect(() => recipeSchema.parse(third.recipe)).not.toThrow();
  });

  it("taking out the last area of a spot that was made for it takes the spot, too", () => {
    const { recipe } = pour({ hex: "#2f5d3a" }, pour({ hex: "#f2b134" }).recipe);
    const [first] = recipe.colours.corrections;
    const left = removeCorrection(recipe, first?.id ?? "none");
    expect(left.colours.added.map(({ hex }) => hex)).toEqual(["#2f5d3a"]);
  });

  it("a merge lowers a number set by hand, and taking it apart raises it again", () => {
    const recipe = makeRecipe({ colours: { count: 5 } });
    const merged = mergeSpots(recipe, "a", "b");
    expect(merged.colours.count).toBe(4);
    expect(unmergeSpot(merged, ["b"]).colours).toEqual(recipe.colours);
  });
});

describe("who areas are given to", () => {
  const spot = (id: string, role: Spot["role"] = "ink"): Spot => ({
    id,
    name: id,
    rgb: [0, 0, 0],
    pictureRgb: [0, 0, 0],
    role,
    isLocked: false,
    areaPx: 1,
    members: [id],
  });
  it("is the chosen spot while it is there; after its pour was undone, a new one again", () => {
    expect(resolveTarget({ target: "new-1", hex: "#f2b134" }, [spot("new-1")], "#ffffff")).toEqual({ spotId: "new-1" });
    expect(resolveTarget({ target: "new-1", hex: "#f2b134" }, [spot("14304f")], "#ffffff")).toEqual({ hex: "#f2b134" });
  });
  it("is the garment, as a spot that shows it, or nothing at all", () => {
    const garment = { target: TO_GARMENT, hex: "#f2b134" };
    expect(resolveTarget(garment, [spot("ffffff", "garment")], "#ffffff")).toEqual({ spotId: "ffffff" });
    const target = resolveTarget(garment, [spot("14304f")], "#1d2a44");
    const { recipe, spotId } = pour(target);
    expect(recipe.colours.added).toEqual([{ id: spotId, hex: "#1d2a44" }]);
    expect(recipe.colours.decided[spotId]).toMatchObject({ role: "garment" });
    expect(resolveTarget({ ...garment, target: NOTHING }, [], "#ffffff")).toEqual({ spotId: NOTHING });
  });
});
