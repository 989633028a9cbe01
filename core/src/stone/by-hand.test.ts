import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { circle, ring } from "../area/area.test.support.ts";
import { measureLine } from "../area/index.ts";
import { diameterOf, STONE_SIZES } from "../trade/index.ts";
import { applyByHand, stoneAt } from "./by-hand.ts";
import { fillInRows, type HandEntry, measureGaps, Setting, type Stone, setRows } from "./index.ts";

const GAPS = { gapMm: 0.4, leastMm: 0.3 };
const asIs = (place: { x: number; y: number }) => place;

/** A filled disc and a ring round it. */
function disc(): Setting {
  const setting = new Setting(GAPS.leastMm);
  const outline = circle(40, 40, 24, 360);
  const line = measureLine([...outline, outline[0], outline[1]]);
  setRows([{ line, isClosed: true, size: "SS10", spotId: "aa0000", fixed: [] }], setting, GAPS);
  fillInRows(
    [circle(40, 40, 20, 180)],
    "hexagons",
    { size: "SS6", spotId: "0000aa", angleDeg: 0, gaps: GAPS },
    setting,
  );
  return setting;
}

const leastGap = (stones: readonly Stone[]) =>
  stones.reduce(
    (least, one, i) =>
      stones.slice(i + 1).reduce((own, other) => {
        const between = Math.hypot(one.x - other.x, one.y - other.y);
        return Math.min(own, between - (diameterOf(one.size) + diameterOf(other.size)) / 2);
      }, least),
    Number.POSITIVE_INFINITY,
  );

describe("whatever is done by hand", () => {
  const place = fc.record({
    x: fc.double({ min: 12, max: 68, noNaN: true }),
    y: fc.double({ min: 12, max: 68, noNaN: true }),
  });
  const size = fc.constantFrom(...STONE_SIZES);
  const deed = fc.oneof(
    fc.record({ kind: fc.constant("move" as const), at: place, to: place, givesWay: fc.boolean() }),
    fc.record({
      kind: fc.constant("add" as const),
      at: place,
      size,
      spotId: fc.constant("00aa00"),
      givesWay: fc.boolean(),
    }),
    fc.record({ kind: fc.constant("take" as const), at: place }),
    fc.record({ kind: fc.constant("change" as const), at: place, size }),
    fc.record({ kind: fc.constant("shift" as const), at: place, halfGaps: fc.integer({ min: -6, max: 6 }) }),
    fc.record({ kind: fc.constant("spread" as const), at: place, to: place }),
  );
  it("no two stones come nearer than the least gap, and none is lost but what was taken", () => {
    fc.assert(
      fc.property(fc.array(deed, { minLength: 1, maxLength: 8 }), (deeds) => {
        const setting = disc();
        const before = setting.stones.length;
        const entries = deeds.map((one, i) => ({ ...one, id: `stone-${i + 1}`, isOn: true })) as HandEntry[];
        const missed = new Set(applyByHand(setting, entries, GAPS.gapMm, asIs).map(({ id }) => id));
        const done = entries.filter(({ id }) => !missed.has(id));
        const count = (kind: string) => done.filter((one) => one.kind === kind).length;
        expect(setting.stones).toHaveLength(before + count("add") - count("take"));
        expect(leastGap(setting.stones)).toBeGreaterThan(GAPS.leastMm - 1e-5);
      }),
      { numRuns: 60 },
    );
  });
  it("is left out where it is switched off, and nothing else is changed by what has no room", () => {
    const setting = disc();
    const before = setting.stones.map(({ x, y }) => `${x} ${y}`).sort();
    const crowded: HandEntry[] = [
      { id: "stone-1", isOn: false, kind: "take", at: { x: 40, y: 16 } },
      { id: "stone-2", isOn: true, kind: "add", at: { x: 41, y: 41 }, size: "SS34", spotId: "aa0000", givesWay: false },
    ];
    expect(applyByHand(setting, crowded, GAPS.gapMm, asIs)).toEqual([{ id: "stone-2", why: "room" }]);
    expect(setting.stones.map(({ x, y }) => `${x} ${y}`).sort()).toEqual(before);
  });
  it("a stone that lies across the way of another is pushed on, and what it meets in turn", () => {
    const setting = disc();
    const added: HandEntry = {
      ...{ id: "stone-1", isOn: true, kind: "add", at: { x: 40.3, y: 39.8 } },
      ...{ size: "SS34", spotId: "00aa00", givesWay: true },
    };
    expect(applyByHand(setting, [added], GAPS.gapMm, asIs)).toEqual([]);
    expect(stoneAt(setting, { x: 40.3, y: 39.8 })).toMatchObject({ size: "SS34", x: 40.3, y: 39.8 });
    expect(leastGap(setting.stones)).toBeGreaterThan(GAPS.leastMm - 1e-5);
  });
});

describe("a closed row", () => {
  it("shifts all the way round, and is spread along the shorter way between two of its stones", () => {
    const outline = circle(40, 40, 24, 720);
    const setting = new Setting(GAPS.leastMm);
    const line = measureLine([...outline, outline[0], outline[1]]);
    setRows([{ line, isClosed: true, size: "SS10", spotId: "aa0000", fixed: [] }], setting, GAPS);
    const [first] = setting.stones;
    const angle = ({ x, y }: { x: number; y: number }) => Math.atan2(y - 40, x - 40);
    const shift: HandEntry = { id: "stone-1", isOn: true, kind: "shift", at: first, halfGaps: 3 };
    expect(applyByHand(setting, [shift], GAPS.gapMm, asIs)).toEqual([]);
    // Three halves of 0.4 mm on a radius of 24.
    const turns = setting.stones.map((one) => (angle(one) * 180) / Math.PI);
    expect(Math.min(...turns.map((turn) => Math.abs(Math.abs(turn) - (0.6 / 24) * (180 / Math.PI))))).toBeLessThan(
      0.05,
    );
    const byAngle = [...setting.stones].sort((one, other) => angle(one) - angle(other));
    const [from, gone, to] = [byAngle[10], byAngle[12], byAngle[15]];
    const deeds: HandEntry[] = [
      { id: "stone-2", isOn: true, kind: "take", at: gone },
      { id: "stone-3", isOn: true, kind: "spread", at: from, to },
    ];
    expect(applyByHand(setting, deeds, GAPS.gapMm, asIs)).toEqual([]);
    const between = setting.stones.filter((one) => angle(one) > angle(from) - 1e-6 && angle(one) < angle(to) + 1e-6);
    const angles = between.map(angle).sort((a, b) => a - b);
    expect(angles).toHaveLength(5);
    const steps = angles.slice(1).map((one, i) => one - angles[i]);
    expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(1.01);
  });
});

describe("gaps between stones", () => {
  const at = (...xs: number[]): Stone[] => xs.map((x) => ({ x, y: 10, size: "SS10", spotId: "aa0000", row: 0 }));
  it("are too near, even or too wide by their own measure, each once", () => {
    // Stones of 2.8 mm: gaps of 0.2, 0.4 and 1 mm, then one that is no neighbour.
    const gaps = measureGaps(at(0, 3, 6.2, 10, 20), GAPS);
    expect(gaps.map(({ kind, gapMm }) => [kind, Number(gapMm.toFixed(3))])).toEqual([
      ["near", 0.2],
      ["even", 0.4],
      ["wide", 1],
    ]);
    expect(measureGaps([], GAPS)).toEqual([]);
  });
  it("of a fill in hexagons are all even", () => {
    const setting = new Setting(GAPS.leastMm);
    const numbers = { size: "SS6", spotId: "aa0000", angleDeg: 20, gaps: GAPS } as const;
    fillInRows([ring(0, 0, 40, 0, 40, 30, 0, 30)], "hexagons", numbers, setting);
    const gaps = measureGaps(setting.stones, GAPS);
    expect(gaps.length).toBeGreaterThan(2 * setting.stones.length);
    expect(new Set(gaps.map(({ kind }) => kind))).toEqual(new Set(["even"]));
  });
});
