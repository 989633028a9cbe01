import { describe, expect, it } from "vitest";
import { backwards, circle, ring } from "../area/area.test.support.ts";
import { STRIDE } from "../area/index.ts";
import { coveredShare, coverThread, readStitchList } from "../practice/index.ts";
import { columnAlong, sewBorder } from "./border.ts";
import { LAYER_CELL_MM, measureDensity, measureLayers } from "./density.ts";
import { chooseHoop, readHoops } from "./hoop.ts";
import { type StitchPlan, stitchSettingsSchema, writeStitchesCsv } from "./index.ts";
import { chosen, planOf, stitchesOf } from "./stitch.test.support.ts";

const square = ring(10, 10, 30, 10, 30, 30, 10, 30);

describe("a border", () => {
  it("is as wide as was said all round, half of it on either side of the outline", () => {
    const { stations, isClosed } = columnAlong(circle(20, 20, 10), 1.3, "mitred");
    expect(isClosed).toBe(true);
    for (let k = 0; k < stations.length; k += STRIDE) {
      const [ax, ay, bx, by] = stations.subarray(k, k + STRIDE);
      expect(Math.hypot(bx - ax, by - ay)).toBeCloseTo(1.3, 6);
      expect(Math.hypot((ax + bx) / 2 - 20, (ay + by) / 2 - 20)).toBeCloseTo(10, 1);
    }
  });
  it("in satin goes round corners without leaving them bare", () => {
    const needles = sewBorder(
      square,
      { kind: "satin", widthMm: 1.3, spacingMm: 0.4, beanMm: 2.8, corners: "mitred" },
      () => 0,
    );
    for (const [x, y] of [
      [10, 10],
      [30, 10],
      [30, 30],
      [10, 30],
    ]) {
      const near = needles.flatMap((_, i) => (i % 2 === 0 ? [Math.hypot(needles[i] - x, needles[i + 1] - y)] : []));
      expect(Math.min(...near)).toBeLessThan(0.75);
    }
    const outside = needles.flatMap((_, i) =>
      i % 2 === 0 ? [Math.max(10 - needles[i], needles[i] - 30, 10 - needles[i + 1], needles[i + 1] - 30)] : [],
    );
    expect(Math.max(...outside)).toBeLessThan(0.66);
  });
  it("in bean stitches passes the outline three times and ends where it began", () => {
    const needles = sewBorder(
      square,
      { kind: "bean", widthMm: 1.3, spacingMm: 0.4, beanMm: 2.8, corners: "mitred" },
      () => 0,
    );
    expect(needles.slice(-2)).toEqual(Array.from(square.subarray(0, 2)));
    const whole = needles.reduce(
      (sum, _, i) =>
        i % 2 === 0 && i > 0 ? sum + Math.hypot(needles[i] - needles[i - 2], needles[i + 1] - needles[i - 1]) : sum,
      0,
    );
    expect(whole).toBeCloseTo(3 * 80, 6);
  });
});

describe("density", () => {
  it("is needle points to a square millimetre: of a plain fill one over spacing times stitch length, and turns at its edges", () => {
    const plan = planOf([chosen([ring(0, 0, 60, 0, 60, 60, 0, 60)], { hasUnderlay: false })]);
    const { perMm2, columns } = measureDensity(plan);
    const inner = Array.from(perMm2).filter((_, cell) => cell % columns > 2 && cell % columns < columns - 3);
    const mean = inner.reduce((sum, value) => sum + value, 0) / inner.length;
    expect(Math.abs(mean * 0.4 * 3.75 - 1)).toBeLessThan(0.05);
    expect(perMm2.reduce((sum, value) => sum + value, 0) * 9).toBeCloseTo(
      stitchesOf(plan).filter(({ x, y }) => x >= 0 && y >= 0 && x < 60 && y < 60).length,
      2,
    );
  });
});

describe("layers", () => {
  const field = { hasUnderlay: false, pullMm: 0 } as const;
  const wide = { border: { kind: "satin", widthMm: 3, spotId: null } } as const;
  const [left, right] = [ring(10, 10, 30, 10, 30, 30, 10, 30), ring(30, 10, 50, 10, 50, 30, 30, 30)];
  /** Square millimetres with so many layers. */
  const areaWith = (plan: StitchPlan, count: number) =>
    measureLayers(plan).layers.filter((layers) => layers === count).length * LAYER_CELL_MM ** 2;
  it("are one under a fill, two where its border lies on it, three where borders of two lie on each other", () => {
    const plain = planOf([chosen([left], field)]);
    expect(areaWith(plain, 1)).toBeGreaterThan(380);
    expect(areaWith(plain, 2)).toBe(0);
    const bordered = planOf([chosen([left], { ...field, ...wide })]);
    // A border of 3 mm, half of it on the fill: 1.5 mm along 74 mm.
    expect(Math.abs(areaWith(bordered, 2) / (1.5 * 74) - 1)).toBeLessThan(0.15);
    const both = planOf([chosen([left], { ...field, ...wide }), chosen([right], { ...field, ...wide }, "aa0000", 1)]);
    expect(areaWith(both, 3) + areaWith(both, 4)).toBeGreaterThan(3 * 20 * 0.8);
    const beside = planOf([chosen([left], field), chosen([right], field, "aa0000", 1)]);
    expect(areaWith(beside, 2)).toBeLessThan(20 * LAYER_CELL_MM);
  });
});

describe("hoops", () => {
  const settings = stitchSettingsSchema.parse({});
  it("of the shop are read as they are written down", () => {
    expect(readHoops("100x100, 130 x 180")).toEqual([
      { widthMm: 100, heightMm: 100 },
      { widthMm: 130, heightMm: 180 },
    ]);
  });
  it("are chosen as small as the design allows, turned if it fits no other way", () => {
    expect(chooseHoop(90, 90, settings)).toMatchObject({ widthMm: 100, heightMm: 100, isTurned: false, fits: true });
    expect(chooseHoop(58, 120, settings)).toMatchObject({ widthMm: 130, heightMm: 60, isTurned: true, fits: true });
    expect(chooseHoop(150, 120, settings)).toMatchObject({ widthMm: 130, heightMm: 180, isTurned: true, fits: true });
    expect(chooseHoop(300, 120, settings)).toMatchObject({ widthMm: 200, heightMm: 200, fits: false });
  });
  it("stay the person's, whether the design fits or not", () => {
    const own = { ...settings, hoop: { widthMm: 80, heightMm: 80 } };
    expect(chooseHoop(90, 60, own)).toMatchObject({ widthMm: 80, fits: false });
  });
});

describe("what thread covers, read from the list alone", () => {
  const perMm = 8;
  const maskOf = (isIn: (x: number, y: number) => boolean) => ({
    ...{ width: 60 * perMm, height: 60 * perMm, perMm },
    data: Uint8Array.from({ length: (60 * perMm) ** 2 }, (_, p) =>
      isIn((p % (60 * perMm)) / perMm, Math.floor(p / (60 * perMm)) / perMm) ? 1 : 0,
    ),
  });
  const mask = (x0: number, y0: number, x1: number, y1: number) =>
    maskOf((x, y) => x >= x0 && x < x1 && y >= y0 && y < y1);
  it("is the area that was sewn, nearly all of it, and little beside it", () => {
    const plan = planOf([chosen([square], { angleDeg: 45 })]);
    const list = readStitchList(writeStitchesCsv(plan, { job: "Tern", hoop: "100 x 100", threads: ["Red"] }));
    const thread = coverThread(list, 1, mask(0, 0, 60, 60));
    expect(coveredShare(thread, mask(10, 10, 30, 30))).toBeGreaterThan(0.97);
    expect(coveredShare(thread, mask(32, 10, 58, 30))).toBe(0);
    expect(coveredShare(coverThread(list, 2, thread), mask(10, 10, 30, 30))).toBe(0);
  });
  it.each([20, 45, 110])("is whole, too, where a fill at %i degrees goes round holes from part to part", (angleDeg) => {
    const holes = [
      [20, 20, 4],
      [40, 22, 5],
      [30, 40, 6],
    ] as const;
    const rings = [ring(8, 8, 52, 8, 52, 52, 8, 52), ...holes.map(([x, y, r]) => backwards(circle(x, y, r)))];
    const plan = planOf([chosen(rings, { angleDeg, hasUnderlay: false })]);
    const list = readStitchList(writeStitchesCsv(plan, { job: "Tern", hoop: "100 x 100", threads: ["Red"] }));
    // Half a millimetre inside every edge.
    const inner = maskOf(
      (x, y) =>
        Math.min(x - 8, y - 8, 52 - x, 52 - y) > 0.5 &&
        holes.every(([hx, hy, r]) => Math.hypot(x - hx, y - hy) > r + 0.5),
    );
    const thread = coverThread(list, 1, inner);
    // Between two rows of thread a hair may show; what is wider is a slit.
    const isBare = (p: number) => inner.data[p] === 1 && thread.data[p] === 0;
    const isSlit = (p: number) => [-1, 0, 1].every((dy) => [-1, 0, 1].every((dx) => isBare(p + dx + dy * inner.width)));
    expect(Array.from(inner.data.keys()).filter(isSlit)).toEqual([]);
  });
});
