import fc from "fast-check";
import polygonClipping from "polygon-clipping";
import { describe, expect, it } from "vitest";
import {
  flattenPath,
  formatLength,
  parseLength,
  pathArea,
  polygonPath,
  polygonsArea,
  reversePath,
  toMm,
  toPolygons,
  trimNumber,
  unite,
} from "./index.ts";

const square = (x: number, y: number, s: number) => polygonPath([x, y, x + s, y, x + s, y + s, x, y + s]);

describe("lengths as typed", () => {
  it.each([
    ["10.5in", "mm", 266.7],
    ['4"', "mm", 101.6],
    ["267 mm", "in", 267],
    ["72pt", "mm", 25.4],
    ["0,3", "mm", 0.3],
    ["2", "in", 50.8],
  ] as const)("%s with bare numbers in %s is %f mm", (text, unit, mm) => {
    expect(toMm(parseLength(text, unit))).toBeCloseTo(mm, 9);
  });
  it("names what it cannot read", () => {
    expect(() => parseLength("wide", "in")).toThrow(/"wide" is not a length/);
    expect(() => parseLength("--3mm", "in")).toThrow(RangeError);
    expect(parseLength("-0.3 mm", "in")).toEqual({ value: -0.3, unit: "mm" });
  });
  it("are shown in the unit of the shop", () => {
    expect(formatLength(266.7, "in")).toBe("10.5 in");
  });
});

describe("cubic paths", () => {
  const coordinate = fc.double({ min: -100, max: 100, noNaN: true });
  it("flatten to the same points from either end", () => {
    fc.assert(
      fc.property(fc.array(coordinate, { minLength: 8, maxLength: 8 }), (numbers) => {
        const path = Float64Array.from(numbers);
        const there = flattenPath(path, 0.05);
        const back = flattenPath(reversePath(path), 0.05);
        for (let i = 0; i < there.length; i += 2) {
          expect(back[back.length - 2 - i]).toBe(there[i]);
          expect(back[back.length - 1 - i]).toBe(there[i + 1]);
        }
      }),
    );
  });
  it("have the area that their fine polygon has", () => {
    const leaf = Float64Array.of(0, 0, 10, -20, 40, -20, 50, 0, 40, 20, 10, 20, 0, 0);
    const polygon = polygonPath(flattenPath(leaf, 0.0001).slice(0, -2));
    expect(pathArea(leaf)).toBeCloseTo(pathArea(polygon), 1);
    expect(pathArea(reversePath(leaf))).toBeCloseTo(-pathArea(leaf), 9);
  });
  it("write numbers without trailing noise", () => {
    expect(trimNumber(1.2300001, 3)).toBe("1.23");
    expect(trimNumber(-0.00001, 3)).toBe("0");
  });
});

describe("polygon arithmetic", () => {
  it("agrees with an independent library on unions (polygon-clipping)", () => {
    const box = fc.tuple(
      fc.integer({ min: 0, max: 40 }),
      fc.integer({ min: 0, max: 40 }),
      fc.integer({ min: 2, max: 30 }),
    );
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 6 }), (boxes) => {
        const own = polygonsArea(
          unite(
            toPolygons(
              boxes.map(([x, y, s]) => square(x, y, s)),
              0.01,
            ),
          ),
        );
        const rings = boxes.map(([x, y, s]): [number, number][][] => [
          [
            [x, y],
            [x + s, y],
            [x + s, y + s],
            [x, y + s],
          ],
        ]);
        const [first, ...rest] = rings;
        const independent = polygonClipping.union(first, ...rest);
        const area = independent.flat().reduce((sum, ring) => sum + shoelace(ring), 0);
        expect(own).toBeCloseTo(Math.abs(area), 3);
      }),
    );
  });
});

function shoelace(ring: readonly (readonly [number, number])[]): number {
  let twice = 0;
  for (let i = 0; i < ring.length; i++) {
    const [x0, y0] = ring[i];
    const [x1, y1] = ring[(i + 1) % ring.length];
    twice += x0 * y1 - x1 * y0;
  }
  return twice / 2;
}
