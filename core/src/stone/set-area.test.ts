import { describe, expect, it } from "vitest";
import { listAreas } from "../area/index.ts";
import type { Rgb } from "../colour/index.ts";
import { paint, traceRaster } from "../testing/pictures.test.support.ts";
import { measureAreas, type SetNumbers, type Stone, setAreas } from "./index.ts";

const WHITE: Rgb = [255, 255, 255];
const NAVY: Rgb = [20, 48, 79];
const GOLD: Rgb = [242, 177, 52];
const RULES = { gaps: { gapMm: 0.4, leastMm: 0.3 }, overShare: 0.5 };
const NUMBERS: SetNumbers = {
  ...{ as: "outline", size: "SS10", pattern: "hexagons", angleDeg: 0, isMixed: false, isInside: false, thinning: 3 },
};

/** A picture of 120 x 80 px, a millimetre to the pixel, set as `numbersOf` says by spot; white is the garment. */
function set(
  colour: (x: number, y: number) => Rgb,
  numbersOf: (spotId: string) => Partial<SetNumbers>,
): readonly Stone[] {
  const { map, reduction } = traceRaster(paint(120, 80, colour));
  const spots = reduction.spots.map((spot) => (spot.id === "ffffff" ? { ...spot, role: "garment" as const } : spot));
  const areas = measureAreas(listAreas({ map, spots, widthMm: 120 }), { map, widthMm: 120 }, RULES);
  const chosen = areas.map((area) => ({ ...area, numbers: { ...NUMBERS, ...numbersOf(area.spotId) } }));
  return setAreas(chosen, map, 120, RULES).stones;
}

const within = (stones: readonly Stone[], left: number, top: number, right: number, bottom: number) =>
  stones.filter(({ x, y }) => x >= left && x <= right && y >= top && y <= bottom);

describe("areas set with stones", () => {
  it("that share an edge have one row on it, and not two", () => {
    const stones = set(
      (x, y) => (y < 20 || y >= 60 || x < 20 || x >= 100 ? WHITE : x < 60 ? NAVY : GOLD),
      () => ({}),
    );
    const shared = within(stones, 58, 18, 62, 62).sort((one, other) => one.y - other.y);
    for (const { x } of shared) expect(Math.abs(x - 60)).toBeLessThan(0.3);
    // 40 mm from corner to corner hold twelve or thirteen steps of 3.2 mm.
    expect([13, 14]).toContain(shared.length);
    expect(new Set(shared.map(({ spotId }) => spotId)).size).toBe(1);
  });
  it("have no row round what is set in its middle", () => {
    const bar = (x: number, y: number) => x >= 30 && x < 90 && y >= 38 && y < 42;
    const stones = set(
      (x, y) => (y < 10 || y >= 70 || x < 10 || x >= 110 ? WHITE : bar(x, y) ? GOLD : NAVY),
      (spotId) => (spotId === "f2b134" ? { as: "middle" } : {}),
    );
    const near = within(stones, 20, 30, 100, 50);
    expect(near.length).toBeGreaterThan(15);
    for (const { y } of near) expect(Math.abs(y - 40)).toBeLessThan(0.4);
  });
  it("have no row round a hole that a stone would close, and one round a larger", () => {
    const holed = (side: number) =>
      set(
        (x, y) =>
          x < 10 || x >= 110 || y < 10 || y >= 70 || (Math.abs(x - 60) < side / 2 && Math.abs(y - 40) < side / 2)
            ? WHITE
            : NAVY,
        () => ({}),
      );
    expect(within(holed(3), 40, 25, 80, 55)).toHaveLength(0);
    expect(within(holed(14), 40, 25, 80, 55).length).toBeGreaterThan(12);
  });
  it("are proposed by their width: a thin bar in one row, a small field filled, a large one outlined", () => {
    const { map, reduction } = traceRaster(
      paint(120, 80, (x, y) => {
        if (x >= 10 && x < 60 && y >= 10 && y < 14) return NAVY;
        if (x >= 80 && x < 96 && y >= 10 && y < 26) return NAVY;
        return x >= 10 && x < 110 && y >= 36 && y < 76 ? GOLD : WHITE;
      }),
    );
    const spots = reduction.spots.map((spot) => (spot.id === "ffffff" ? { ...spot, role: "garment" as const } : spot));
    const areas = measureAreas(listAreas({ map, spots, widthMm: 120 }), { map, widthMm: 120 }, RULES);
    const proposed = [...areas].sort((one, other) => one.areaMm2 - other.areaMm2).map(({ proposedAs }) => proposedAs);
    expect(proposed).toEqual(["middle", "fill", "outline"]);
  });
});
