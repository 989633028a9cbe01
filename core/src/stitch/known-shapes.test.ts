import { describe, expect, it } from "vitest";
import { backwards, circle, ring } from "../area/area.test.support.ts";
import { middleLine } from "../area/index.ts";
import { chosen, commandsOf, planOf, type Stitch, stitchesOf } from "./stitch.test.support.ts";

const sum = (values: readonly number[]) => values.reduce((all, value) => all + value, 0);
const covers = (stitches: readonly Stitch[]) => stitches.filter(({ kind }) => kind === "cover");

/** Radians between a direction and another, whichever way either points. */
const between = (ax: number, ay: number, bx: number, by: number) =>
  Math.acos(Math.min(1, Math.abs(ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by))));

describe("a rectangle of 40 x 20 mm, filled", () => {
  // Rows lie 0.4 mm apart, each longer by the pull at both ends; at 45 degrees there are (40 + 20) / sqrt(2) / 0.4 of them, and
  // together they cover the area: length = area / spacing. Turns are 0.5 mm at least.
  it.each([0, 45, 90])("at %i degrees has the rows, the stitches and the thread that arithmetic gives", (angleDeg) => {
    const slant = (angleDeg * Math.PI) / 180;
    const rows = Math.round((20 * Math.abs(Math.cos(slant)) + 40 * Math.abs(Math.sin(slant))) / 0.4);
    const plan = planOf([chosen([ring(0, 0, 40, 0, 40, 20, 0, 20)], { angleDeg, hasUnderlay: false })]);
    const sewn = covers(stitchesOf(plan));
    const along = [Math.cos(slant), Math.sin(slant)] as const;
    // Turns are what does not run along the rows.
    const turns = sewn.filter(
      (stitch, i) =>
        i > 0 &&
        stitch.lengthMm > 0 &&
        between(stitch.x - sewn[i - 1].x, stitch.y - sewn[i - 1].y, ...along) > (angleDeg === 45 ? 0.6 : 0.25),
    );
    expect(Math.abs(turns.length + 1 - rows)).toBeLessThanOrEqual(Math.ceil(rows * 0.02));
    const inRows = sum(sewn.map(({ lengthMm }) => lengthMm)) - sum(turns.map(({ lengthMm }) => lengthMm));
    const drawnIn = angleDeg === 45 ? 0 : 0.3;
    expect(Math.abs(inRows / ((40 * 20) / 0.4 + rows * (0.4 - drawnIn)) - 1)).toBeLessThan(0.02);
    // All stitches but those at the ends of rows are as long as they were asked to be.
    expect(sewn.filter(({ lengthMm }) => Math.abs(lengthMm - 3.75) < 0.01).length).toBeGreaterThan(sewn.length / 3);
  });
  it("puts the needle points of near rows at different places, so that no groove comes of it", () => {
    const plan = planOf([chosen([ring(0, 0, 40, 0, 40, 20, 0, 20)], { hasUnderlay: false })]);
    const rows = new Map<number, number[]>();
    for (const { x, y } of covers(stitchesOf(plan))) {
      const row = Math.round(y / 0.4 - 0.5);
      rows.set(row, [...(rows.get(row) ?? []), x]);
    }
    expect(rows.size).toBe(50);
    for (const [row, xs] of rows) {
      const next = rows.get(row + 1) ?? xs.map((x) => x + 1);
      for (const x of xs.filter((x) => x > 1.5 && x < 38.5))
        expect(Math.min(...next.map((other) => Math.abs(other - x)))).toBeGreaterThan(0.5);
    }
  });
});

describe("a leaning field, filled", () => {
  it.each([7, -7])("has no row that ends a third of a millimetre before its edge (leaning %i mm)", (lean) => {
    const left = Math.max(0, -lean);
    const field = ring(left, 0, left + 40, 0, left + 40 + lean, 20, left + lean, 20);
    const plan = planOf([chosen([field], { angleDeg: 0, hasUnderlay: false, pullMm: 0 })]);
    const rows = new Map<number, number[]>();
    for (const { x, y } of covers(stitchesOf(plan))) {
      const row = Math.round(y / 0.4 - 0.5);
      rows.set(row, [...(rows.get(row) ?? []), x - left - (y * lean) / 20]);
    }
    expect(rows.size).toBe(50);
    // Turns have to be half a millimetre long: one of two rows is drawn in, by 0.3 mm less what the edge leans from row to row.
    for (const xs of rows.values()) {
      expect(Math.min(...xs)).toBeLessThan(0.3 - (0.4 * 7) / 20 + 0.01);
      expect(Math.max(...xs)).toBeGreaterThan(40 - 0.3 + (0.4 * 7) / 20 - 0.01);
    }
  });
});

describe("satin", () => {
  it("in a ring goes round once, square to it, and closes", () => {
    const plan = planOf([
      chosen([circle(20, 20, 10), backwards(circle(20, 20, 7))], { as: "satin", hasUnderlay: false, pullMm: 0 }),
    ]);
    const sewn = covers(stitchesOf(plan)).slice(2, -2);
    // Outer needle points 0.4 mm apart on a circle of 10 mm.
    expect(Math.abs(sewn.length / 2 / ((2 * Math.PI * 10) / 0.4) - 1)).toBeLessThan(0.03);
    for (const [i, { x, y }] of sewn.entries()) {
      if (i === 0) continue;
      const [mx, my] = [(x + sewn[i - 1].x) / 2 - 20, (y + sewn[i - 1].y) / 2 - 20];
      expect(between(x - sewn[i - 1].x, y - sewn[i - 1].y, mx, my)).toBeLessThan((8 * Math.PI) / 180);
    }
    const angles = sewn.map(({ x, y }) => Math.floor((Math.atan2(y - 20, x - 20) + Math.PI) * 10));
    expect(new Set(angles).size).toBeGreaterThanOrEqual(62);
  });
  it("in an S of 3 mm has rungs within 8 degrees of the normal", () => {
    // Two half rings, one turning on where the other ends.
    const arc = (cx: number, from: number, to: number, r: number) =>
      Array.from({ length: 61 }, (_, i) => {
        const a = from + ((to - from) * i) / 60;
        return [cx + r * Math.cos(a), 20 + r * Math.sin(a)];
      }).flat();
    const upper = [...arc(12, -Math.PI, 0, 8.5), ...arc(26, Math.PI, 0, 5.5)];
    const lower = [...arc(26, 0, Math.PI, 8.5), ...arc(12, 0, -Math.PI, 5.5)];
    const area = chosen([ring(...upper, ...lower)], { as: "satin", hasUnderlay: false, pullMm: 0 });
    expect(area.columns.columns).toHaveLength(1);
    const [column] = area.columns.columns;
    const last = column.stations.length / 4 - 1;
    const middle = middleLine(column, 0, last);
    for (let k = 20; k < last - 20; k++) {
      const [ax, ay, bx, by] = column.stations.subarray(k * 4, k * 4 + 4);
      const [dx, dy] = [middle[k * 2 + 10] - middle[k * 2 - 10], middle[k * 2 + 11] - middle[k * 2 - 9]];
      expect(Math.PI / 2 - between(bx - ax, by - ay, dx, dy)).toBeLessThan((8 * Math.PI) / 180);
      expect(Math.hypot(bx - ax, by - ay)).toBeGreaterThan(2.8);
      expect(Math.hypot(bx - ax, by - ay)).toBeLessThan(3.4);
    }
  });
  it("in a Y of 1.5 mm is sewn in one go: a column straight through, and one that ends under it", () => {
    const y = ring(19.25, 40, 19.25, 24, 9.6, 14.4, 10.7, 13.3, 20, 22.6, 29.3, 13.3, 30.4, 14.4, 20.75, 24, 20.75, 40);
    const area = chosen([y], { as: "satin" });
    expect(area.columns.columns).toHaveLength(2);
    expect(area.columns.joints).toHaveLength(1);
    const plan = planOf([area]);
    expect(commandsOf(plan).filter((command) => command === "jump")).toHaveLength(1);
    expect(commandsOf(plan).filter((command) => command === "trim")).toHaveLength(1);
  });
  it("in a star covers every point of it", () => {
    const points = Array.from({ length: 10 }, (_, i) => {
      const [r, a] = [i % 2 === 0 ? 12 : 5, -Math.PI / 2 + (i * Math.PI) / 5];
      return [20 + r * Math.cos(a), 20 + r * Math.sin(a)];
    });
    const sewn = covers(stitchesOf(planOf([chosen([ring(...points.flat())], { as: "satin" })])));
    for (const [x, y] of points.filter((_, i) => i % 2 === 0))
      expect(Math.min(...sewn.map((stitch) => Math.hypot(stitch.x - x, stitch.y - y)))).toBeLessThan(1.2);
  });
});

describe("a tree of thin lines", () => {
  // A stem with four branches, all half a millimetre wide.
  const tree = [
    ...[
      19.75, 40, 19.75, 30.25, 10, 30.25, 10, 29.75, 19.75, 29.75, 19.75, 20.25, 12, 20.25, 12, 19.75, 19.75, 19.75,
      19.75, 10,
    ],
    ...[
      20.25, 10, 20.25, 19.75, 30, 19.75, 30, 20.25, 20.25, 20.25, 20.25, 29.75, 28, 29.75, 28, 30.25, 20.25, 30.25,
      20.25, 40,
    ],
  ];
  const plan = planOf([chosen([ring(...tree)], { as: "bean" })]);
  const sewn = covers(stitchesOf(plan));
  it("is sewn without a trim, and the needle ends where it began", () => {
    expect(commandsOf(plan).filter((command) => command === "trim")).toHaveLength(1);
    const [first, last] = [stitchesOf(plan)[0], sewn[sewn.length - 1]];
    expect(Math.hypot(first.x - last.x, first.y - last.y)).toBeLessThan(1);
  });
  it("passes every line at least twice, and leaves none out", () => {
    const ends = [
      [20, 39, 20, 11],
      [11, 30, 27, 30],
      [13, 20, 29, 20],
    ];
    for (const [ax, ay, bx, by] of ends)
      for (let k = 0; k <= 20; k++) {
        const [x, y] = [ax + ((bx - ax) * k) / 20, ay + ((by - ay) * k) / 20];
        const passes = sewn.filter((stitch, i) => {
          if (i === 0 || stitch.lengthMm === 0) return false;
          const [px, py] = [sewn[i - 1].x, sewn[i - 1].y];
          const [dx, dy] = [stitch.x - px, stitch.y - py];
          const t = Math.min(1, Math.max(0, ((x - px) * dx + (y - py) * dy) / (dx * dx + dy * dy)));
          return Math.hypot(px + t * dx - x, py + t * dy - y) < 0.45;
        });
        expect(passes.length).toBeGreaterThanOrEqual(2);
      }
  });
});
