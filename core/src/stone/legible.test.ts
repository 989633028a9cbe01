import { describe, expect, it } from "vitest";
import { backwards, ring } from "../area/area.test.support.ts";
import { findColumns, makeArea, type Ring } from "../area/index.ts";
import { diameterOf } from "../trade/index.ts";
import { largestThatReads, sizeForAll } from "./index.ts";

const RULES = { gaps: { gapMm: 0.4, leastMm: 0.3 }, overShare: 0.5 };
const columnsOf = (...rings: Ring[]) => {
  const area = makeArea(0, "aa0000", rings);
  return findColumns(area.rings, (2 * area.areaMm2) / area.aroundMm);
};

describe("the largest stone with which a stroke reads", () => {
  /** An H of two posts whose middles lie so far apart, strokes of 3 mm, a bar between. */
  const letterH = (apart: number) =>
    columnsOf(
      ring(
        ...[0, 0, 3, 0, 3, 11, apart, 11, apart, 0, apart + 3, 0],
        ...[apart + 3, 25, apart, 25, apart, 14, 3, 14, 3, 25, 0, 25],
      ),
    );
  it("is as wide as the strokes allow where they lie far apart", () => {
    const size = largestThatReads(letterH(25), RULES);
    expect(size && diameterOf(size)).toBeGreaterThan(2.7);
    expect(size && diameterOf(size)).toBeLessThanOrEqual(4.5);
  });
  it("is smaller where strokes run side by side: rows a stone and a gap apart", () => {
    // A frame drawn flat: its long sides are 3.4 mm apart, from middle to middle.
    const flat = columnsOf(ring(0, 0, 60, 0, 60, 5.4, 0, 5.4), backwards(ring(2, 2, 58, 2, 58, 3.4, 2, 3.4)));
    const size = largestThatReads(flat, RULES);
    expect(size && diameterOf(size)).toBeLessThanOrEqual(3.4 - 0.3);
    expect(size).not.toBeNull();
  });
  it("is none where even the smallest runs together", () => {
    const tiny = columnsOf(ring(0, 0, 6, 0, 6, 1, 0, 1));
    expect(largestThatReads(tiny, RULES)).toBeNull();
  });
});

describe("one size for a job", () => {
  const stroke = (largest: "SS6" | "SS10" | "SS20" | null, lengthMm: number) => ({ largest, lengthMm });
  it("is the largest that nearly all of it reads with", () => {
    expect(sizeForAll([stroke("SS20", 90), stroke("SS10", 10)], 0.9)).toBe("SS20");
    expect(sizeForAll([stroke("SS20", 80), stroke("SS10", 20)], 0.9)).toBe("SS10");
    expect(sizeForAll([stroke("SS6", 50), stroke(null, 50)], 0.9)).toBeNull();
    expect(sizeForAll([], 0.9)).toBeNull();
  });
});
