import { describe, expect, it } from "vitest";
import { silhouetteFor } from "./silhouettes.ts";

describe("the garment that a placement is shown on", () => {
  it.each([
    ["Full front", "front"],
    ["Oversize front", "front"],
    ["Left chest", "left chest"],
    ["Full back", "back"],
    ["Nape", "nape"],
    ["Sleeve", "sleeve"],
    ["Front centre, stones", "front"],
  ])("%s is on the %s", (name, wanted) => {
    expect(silhouetteFor({ name }).name).toBe(wanted);
  });

  it("is a front where nothing is chosen, and every print begins on the garment", () => {
    expect(silhouetteFor(null).name).toBe("front");
    for (const name of ["Sleeve", "Nape", "Back", "Chest", "Front"]) {
      const { box, printAt } = silhouetteFor({ name });
      expect(printAt.x).toBeLessThan(box.x + box.width);
      expect(printAt.y).toBeGreaterThan(0);
    }
  });
});
