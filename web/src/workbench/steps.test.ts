import { JOB_STEPS } from "@plain-palette/contract";
import { makeRecipe, type Recipe } from "@plain-palette/core/recipe";
import { screens } from "@plain-palette/core/screens";
import { describe, expect, it } from "vitest";
import type { Computed } from "../compute/use-compute.ts";
import { ticketSteps } from "./steps.ts";

const NOTHING = { reduced: null, traced: null, made: null } as Computed;
const spot = (role: string) => ({ role });

describe("the ticket", () => {
  const size = { width: 1575, height: 800 };
  const lines = (recipe: Recipe, computed: Computed) =>
    Object.fromEntries(ticketSteps(recipe).map(({ id, summarise }) => [id, summarise({ recipe, computed, size })]));

  it("lists every step once, in the order of work, the process's own under its own name", () => {
    const steps = ticketSteps(makeRecipe());
    expect(steps.map(({ id }) => id)).toEqual([...JOB_STEPS]);
    expect(steps.map(({ title }) => title)).toEqual(["Artwork", "Colours", "Shapes", screens.title, "Output", "Proof"]);
  });

  it("says what is known before anything is computed", () => {
    expect(lines(makeRecipe(), NOTHING)).toMatchObject({
      artwork: "10.5 in wide, 150 dpi",
      colours: "not looked at yet",
      shapes: "not traced yet",
      make: "trap 0.3 mm",
      output: "films, right-reading",
    });
    const mirrored = makeRecipe({
      processes: { screens: { films: { isMirrored: true } } },
      artwork: { width: { value: 40, unit: "cm" } },
    });
    expect(lines(mirrored, NOTHING)).toMatchObject({ artwork: "40 cm wide, 100 dpi", output: "films, mirrored" });
  });

  it("counts colours, inks, shapes, nodes and plates, one of each as one", () => {
    const computed = (n: number) =>
      ({
        reduced: { spots: [spot("garment"), ...Array.from({ length: n }, () => spot("ink"))] },
        traced: { counts: { shapes: n, nodes: 4 * n } },
        made: [{ process: "screens", result: { plates: Array.from({ length: n }) } }],
      }) as unknown as Computed;
    expect(lines(makeRecipe(), computed(1))).toMatchObject({
      colours: "2 colours, 1 ink",
      shapes: "1 shape, 4 nodes",
      make: "1 plate, trap 0.3 mm",
    });
    expect(lines(makeRecipe(), computed(6))).toMatchObject({
      colours: "7 colours, 6 inks",
      shapes: "6 shapes, 24 nodes",
      make: "6 plates, trap 0.3 mm",
    });
  });
});
