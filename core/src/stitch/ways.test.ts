import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { backwards, circle, ring } from "../area/area.test.support.ts";
import { fromFrame, holdsPlace, makeArea, placeInside } from "../area/index.ts";
import { wayInside } from "./inside.ts";
import { beanOf, divideLine } from "./needle.ts";
import { nearestOf, orderShort, sampleOutline } from "./order.ts";
import { cutRows, nearestSegment } from "./rows.ts";
import { chosen } from "./stitch.test.support.ts";
import { findHiddenWay, makeWayGrid } from "./ways.ts";

const area = makeArea(0, "aa0000", [
  ring(0, 0, 40, 0, 40, 24, 0, 24),
  backwards(circle(8, 8, 4, 40)),
  backwards(circle(20, 14, 5, 40)),
  backwards(circle(32, 8, 5, 40)),
]);

describe("rows", () => {
  it("lie at even distances and part where holes begin: cells are sewn without lifting", () => {
    const rows = cutRows(area.rings, 0, 0.4);
    expect(rows.spacingMm).toBeCloseTo(0.4, 6);
    // Under three holes side by side a row has four parts.
    const parts = new Map<number, number>();
    for (const row of rows.row) parts.set(row, (parts.get(row) ?? 0) + 1);
    expect(Math.max(...parts.values())).toBe(4);
    for (const { segments } of rows.cells)
      for (let i = 1; i < segments.length; i++) {
        expect(rows.row[segments[i]]).toBe(rows.row[segments[i - 1]] + 1);
        expect(rows.left[segments[i]]).toBeLessThan(rows.right[segments[i - 1]]);
        expect(rows.right[segments[i]]).toBeGreaterThan(rows.left[segments[i - 1]]);
      }
    const whole = rows.left.reduce((sum, left, s) => sum + (rows.right[s] - left) * rows.spacingMm, 0);
    expect(Math.abs(whole / area.areaMm2 - 1)).toBeLessThan(0.005);
  });
  it("are the same for an angle and its opposite", () => {
    const [one, other] = [cutRows(area.rings, 30, 0.4), cutRows(area.rings, 210, 0.4)];
    expect(Array.from(other.left)).toEqual(Array.from(one.left));
  });
  it("know a place well inside", () => {
    const { x, y } = placeInside(area.rings);
    expect(holdsPlace(area.rings, { x, y })).toBe(true);
  });
});

describe("ways inside an area", () => {
  it("never leave it, wherever they begin and end", () => {
    const place = fc.record({
      x: fc.double({ min: 0, max: 40, noNaN: true }),
      y: fc.double({ min: 0, max: 24, noNaN: true }),
    });
    fc.assert(
      fc.property(place, place, fc.integer({ min: 0, max: 179 }), (from, to, angleDeg) => {
        const rows = cutRows(area.rings, angleDeg, 0.4);
        const [a, b] = [nearestSegment(rows, from, 0), nearestSegment(rows, to, 0)];
        if (!a || !b) throw new Error("rows without a segment");
        const way = wayInside(rows, a, b, () => true);
        expect(way).not.toBeNull();
        for (let i = 2; way && i < way.length; i += 2)
          for (const t of [0.25, 0.5, 0.75]) {
            const [x, y] = fromFrame(
              rows,
              way[i - 2] + t * (way[i] - way[i - 2]),
              way[i - 1] + t * (way[i + 1] - way[i - 1]),
            );
            // Between two rows an outline may come as near as half a row.
            const near = [0, 0.25, -0.25].flatMap((dx) => [0, 0.25, -0.25].map((dy) => ({ x: x + dx, y: y + dy })));
            expect(near.some((one) => holdsPlace(area.rings, one))).toBe(true);
          }
      }),
    );
  });
  it("go only through cells that are open", () => {
    const rows = cutRows(area.rings, 0, 0.4);
    const [top, bottom] = [nearestSegment(rows, { x: 20, y: 1 }, 0), nearestSegment(rows, { x: 20, y: 23 }, 0)];
    if (!top || !bottom) throw new Error("rows without a segment");
    expect(wayInside(rows, top, bottom, () => false)).toBeNull();
  });
});

describe("ways between areas", () => {
  const left = makeArea(0, "aa0000", [ring(2, 10, 8, 10, 8, 20, 2, 20)]);
  const right = makeArea(1, "aa0000", [ring(42, 10, 48, 10, 48, 20, 42, 20)]);
  const under = makeArea(2, "0000aa", [ring(8, 4, 42, 4, 42, 26, 8, 26)]);
  const grid = makeWayGrid([left, right, under], 50, 30);
  it("lead under what is sewn later", () => {
    const way = findHiddenWay(grid, { x: 8, y: 15 }, { x: 42, y: 15 }, () => "later", true);
    expect(way?.slice(0, 2)).toEqual([8, 15]);
    expect(way?.slice(-2)).toEqual([42, 15]);
    for (let i = 2; way && i + 3 < way.length; i += 2)
      expect(holdsPlace(under.rings, { x: way[i], y: way[i + 1] })).toBe(true);
  });
  it("are none over what was sewn in another thread, nor over bare cloth", () => {
    expect(findHiddenWay(grid, { x: 8, y: 15 }, { x: 42, y: 15 }, (i) => (i === 2 ? "no" : "along"), true)).toBeNull();
    const bare = makeWayGrid([left, right], 50, 30);
    expect(findHiddenWay(bare, { x: 8, y: 15 }, { x: 42, y: 15 }, () => "later", true)).toBeNull();
  });
});

describe("the order of areas", () => {
  it("on a circle is round it: as short as it can be", () => {
    const places = Array.from({ length: 12 }, (_, i) => {
      const a = (((i * 5) % 12) / 12) * 2 * Math.PI;
      return [30 + 20 * Math.cos(a), 30 + 20 * Math.sin(a)];
    });
    const outlines = places.map(([x, y]) => sampleOutline(chosen([circle(x, y, 1, 12)], {}).rings));
    const order = orderShort(outlines, { x: 50, y: 30 });
    const along = order.slice(1).reduce((sum, one, k) => sum + nearestOf(outlines[one], outlines[order[k]]).away, 0);
    // Eleven steps from dot to dot, their edges 2 mm nearer than their middles.
    const least = 11 * (2 * 20 * Math.sin(Math.PI / 12) - 2);
    expect(along / least).toBeLessThan(1.1);
  });
});

describe("needle points", () => {
  it("divide a line evenly between its turns, ends included", () => {
    const needles = divideLine([0, 0, 10, 0, 10, 4], 2.5);
    expect(needles).toEqual([0, 0, 2.5, 0, 5, 0, 7.5, 0, 10, 0, 10, 2, 10, 4]);
  });
  it("stay within a tenth of a millimetre of a curve", () => {
    const arc = Array.from({ length: 91 }, (_, i) => [
      5 * Math.cos((i * Math.PI) / 180),
      5 * Math.sin((i * Math.PI) / 180),
    ]).flat();
    const needles = divideLine(arc, 2.5);
    for (let i = 2; i < needles.length; i += 2) {
      const [mx, my] = [(needles[i] + needles[i - 2]) / 2, (needles[i + 1] + needles[i - 1]) / 2];
      expect(5 - Math.hypot(mx, my)).toBeLessThan(0.11);
    }
  });
  it("of a bean stitch pass each stretch three times, or five", () => {
    expect(beanOf([0, 0, 3, 0, 6, 0], 3)).toEqual([0, 0, 3, 0, 0, 0, 3, 0, 6, 0, 3, 0, 6, 0]);
    expect(beanOf([0, 0, 3, 0], 5)).toHaveLength(12);
  });
});
