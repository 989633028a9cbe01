import * as fc from "fast-check";
import Flatbush from "flatbush";
import { describe, expect, it } from "vitest";
import { backwards, circle, ring } from "../area/area.test.support.ts";
import { closed, findColumns, makeArea, measureLine, type Ring } from "../area/index.ts";
import { diameterOf } from "../trade/index.ts";
import {
  type FillNumbers,
  fillFromEdge,
  fillInRows,
  fillLeft,
  rowsInMiddle,
  rowsInside,
  Setting,
  type Stone,
  setRows,
  strew,
} from "./index.ts";

const GAPS = { gapMm: 0.4, leastMm: 0.3 };
const NUMBERS: FillNumbers = { size: "SS10", spotId: "aa0000", angleDeg: 0, gaps: GAPS };

/** The least gap between any two stones, by an index that is not ours. */
function leastGap(stones: readonly Stone[]): number {
  const index = new Flatbush(stones.length);
  for (const { x, y } of stones) index.add(x, y, x, y);
  index.finish();
  return Math.min(
    ...stones.map(({ x, y, size }, i) => {
      const near = index.neighbors(x, y, 8).filter((k) => k !== i);
      return Math.min(
        ...near.map((k) => {
          const other = stones[k];
          return Math.hypot(other.x - x, other.y - y) - (diameterOf(size) + diameterOf(other.size)) / 2;
        }),
      );
    }),
  );
}

/** Distances from each stone to the next of a row, in the order in which they lie round it. */
function stepsRound(stones: readonly Stone[]): number[] {
  const left = [...stones];
  const order = [left.shift() as Stone];
  while (left.length > 0) {
    const last = order[order.length - 1];
    const away = left.map(({ x, y }) => Math.hypot(x - last.x, y - last.y));
    order.push(...left.splice(away.indexOf(Math.min(...away)), 1));
  }
  return order.map(({ x, y }, i) => {
    const next = order[(i + 1) % order.length];
    return Math.hypot(next.x - x, next.y - y);
  });
}

const variation = (values: readonly number[]) => {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length) / mean;
};

const along = (one: Ring) => [
  { line: measureLine(closed(one)), isClosed: true, size: "SS10" as const, spotId: "aa0000", fixed: [] },
];

describe("stones along an outline", () => {
  it("lie on every corner, and evenly between", () => {
    const setting = new Setting(GAPS.leastMm);
    setRows(along(ring(10, 10, 60, 10, 60, 42, 10, 42)), setting, GAPS);
    for (const [x, y] of [
      [10, 10],
      [60, 10],
      [60, 42],
      [10, 42],
    ])
      expect(Math.min(...setting.stones.map((stone) => Math.hypot(stone.x - x, stone.y - y)))).toBeLessThan(0.05);
    const steps = stepsRound(setting.stones);
    // 50 mm hold sixteen steps of 3.2 mm, 32 mm ten.
    expect(setting.stones).toHaveLength(2 * (16 + 10));
    for (const step of steps) expect(Math.abs(step - 3.2)).toBeLessThan(0.1);
  });
  it("lie evenly round what has no corner", () => {
    const setting = new Setting(GAPS.leastMm);
    setRows(along(circle(30, 30, 14)), setting, GAPS);
    expect(variation(stepsRound(setting.stones))).toBeLessThan(0.01);
    for (const { x, y } of setting.stones) expect(Math.abs(Math.hypot(x - 30, y - 30) - 14)).toBeLessThan(0.02);
  });
  it("touch it from within where they are to lie inside", () => {
    const setting = new Setting(GAPS.leastMm);
    setRows(rowsInside([circle(30, 30, 14, 720)], "aa0000", "SS10"), setting, GAPS);
    for (const { x, y } of setting.stones) expect(Math.abs(Math.hypot(x - 30, y - 30) - (14 - 1.4))).toBeLessThan(0.05);
  });
  it("are left out of corners that are nearer than two stones, and never nearer than the least gap, whatever the outline", () => {
    const star = fc.record({
      arms: fc.integer({ min: 3, max: 9 }),
      inner: fc.double({ min: 1, max: 14, noNaN: true }),
      outer: fc.double({ min: 8, max: 28, noNaN: true }),
      turn: fc.double({ min: 0, max: 3, noNaN: true }),
    });
    fc.assert(
      fc.property(star, ({ arms, inner, outer, turn }) => {
        const outline = Float64Array.from({ length: arms * 4 }, (_, i) => {
          const k = Math.floor(i / 2);
          const [r, a] = [k % 2 === 0 ? outer : inner, turn + (k * Math.PI) / arms];
          return 30 + r * (i % 2 === 0 ? Math.cos(a) : Math.sin(a));
        });
        const setting = new Setting(GAPS.leastMm);
        setRows(along(outline), setting, GAPS);
        expect(setting.stones.length).toBeGreaterThan(2);
        expect(leastGap(setting.stones)).toBeGreaterThan(GAPS.leastMm - 1e-5);
      }),
      { numRuns: 200 },
    );
  });
});

describe("an area filled with stones", () => {
  // The densest there can be: pi / sqrt 12 of the plane (Thue 1910; Fejes Toth 1940), so one stone to pitch squared times sqrt 3 / 2.
  const densest = (areaMm2: number) => areaMm2 / (3.2 ** 2 * (Math.sqrt(3) / 2));
  it.each([
    ["a rectangle of 100 x 60 mm", [ring(0, 0, 100, 0, 100, 60, 0, 60)], 6000],
    ["a disc of 80 mm", [circle(40, 40, 40, 720)], Math.PI * 1600],
  ])("in rows of hexagons holds at least 92 per cent of the densest there can be: %s", (_, rings, areaMm2) => {
    const setting = new Setting(GAPS.leastMm);
    fillInRows(rings, "hexagons", NUMBERS, setting);
    expect(setting.stones.length / densest(areaMm2)).toBeGreaterThan(0.92);
    expect(leastGap(setting.stones)).toBeGreaterThan(0.4 - 1e-5);
  });
  it("following its edge leaves no hole larger than two stones", () => {
    const rings = [circle(40, 40, 30, 360), backwards(circle(46, 38, 9, 120))];
    const setting = new Setting(GAPS.leastMm);
    fillFromEdge(rings, NUMBERS, setting);
    const before = setting.stones.length;
    // Looked for once more, and finer.
    for (let y = 10; y < 70; y += 0.05)
      for (let x = 10; x < 70; x += 0.05) {
        const [far, near] = [Math.hypot(x - 40, y - 40), Math.hypot(x - 46, y - 38)];
        if (far < 30 - 1.4 && near > 9 + 1.4) setting.trySet({ x, y, size: "SS10", spotId: "aa0000", row: -1 });
      }
    expect(setting.stones.length - before).toBeLessThanOrEqual(2);
    expect(leastGap(setting.stones)).toBeGreaterThan(GAPS.leastMm - 1e-5);
  });
  it("takes smaller stones in what larger ones leave", () => {
    const rings = [ring(0, 0, 40, 0, 40, 40, 0, 40)];
    const setting = new Setting(GAPS.leastMm);
    fillInRows(rings, "squares", { ...NUMBERS, size: "SS20" }, setting);
    const large = setting.stones.length;
    fillLeft(rings, { ...NUMBERS, size: "SS6" }, setting);
    expect(setting.stones.slice(large).every(({ size }) => size === "SS6")).toBe(true);
    expect(setting.stones.length - large).toBeGreaterThan(large / 2);
    expect(leastGap(setting.stones)).toBeGreaterThan(GAPS.leastMm - 1e-5);
  });
  it("strewn is as close as the gap at one side, and thins out towards the other", () => {
    const setting = new Setting(GAPS.leastMm);
    strew([ring(0, 0, 90, 0, 90, 60, 0, 60)], NUMBERS, 4, setting);
    const third = (from: number) => setting.stones.filter(({ x }) => x >= from && x < from + 30).length;
    expect(third(0)).toBeGreaterThan(2 * third(30));
    expect(third(30)).toBeGreaterThan(1.3 * third(60));
    expect(leastGap(setting.stones)).toBeGreaterThan(GAPS.leastMm - 1e-5);
  });
});

describe("stones in the middle of strokes", () => {
  const setIn = (...rings: Ring[]) => {
    const area = makeArea(0, "aa0000", rings);
    const columns = findColumns(area.rings, (2 * area.areaMm2) / area.aroundMm);
    const setting = new Setting(GAPS.leastMm);
    setRows(rowsInMiddle(columns, "aa0000", "SS10"), setting, GAPS);
    return setting.stones;
  };
  it("are one row, the first and the last touching the ends from within", () => {
    const stones = setIn(ring(0, 0, 40, 0, 40, 4, 0, 4));
    for (const { y } of stones) expect(Math.abs(y - 2)).toBeLessThan(0.1);
    const xs = stones.map(({ x }) => x);
    expect(Math.abs(Math.min(...xs) - 1.4)).toBeLessThan(0.15);
    expect(Math.abs(Math.max(...xs) - 38.6)).toBeLessThan(0.15);
    expect(stones).toHaveLength(12);
  });
  it("have one in the fork of a T, and rows from there", () => {
    const stones = setIn(ring(0, 0, 30, 0, 30, 4, 17, 4, 17, 30, 13, 30, 13, 4, 0, 4));
    expect(Math.min(...stones.map(({ x, y }) => Math.hypot(x - 15, y - 2)))).toBeLessThan(0.4);
    const stem = stones.filter(({ y }) => y > 3.5).sort((one, other) => one.y - other.y);
    for (const { x } of stem) expect(Math.abs(x - 15)).toBeLessThan(0.15);
    expect(variation(stem.slice(1).map(({ y }, i) => y - stem[i].y))).toBeLessThan(0.08);
    expect(leastGap(stones)).toBeGreaterThan(GAPS.leastMm - 1e-5);
  });
});
