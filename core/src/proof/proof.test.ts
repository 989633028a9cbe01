// A proof says what is seen, and knows what changes it.
import { describe, expect, it } from "vitest";
import { makeRecipe, makeShapeEntry, type Recipe, runPipeline } from "../recipe/index.ts";
import { shopSettingsSchema } from "../shelf/index.ts";
import { drawSvg } from "../testing/pictures.test.support.ts";
import { compareProofs, makeProof, type Proof, proofSchema, seenKey } from "./index.ts";

const artwork = {
  key: "boat",
  raster: drawSvg(
    160,
    '<rect width="160" height="160" fill="#ffffff"/><path d="M80 10L130 100H30Z" fill="#d8412f"/><rect x="20" y="104" width="120" height="30" fill="#14304f"/><rect x="40" y="145" width="80" height="1.2" fill="#14304f"/>',
  ),
};
const FACTS = {
  ...{ shopName: "Quayside Print Room", jobNumber: 7, number: 1, title: "Crew", client: "Ferry", garmentName: null },
  shop: shopSettingsSchema.parse({}),
};
const proofOf = (recipe: Recipe): Proof => proofSchema.parse(makeProof(runPipeline(artwork, recipe), recipe, FACTS));
type Parts = Parameters<typeof makeRecipe>[0];
const base = { artwork: { width: { value: 200, unit: "mm" } } } as const;

describe("a proof", () => {
  it.each([
    ["Left chest", "left chest"],
    ["Sleeve, right", "sleeve"],
    ["Cap front", "cap"],
    ["Apron bib", "apron"],
    ["Tote bag", "bag"],
    ["Full back", "back"],
    ["Somewhere", "front"],
  ])("of a print that goes to %s shows it on a %s", (name, shownOn) => {
    const placement = { name, widthMm: 90, areaWidthMm: 100, areaHeightMm: 100 };
    const proof = proofOf(makeRecipe({ artwork: { ...base.artwork, placement } }));
    expect(proof.placement).toMatchObject({ name, shownOn });
  });
  it("shows ink as shapes, stones as discs and stitches as thread, in the same colours", () => {
    const kinds = (process: string) => [
      ...new Set(proofOf(makeRecipe({ ...base, process })).picture.map(({ kind }) => kind)),
    ];
    expect(kinds("screens")).toEqual(["fill"]);
    expect(kinds("transfer")).toEqual(["fill"]);
    expect(kinds("stitches")).toEqual(["thread"]);
    expect(kinds("stones")).toEqual(["stones"]);
    const hexes = proofOf(makeRecipe({ ...base, process: "stitches" })).picture.map(({ hex }) => hex);
    expect(hexes).toEqual(expect.arrayContaining(["#d8412f", "#14304f"]));
  });
  it("says in the client's words what may not come out, and where", () => {
    const small = proofOf(makeRecipe({ artwork: { width: { value: 40, unit: "mm" } } }));
    const fine = small.remarks.find(({ text }) => text.includes("very fine"));
    // The hairline lies under the hull: 145.6 of 160 pixels down.
    expect(fine?.at?.y).toBeCloseTo((145.6 / 160) * 40, 0);
    expect(small.remarks.map(({ text }) => text).join()).not.toMatch(/dpi|CIEDE|px/);
    const large = proofOf(makeRecipe(base));
    expect(large.remarks.map(({ text }) => text).join()).toContain("small for this size");
  });
});

describe("what the client sees", () => {
  const recipe = makeRecipe(base);
  const key = seenKey(recipe, "a");
  const trap = (mm: number): Parts => ({ ...base, processes: { screens: { trapMm: mm } } });
  const off = makeShapeEntry({ id: "e", isOn: false, kind: "round", at: { x: 1, y: 1 }, spotId: null, diameterMm: 3 });
  it.each<[string, Parts]>([
    ["a trap", trap(0.5)],
    ["an entry that is off", { ...base, shapes: { entries: [off] } }],
    ["a locked spot", { ...base, colours: { decided: { d8412f: { isLocked: true } } } }],
  ])("stays the same with %s", (_, parts) => {
    expect(seenKey(makeRecipe(parts), "a")).toBe(key);
    expect(compareProofs(proofOf(recipe), proofOf(makeRecipe(parts)))).toEqual([]);
  });
  it.each<[string, Parts, RegExp]>([
    ["a colour", { ...base, colours: { decided: { d8412f: { hex: "#00aa55" } } } }, /now #00aa55/],
    ["a name", { ...base, colours: { decided: { d8412f: { name: "Sail" } } } }, /now called Sail/],
    ["the size", { artwork: { width: { value: 190, unit: "mm" } } }, /^Size: 200 mm/],
    ["the garment", { artwork: { ...base.artwork, garment: "#123456" } }, /^Garment/],
    ["how many", { ...base, colours: { pieces: 3 } }, /^Pieces: 50, now 3/],
    ["how it is made", { ...base, process: "stitches" }, /^Made with: Screens/],
    ["the price", { ...base, proof: { price: "£4" } }, /^Price: not shown, now £4/],
    ["where it is", { ...base, proof: { belowMm: 99 } }, /^Where on it/],
    [
      "a shape",
      {
        ...base,
        shapes: {
          entries: [
            makeShapeEntry({
              id: "e",
              kind: "draw",
              figure: { kind: "ellipse", at: { x: 80, y: 60 }, width: 20, height: 20 },
              spotId: null,
            }),
          ],
        },
      },
      /^Shapes/,
    ],
  ])("changes with %s, which is said by name", (_, parts, said) => {
    expect(seenKey(makeRecipe(parts), "a")).not.toBe(key);
    expect(compareProofs(proofOf(recipe), proofOf(makeRecipe(parts))).join("\n")).toMatch(new RegExp(said.source, "m"));
  });
  it("changes with another file of the client", () => {
    expect(seenKey(recipe, "b")).not.toBe(key);
  });
});
