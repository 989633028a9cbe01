import { describe, expect, it } from "vitest";
import type { Rgb } from "../colour/index.ts";
import { paint, traceRaster } from "../testing/pictures.test.support.ts";
import { ring } from "./area.test.support.ts";
import { findWords, listAreas, makeArea, makeLetterAround } from "./index.ts";

const letter = (x: number, y: number, high: number, widthMm = 2, spotId = "aa0000") => ({
  ...makeArea(0, spotId, [ring(x, y, x + widthMm, y, x + widthMm, y + high, x, y + high)]),
  widthMm,
});

describe("letters of a word", () => {
  it("hang together over gaps no wider than they are high, in one spot, of one height and weight", () => {
    const areas = [
      ...[letter(0, 0, 10), letter(8, 0, 10), letter(16, 2, 8)],
      // Beyond the gap; another spot between; much higher; much bolder.
      ...[letter(60, 0, 10), letter(12, 0, 10, 2, "0000aa"), letter(20, 0, 40), letter(4, 0, 10, 5)],
    ];
    const words = findWords(areas);
    expect(words.slice(0, 3)).toEqual([words[0], words[0], words[0]]);
    expect(new Set(words).size).toBe(5);
  });
  it("may be thick and thin where weight decides little", () => {
    const areas = [letter(0, 0, 10, 1.4), letter(6, 0, 10, 3)];
    expect(new Set(findWords(areas)).size).toBe(2);
    expect(new Set(findWords(areas, 3)).size).toBe(1);
  });
});

describe("the inside of a letter", () => {
  const [PAPER, INK]: Rgb[] = [
    [255, 255, 255],
    [20, 48, 79],
  ];
  // An O of 30 px with a hole of 14, and a field of 100 x 90 px with a hole as large.
  const { map, reduction } = traceRaster(
    paint(200, 120, (x, y) => {
      const [far, near] = [Math.max(Math.abs(x - 30), Math.abs(y - 60)), Math.max(Math.abs(x - 120), Math.abs(y - 60))];
      if (far < 15) return far < 7 ? PAPER : INK;
      return near < 45 ? (near < 7 ? PAPER : INK) : PAPER;
    }),
  );
  const spots = reduction.spots.map((spot) => ({ ...spot, role: "ink" as const }));
  const areas = listAreas({ map, spots, widthMm: 200 });
  const at = (x: number, small: boolean) =>
    areas.find(({ rings: [outline], areaMm2 }) => {
      const xs = outline.filter((_, i) => i % 2 === 0);
      return areaMm2 < 400 === small && Math.min(...xs) < x && Math.max(...xs) > x;
    });
  it("has the letter for its only neighbour, and is not much lower than it", () => {
    const around = makeLetterAround(map, 1);
    const [counter, hole] = [at(30, true), at(120, true)];
    const own = areas.find(({ areaMm2 }) => Math.abs(areaMm2 - (30 * 30 - 14 * 14)) < 90);
    expect(own).toBeDefined();
    expect(around(counter?.face ?? -1, 14)).toBe(own?.face);
    expect(around(hole?.face ?? -1, 14)).toBe(-1);
  });
});
