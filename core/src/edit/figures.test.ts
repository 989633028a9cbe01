import { describe, expect, it } from "vitest";
import { asCircle, boundsOfAll, flattenPath, pathArea, segmentCount } from "../geometry/index.ts";
import { areasBy } from "../lay/lay.test.support.ts";
import { turn, wholeFrame } from "../raster/index.ts";
import { EMPTY_LIBRARY, makeRecipe, placeEdits, scaleRecipe } from "../recipe/index.ts";
import { calmLine, type Figure, figurePaths, widenStroke } from "./index.ts";

const at = { x: 60, y: 50 };
const area = (figure: Figure) => -figurePaths(figure).reduce((sum, path) => sum + pathArea(path), 0);
/** Area by a general polygon library (clipper2-ts, BSL), non-zero: where parts of a stroke lie on each other it counts once. */
const covered = (figure: Figure) =>
  areasBy([], figurePaths(figure), { width: 200, height: 200, vertices: new Float64Array(), edges: [], faces: [] })
    .both;

describe("a figure", () => {
  it("has the area that elementary geometry gives it", () => {
    expect(area({ kind: "ellipse", at, width: 30, height: 20, angleDeg: 33 }) / (Math.PI * 15 * 10)).toBeCloseTo(1, 3);
    expect(area({ kind: "rectangle", at, width: 30, height: 20, radius: 0, angleDeg: -70 })).toBeCloseTo(600, 9);
    const rounded = area({ kind: "rectangle", at, width: 30, height: 20, radius: 4, angleDeg: 0 });
    expect(rounded).toBeCloseTo(600 - (4 - Math.PI) * 16, 1);
    // A regular polygon in a circle of radius r: n r^2 sin(2 pi / n) / 2.
    for (const corners of [3, 5, 6, 12])
      expect(area({ kind: "polygon", at, width: 40, corners, angleDeg: 10 })).toBeCloseTo(
        (corners * 400 * Math.sin((2 * Math.PI) / corners)) / 2,
        6,
      );
  });

  it("lies about its place, however it is turned, and a polygon's first corner is at the top", () => {
    const { left, right, top, bottom } = boundsOfAll(
      figurePaths({ kind: "rectangle", at, width: 30, height: 20, radius: 3, angleDeg: 90 }),
    );
    expect([left, right, top, bottom].map((v) => Number(v.toFixed(6)))).toEqual([50, 70, 35, 65]);
    const [triangle] = figurePaths({ kind: "polygon", at, width: 20, corners: 3, angleDeg: 0 });
    expect([triangle[0], triangle[1]].map((v) => Number(v.toFixed(6)))).toEqual([60, 40]);
  });

  it("that is a stroke covers its width along its line, flat at its ends and round at its corners", () => {
    const straight: Figure = { kind: "stroke", curve: [20, 20, 20, 20, 80, 100, 80, 100], width: 6 };
    expect(area(straight)).toBeCloseTo(100 * 6, 6);
    // A quarter of a ring of radius 40 (four cubics to a circle).
    const k = 40 * (4 / 3) * (Math.SQRT2 - 1);
    const arc: Figure = { kind: "stroke", curve: [100, 60, 100, 60 + k, 60 + k, 100, 60, 100], width: 8 };
    expect(covered(arc)).toBeCloseTo((Math.PI / 2) * 40 * 8, 0);
    const bent: Figure = { kind: "stroke", curve: [20, 20, 20, 20, 60, 20, 60, 20, 60, 20, 60, 60, 60, 60], width: 10 };
    // Two bands that share a quarter of the disc at the corner... counted by the library.
    expect(covered(bent)).toBeCloseTo(800 - 25 + (Math.PI * 25) / 4, 0);
  });

  it("drawn by a trembling hand is a calm curve near its line, in a few pieces", () => {
    // Half a circle of radius 40, a point every degree or so, each up to 0.4 aside.
    const points = Array.from({ length: 180 }, (_, i) => {
      const [angle, radius] = [(i * Math.PI) / 179, 40 + 0.4 * Math.sin(i * 2.399)];
      return [100 + radius * Math.cos(angle), 100 + radius * Math.sin(angle)];
    }).flat();
    const curve = calmLine(points, 0.5);
    expect(segmentCount(curve)).toBeLessThan(7);
    expect([curve[0], curve[1]]).toEqual([points[0], points[1]]);
    const line = flattenPath(curve, 0.01);
    for (let i = 0; i < line.length; i += 2)
      expect(Math.abs(Math.hypot(line[i] - 100, line[i + 1] - 100) - 40)).toBeLessThan(0.6);
  });

  it("turns by any angle as sine and cosine say", () => {
    for (const angle of [-350, -200, -90, 0, 45, 135, 180, 300])
      expect([turn(angle).sin, turn(angle).cos]).toEqual([
        expect.closeTo(Math.sin((angle * Math.PI) / 180), 12),
        expect.closeTo(Math.cos((angle * Math.PI) / 180), 12),
      ]);
  });
});

describe("a held measure", () => {
  const recipe = makeRecipe({
    shapes: {
      entries: [
        {
          id: "a",
          kind: "draw",
          figure: { kind: "ellipse", at: { x: 100, y: 80 }, width: 50, height: 50 },
          spotId: null,
          heldMm: 3.175,
        },
      ],
    },
  });
  it("is millimetres on the garment, whatever the print's size or the picture's pixels", () => {
    for (const [factor, mmPerPx] of [
      [1, 0.1],
      [1, 0.27],
      [2, 0.05],
    ] as const) {
      const [{ edit }] = placeEdits(
        scaleRecipe(recipe, factor).shapes.entries,
        wholeFrame(400 * factor, 300 * factor),
        mmPerPx,
        EMPTY_LIBRARY,
      );
      const circle = edit.kind === "lay" ? asCircle(edit.paths[0]) : null;
      expect((circle?.radius ?? 0) * 2 * mmPerPx).toBeCloseTo(3.175, 9);
      expect([circle?.x, circle?.y]).toEqual([expect.closeTo(100 * factor, 9), expect.closeTo(80 * factor, 9)]);
    }
  });
});

describe("a stroke with a right-angled corner", () => {
  const corner = Float64Array.from([0, 0, 0, 0, 10, 0, 10, 0, 10, 0, 10, 10, 10, 10]);
  const ring = Float64Array.from([...corner, 10, 10, 0, 0, 0, 0]);
  const empty = { width: 40, height: 40, vertices: new Float64Array(0), edges: [], faces: [] };
  /** By the polygon library, as above. */
  const area = (curve: Float64Array, look: Parameters<typeof widenStroke>[2]) =>
    areasBy(
      [],
      widenStroke(curve, 2, look).map((path) => path.map((v) => v + 12)),
      empty,
    ).both;
  // Arithmetic: two bars of 2 by 11 and 2 by 9 make it with its point; cut off, half a square less; round, a square less
  // its quarter circle.
  it.each([
    [{ corners: { miterLimit: 4 }, ends: "flat" }, 40],
    [{ corners: { miterLimit: 1.2 }, ends: "flat" }, 39.5],
    [{ corners: "cut", ends: "flat" }, 39.5],
    [{ corners: "round", ends: "flat" }, 39 + Math.PI / 4],
    [{ corners: "cut", ends: "square" }, 39.5 + 4],
    [{ corners: "cut", ends: "round" }, 39.5 + Math.PI],
  ] as const)("covers what %j says", (look, expected) => {
    expect(area(corner, look)).toBeCloseTo(expected, 3);
  });
  it("has no ends where it is closed", () => {
    // A right-angled triangle of sides 10: its outline, inside and out, with three points.
    const look = { corners: { miterLimit: 10 }, ends: "flat" } as const;
    const [outer, inner] = [10 + 2 + Math.SQRT2, 10 - 2 - Math.SQRT2];
    expect(area(ring, look)).toBeCloseTo((outer * outer - inner * inner) / 2, 3);
  });
});
