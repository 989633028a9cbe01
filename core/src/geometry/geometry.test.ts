import fc from "fast-check";
import polygonClipping, { type MultiPolygon, type Polygon } from "polygon-clipping";
import { describe, expect, it } from "vitest";
import {
  fillHoles,
  flattenPath,
  formatLength,
  growRegion,
  intersectEach,
  linesOf,
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
    ["10 1/2 in", "mm", 266.7],
    ["10-1/2in", "mm", 266.7],
    ["10½ in", "mm", 266.7],
    ["½ in", "mm", 12.7],
    ["3/8", "in", 9.525],
    ["4\u2033", "mm", 101.6],
    ["4 \u201d", "mm", 101.6],
    ["3''", "mm", 76.2],
    ["2 m", "in", 2000],
    ["1.5 Inches", "mm", 38.1],
  ] as const)("%s with bare numbers in %s is %f mm", (text, unit, mm) => {
    expect(toMm(parseLength(text, unit))).toBeCloseTo(mm, 9);
  });
  it("names what it cannot read", () => {
    expect(() => parseLength("wide", "in")).toThrow(/"wide" is not a length/);
    for (const text of ["--3mm", "1/0 in", "1/2/3", "10 1/2 1/2", "5 ft", "in", "", "1 2 mm", "1e3 mm"])
      expect(() => parseLength(text, "in"), text).toThrow(RangeError);
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

/** Corners of a square, as the independent library wants them. */
const corners = (x: number, y: number, s: number): [number, number][] => [
  [x, y],
  [x + s, y],
  [x + s, y + s],
  [x, y + s],
];

describe("polygon arithmetic", () => {
  const boxes = (most: number, size: number) =>
    fc.array(
      fc.tuple(fc.integer({ min: 0, max: most }), fc.integer({ min: 0, max: most }), fc.integer({ min: 2, max: size })),
      { minLength: 1, maxLength: 6 },
    );
  const areaOf = (polygons: [number, number][][][]) =>
    Math.abs(polygons.flat().reduce((sum, ring) => sum + shoelace(ring), 0));

  it("agrees with an independent library on unions (polygon-clipping)", () => {
    fc.assert(
      fc.property(boxes(40, 30), (squares) => {
        const own = unite(
          toPolygons(
            squares.map((one) => square(...one)),
            0.01,
          ),
        );
        const [first, ...rest] = squares.map((one) => [corners(...one)]);
        expect(polygonsArea(own)).toBeCloseTo(areaOf(polygonClipping.union(first, ...rest)), 3);
      }),
    );
  });
  it("agrees with it where holes, what lies in them and what covers their rims are far from each other", () => {
    const at = [0, 1, 2, 3].flatMap((u) => [0, 1, 2, 3].map((v) => [12 + u * 50, 12 + v * 50] as const));
    const holes = at.map(([x, y], k) => [x, y, 14 + k] as const);
    fc.assert(
      fc.property(boxes(200, 40), (squares) => {
        // Every third hole has an island that nothing touches.
        const islands = holes.filter((_, k) => k % 3 === 0).map(([x, y, side]) => [x + 5, y + 5, side - 10] as const);
        const drawn = [square(0, 0, 220), ...holes.map((one) => reversePath(square(...one)))];
        const own = unite(
          toPolygons([...drawn, ...islands.map((one) => square(...one))], 0.01),
          toPolygons(
            squares.map((one) => square(...one)),
            0.01,
          ),
        );
        const independent = polygonClipping.union(
          [[corners(0, 0, 220), ...holes.map((one) => corners(...one))]],
          ...[...islands, ...squares].map((one) => [corners(...one)]),
        );
        expect(polygonsArea(own)).toBeCloseTo(areaOf(independent), 3);
        expect(own).toHaveLength(independent.flat().length);
      }),
    );
  });
  it("agrees with it on what of a ring lies in many small regions, each cut by what is near it", () => {
    fc.assert(
      fc.property(boxes(380, 60), (squares) => {
        const ring = [square(10, 10, 380), reversePath(square(70, 90, 250))];
        const own = intersectEach(
          toPolygons(
            squares.map((one) => square(...one)),
            0.01,
          ),
          toPolygons(ring, 0.01),
        );
        const independent = polygonClipping.intersection(
          polygonClipping.union([], ...squares.map((one) => [corners(...one)])),
          [corners(10, 10, 380), corners(70, 90, 250)],
        );
        expect(polygonsArea(unite(own))).toBeCloseTo(areaOf(independent), 3);
      }),
    );
  });

  it("grows and shrinks a disc with a hole to discs, within what is asked, and with no more points than they had", () => {
    const disc = (radius: number, turn: 1 | -1) =>
      polygonPath(
        Array.from({ length: 720 }, (_, i) => [
          100 + radius * Math.cos((turn * i * Math.PI) / 360),
          100 + radius * Math.sin((turn * i * Math.PI) / 360),
        ]).flat(),
      );
    const tolerance = 0.02;
    const ring = toPolygons([disc(80, 1), disc(40, -1)], tolerance);
    for (const by of [3, -3]) {
      const radii = [80 + by, 40 - by];
      const moved = linesOf(growRegion(ring, by, tolerance));
      expect(moved.length).toBe(2);
      for (const line of moved) {
        const away = line.flatMap((x, i) => (i % 2 === 0 ? [Math.hypot(x - 100, line[i + 1] - 100)] : []));
        const radius = radii.find((one) => Math.abs(one - away[0]) < 1) ?? 0;
        expect(Math.max(...away.map((one) => Math.abs(one - radius)))).toBeLessThan(tolerance);
        // It was drawn with so many; growing makes two of each.
        expect(away.length).toBeLessThanOrEqual(720);
      }
    }
  });
  it("fills small holes as far as is said, islands in them too, as the independent library does", () => {
    // One hole lies in what may be filled, with an island; one half in it; one outside; one is too large.
    const holes = [square(10, 10, 6), square(28, 10, 4), square(50, 10, 4), square(10, 40, 20)].map(reversePath);
    const region = toPolygons([square(0, 0, 100), ...holes, square(12, 12, 2)], 0.01);
    const filled = fillHoles(
      region,
      (areaPx) => areaPx < 50,
      () => toPolygons([square(5, 5, 25), square(5, 35, 30)], 0.01),
    );
    const small = [corners(10, 10, 6), corners(28, 10, 4), corners(50, 10, 4)];
    const within: MultiPolygon = [[corners(5, 5, 25)], [corners(5, 35, 30)]];
    const expected = polygonClipping.union(
      [[corners(0, 0, 100), ...small, corners(10, 40, 20)]],
      polygonClipping.intersection(
        small.map((one): Polygon => [one]),
        within,
      ),
    );
    expect(filled).toHaveLength(expected.flat().length);
    expect(polygonsArea(filled)).toBeCloseTo(areaOf(expected), 6);
    expect(
      fillHoles(
        region,
        (areaPx) => areaPx < 1,
        () => region,
      ),
    ).toBe(region);
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
