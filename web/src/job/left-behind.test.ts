import { makeRecipe } from "@plain-palette/core/recipe";
import { screens } from "@plain-palette/core/screens";
import { beforeEach, describe, expect, it } from "vitest";
import { leaveBehind, takeUpAgain } from "./left-behind.ts";

const kept = new Map<string, string>();
beforeEach(() => {
  kept.clear();
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, text: string) => kept.set(key, text),
      removeItem: (key: string) => kept.delete(key),
    },
  });
});

describe("a recipe that was too large for a closing page", () => {
  const save = { basedOn: 3, recipe: makeRecipe({ processes: { screens: { trapMm: 0.7 } } }) };

  it("waits for its job, and is taken up once", () => {
    leaveBehind("one", save);
    expect(takeUpAgain("other")).toBeNull();
    expect(takeUpAgain("one")).toEqual(save);
    expect(takeUpAgain("one")).toBeNull();
  });

  it("of an earlier form is brought over; what is no recipe is let go", () => {
    const { films, ...separations } = screens.settingsIn(save.recipe);
    const { process: _, processes: __, ...common } = save.recipe;
    const old = { ...save, recipe: { ...common, format: 1, separations, output: films } };
    kept.set("unsaved recipe of one", JSON.stringify(old));
    expect(takeUpAgain("one")).toEqual(save);
    kept.set("unsaved recipe of one", JSON.stringify({ basedOn: 0 }));
    expect(takeUpAgain("one")).toBeNull();
  });
});
