import { describe, expect, it } from "vitest";
import { describeColour, nameChoices, parseHex } from "./index.ts";

// What a person in a shop calls them: common practice, no source.
const CALLED: Readonly<Record<string, readonly string[]>> = {
  Brown: ["#8b4513", "#9a5b26", "#a0522d", "#855c52", "#6d4534", "#70534a"],
  "Dark brown": ["#662113", "#3e2a1b", "#563e37"],
  Peach: ["#f7dece", "#f7cd9b", "#ffd8b8"],
  Tan: ["#e0ac69", "#f1c27d"],
  Orange: ["#ed6c30", "#ff7a00"],
  Red: ["#d8412f", "#dd2e44", "#b71c1c"],
  Gold: ["#f2b134", "#ffcc4d"],
  Cream: ["#f2efe4", "#fff6d8"],
  Navy: ["#14304f", "#1d2a44"],
  White: ["#ffffff"],
  "Ink black": ["#101014", "#14161f"],
};

describe("names of colours", () => {
  it.each(Object.entries(CALLED))("%s", (name, hexes) => {
    for (const hex of hexes) expect([hex, describeColour(parseHex(hex))]).toEqual([hex, name]);
  });

  it("have another word at hand for a second colour of the same name, at every place in the colour solid", () => {
    for (let r = 0; r < 256; r += 15)
      for (let g = 0; g < 256; g += 15)
        for (let b = 0; b < 256; b += 15) {
          const choices = nameChoices([r, g, b]);
          expect(choices.length).toBeGreaterThan(1);
          expect(new Set(choices).size).toBe(choices.length);
        }
  });
});
