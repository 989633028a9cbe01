import { makeRecipe } from "@plain-palette/core/recipe";
import { describe, expect, it } from "vitest";
import type { Computed } from "../compute/use-compute.ts";
import { summariseSteps } from "./summaries.ts";

const NOTHING = { reduced: null, traced: null, separation: null } as Computed;
const spot = (role: string) => ({ role });

describe("the ticket's lines", () => {
  const size = { width: 1575, height: 800 };

  it("say what is known before anything is computed", () => {
    const lines = summariseSteps(size, makeRecipe(), NOTHING);
    expect(lines).toMatchObject({
      artwork: "10.5 in wide, 150 dpi",
      colours: "not looked at yet",
      shapes: "not traced yet",
      output: "films, right-reading",
    });
    const mirrored = makeRecipe({
      processes: { screens: { films: { isMirrored: true } } },
      artwork: { width: { value: 40, unit: "cm" } },
    });
    expect(summariseSteps(size, mirrored, NOTHING)).toMatchObject({
      artwork: "40 cm wide, 100 dpi",
      output: "films, mirrored",
    });
  });

  it("count colours, inks, shapes, nodes and plates, one of each as one", () => {
    const computed = (n: number) =>
      ({
        reduced: { spots: [spot("garment"), ...Array.from({ length: n }, () => spot("ink"))] },
        traced: { counts: { shapes: n, nodes: 4 * n } },
        separation: { plates: Array.from({ length: n }) },
      }) as unknown as Computed;
    expect(summariseSteps(size, makeRecipe(), computed(1))).toMatchObject({
      colours: "2 colours, 1 ink",
      shapes: "1 shape, 4 nodes",
      separations: "1 plate, trap 0.3 mm",
    });
    expect(summariseSteps(size, makeRecipe(), computed(6))).toMatchObject({
      colours: "7 colours, 6 inks",
      shapes: "6 shapes, 24 nodes",
      separations: "6 plates, trap 0.3 mm",
    });
  });
});
