import { screens } from "@plain-palette/core/screens";
import { describe, expect, it } from "vitest";
import { readArguments } from "./arguments.ts";

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
    expect(screens.settingsIn(said.recipe).trapMm).toBeCloseTo(25.4 / 72, 9);
  });
  it.each([
    [["--width", "wide"], '--width takes 5 to 2000 mm (0.197 in to 78.74 in), not "wide"'],
    [["--width", "0"], '--width takes 5 to 2000 mm (0.197 in to 78.74 in), not "0"'],
    [["--width", "-5in"], '--width takes 5 to 2000 mm (0.197 in to 78.74 in), not "-5in"'],
    [["--trap", "99mm"], '--trap takes 0 to 3 mm, not "99mm"'],
    [["--tolerance", "nope"], '--tolerance takes 0.02 to 5 px, not "nope"'],
    [["--colours", "0"], '--colours takes auto or 1 to 96, not "0"'],
    [["--garment", "teal"], '--garment takes a colour as #rrggbb, not "teal"'],
    [["--background", "off"], '--background takes away or keep, not "off"'],
    [
      ["--recipe", "/none/r.json"],
      "--recipe takes a recipe.json as the Output step gives it out; /none/r.json does not exist",
    ],
    [["--frobnicate"], "Unknown option '--frobnicate'"],
  ])("%j is refused: the option, what was given, what is allowed", (argv, message) => {
    expect(() => readArguments([...argv, "a.png"])).toThrow(message);
  });
});
