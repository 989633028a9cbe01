import { type Action, makeRecipe, nextActionId } from "@plain-palette/core/recipe";
import { describe, expect, it } from "vitest";
import { describeAction } from "./action-words.ts";
import { actionsOnTable, EMPTY_DESK, isUnanswered } from "./desk.ts";
import { addAction, changeAction, moveAction, removeAction } from "./edit-actions.ts";
import { dragCrop, levellingTurn } from "./frame-tools.ts";

const turn: Action = { id: "a1", isOn: true, kind: "turn", quarters: 1 };
const crop: Action = { id: "a2", isOn: true, kind: "crop", x: 0, y: 0, width: 9, height: 9 };
const pick: Action = {
  id: "a3",
  isOn: true,
  kind: "pick",
  seeds: [{ x: 1, y: 1 }],
  hex: "#ffffff",
  tolerance: 22,
  reach: "connected",
};
const all: Action = { id: "a4", isOn: true, kind: "silhouette", hex: "#000000" };
const recipe = addAction(makeRecipe(), turn, pick, crop, all);
const ids = (r: typeof recipe) => r.artwork.actions.map(({ id }) => id).join(" ");

describe("the list of what was done", () => {
  it("names the next one as none was named, also after one was taken out", () => {
    expect(nextActionId([])).toBe("a1");
    expect(nextActionId(removeAction(recipe, "a2").artwork.actions)).toBe("a5");
  });

  it("moves entries among their like only", () => {
    expect(ids(moveAction(recipe, "a4", "a3"))).toBe("a1 a4 a3 a2");
    expect(ids(moveAction(recipe, "a2", "a1"))).toBe("a2 a1 a3 a4");
    expect(moveAction(recipe, "a3", "a1")).toBe(recipe);
  });

  it("changing what somebody took out meanwhile changes nothing", () => {
    expect(changeAction(recipe, { ...turn, id: "a9" })).toBe(recipe);
  });

  it("says what each does in print sizes", () => {
    expect(describeAction(crop, 0.5)).toBe("Cropped to 9 × 9 px");
    const stroke: Action = {
      id: "a",
      isOn: true,
      kind: "stroke",
      mode: "erase",
      radiusPx: 4,
      points: [1, 1],
      hex: "#000000",
    };
    expect(describeAction(stroke, 0.5)).toBe("Erased, 4.0 mm across");
  });
});

describe("what the table shows", () => {
  it("is the recipe itself while nothing is tried or edited", () => {
    expect(actionsOnTable(recipe.artwork.actions, EMPTY_DESK)).toBe(recipe.artwork.actions);
  });

  it("while a crop is edited: without it and the upright ones after it, with everything done to the pixels", () => {
    const shown = actionsOnTable(recipe.artwork.actions, { ...EMPTY_DESK, tool: { kind: "crop", id: "a2" } });
    expect(shown.filter(({ isOn }) => isOn).map(({ id }) => id)).toEqual(["a1", "a3", "a4"]);
  });

  it("something tried or found wants an answer; something put away does not", () => {
    expect(isUnanswered(EMPTY_DESK)).toBe(false);
    expect(isUnanswered({ ...EMPTY_DESK, draft: all })).toBe(true);
    expect(isUnanswered({ ...EMPTY_DESK, trim: "none" })).toBe(false);
  });
});

describe("tools", () => {
  it.each([
    [[0, 0, 100, 10], -5.71],
    [[100, 10, 0, 0], -5.71],
    [[0, 0, 10, 100], 5.71],
    [[0, 0, 100, 0], 0],
  ] as const)(
    "a line drawn %j is levelled by %s degrees, whichever end it began at and whether it is to lie or stand",
    (line, angle) => {
      expect(levellingTurn(line)).toBeCloseTo(angle, 2);
    },
  );

  it("a crop stays inside the picture, on whole pixels, and turns over when it is dragged across itself", () => {
    const box = { x: 10, y: 10, width: 30, height: 20 };
    const size = { width: 100, height: 80 };
    const drag = (x: 0 | 0.5 | 1, y: 0 | 0.5 | 1, dx: number, dy: number) =>
      dragCrop({ grip: { x, y }, from: { x: 0, y: 0 }, box }, { x: dx, y: dy }, size);
    expect(drag(0, 0, -50, -3.4)).toEqual({ x: 0, y: 7, width: 40, height: 23 });
    expect(drag(0, 0.5, 50, 0)).toEqual({ x: 40, y: 10, width: 20, height: 20 });
    expect(drag(0.5, 0.5, 500, 500)).toEqual({ x: 70, y: 60, width: 30, height: 20 });
  });
});
