import type { Spot } from "@plain-palette/core/reduce";
import { describe, expect, it } from "vitest";
import { fillColours } from "./fill-colours.ts";

const spot = (id: string, rgb: Spot["rgb"], role: Spot["role"] = "ink"): Spot => ({
  id,
  name: id,
  rgb,
  pictureRgb: rgb,
  role,
  isLocked: false,
  areaPx: 1,
  members: [id],
});

describe("colours of shapes on the table", () => {
  it("are those of today's recipe; a shape whose spot is gone keeps its own until new shapes are there", () => {
    const traced = [spot("red", [216, 65, 47]), spot("gold", [242, 177, 52])];
    const now = [spot("red", [150, 20, 20]), spot("white", [255, 255, 255], "garment")];
    expect(Object.fromEntries(fillColours(traced, now, "#1d2a44"))).toEqual({
      red: "#961414",
      gold: "#f2b134",
      white: "#1d2a44",
    });
  });
});
