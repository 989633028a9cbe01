import { describe, expect, it } from "vitest";
import { readArguments, UsageError } from "./arguments.ts";

describe("the shell's arguments", () => {
  it("become a recipe; what is not said is the trade's default", () => {
    const plain = readArguments(["a.png", "b.jpg"]);
    expect(plain.files).toEqual(["a.png", "b.jpg"]);
    expect(plain.recipe.colours.count).toBeNull();
    expect(plain.recipe.artwork.width).toEqual({ value: 10.5, unit: "in" });
    const said = readArguments([
      "a.png",
      "--colours",
      "4",
      "--width",
      "90mm",
      "--garment",
      "#0AF",
      "--trap",
      "1pt",
      "--out",
      "x",
    ]);
    expect(said.out).toBe("x");
    expect(said.recipe.colours.count).toBe(4);
    expect(said.recipe.artwork).toMatchObject({ width: { value: 90, unit: "mm" }, garment: "#00aaff" });
    expect(said.recipe.separations.trapMm).toBeCloseTo(25.4 / 72, 9);
  });
  it.each([
    [["a.png", "--colours", "many"], /"auto" or a number/],
    [["a.png", "--width", "1mm"], /between 5 and 2000 mm/],
    [["a.png", "--frobnicate"], /frobnicate/],
    [["a.png", "--trap", "9mm"], /./],
  ])("%j are refused with the reason", (argv, reason) => {
    expect(() => readArguments(argv)).toThrow(UsageError);
    expect(() => readArguments(argv)).toThrow(reason);
  });
});
