// Tracing and simplifying as laws that hold for any picture (fast-check).
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Rgb } from "../colour/index.ts";
import { asCircle, type CubicPath, flattenPath, isLine, lengthOf, pathArea, segmentCount } from "../geometry/index.ts";
import { NONE } from "../raster/index.ts";
import { drawExactly, PLAIN_SHAPES, traceRaster } from "../testing/pictures.test.support.ts";
import { findCrossing } from "./fit/index.ts";
import { BARE, faceArea, type PlanarMap, ringPath, type Simplification, simplifyMap } from "./index.ts";

const COLOURS: readonly Rgb[] = [
  [20, 48, 79],
  [216, 65, 47],
  [242, 177, 52],
  [31, 122, 140],
];

/** SVG content: up to five blots, round or pointed, one over another. */
const blots = fc
  .array(
    fc.record({
      x: fc.integer({ min: 5, max: 75 }),
      y: fc.integer({ min: 5, max: 75 }),
      radii: fc.array(fc.integer({ min: 6, max: 26 }), { minLength: 3, maxLength: 7 }),
      colour: fc.integer({ min: 0, max: 3 }),
      isRound: fc.boolean(),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((shapes) =>
    shapes
      .map(({ x, y, radii, colour, isRound }) => {
        const n = radii.length;
        const place = (turn: number, r: number) => {
          const angle = (turn * 2 * Math.PI) / n;
          return `${(x + r * Math.cos(angle)).toFixed(2)} ${(y + r * Math.sin(angle)).toFixed(2)}`;
        };
        const sides = radii.map((r, i) => {
          const next = radii[(i + 1) % n];
          return isRound ? `Q${place(i + 0.5, 0.6 * (r + next))} ${place(i + 1, next)}` : `L${place(i + 1, next)}`;
        });
        return `<path fill="rgb(${COLOURS[colour].join(" ")})" d="M${place(0, radii[0])}${sides.join("")}Z"/>`;
      })
      .join(""),
  );

const RUNS = { numRuns: 40 };
const traced = (content: string, tolerancePx = PLAIN_SHAPES.tolerancePx) =>
  traceRaster(drawExactly(80, content), { ...PLAIN_SHAPES, specksPx: 0, tolerancePx });

const all = (tolerancePx: number): Simplification[] => [{ tolerancePx, scope: { kind: "all" } }];

/** Every face closed, its outline running one way and its holes the other, and all of them together the whole picture. */
function checkWhole(map: PlanarMap): void {
  let total = 0;
  for (const face of map.faces) {
    const paths = face.rings.map((ring) => ringPath(map, ring));
    for (const path of paths) expect([...path.slice(-2)]).toEqual([...path.slice(0, 2)]);
    expect(paths.filter((path) => pathArea(path) < 0)).toHaveLength(1);
    total += faceArea(face);
  }
  expect(total).toBeCloseTo(map.width * map.height, 6);
}

/** Farthest that any point of one path lies from another, both looked at closely. */
function farthest(from: CubicPath, to: CubicPath): number {
  const line = flattenPath(to, 0.005);
  const points = flattenPath(from, 0.005);
  let most = 0;
  for (let i = 0; i < points.length; i += 2) {
    let nearest = Number.POSITIVE_INFINITY;
    for (let k = 0; k + 3 < line.length; k += 2) {
      const [dx, dy] = [line[k + 2] - line[k], line[k + 3] - line[k + 1]];
      const t = ((points[i] - line[k]) * dx + (points[i + 1] - line[k + 1]) * dy) / (dx * dx + dy * dy || 1);
      const u = Math.min(1, Math.max(0, t));
      nearest = Math.min(nearest, lengthOf(line[k] + u * dx - points[i], line[k + 1] + u * dy - points[i + 1]));
    }
    most = Math.max(most, nearest);
  }
  return most;
}

const nodesOf = (map: PlanarMap) => map.edges.reduce((sum, { path }) => sum + segmentCount(path), 0);

describe("tracing any picture", () => {
  it("leaves no gap and no overlap, and closes every face the right way round", () => {
    fc.assert(
      fc.property(blots, fc.constantFrom(0.1, 0.2, 1, 3), (content, tolerance) => {
        const { map } = traced(content, tolerance);
        checkWhole(map);
        expect(findCrossing(map.edges).size).toBe(0);
      }),
      RUNS,
    );
  });
  it("gives every colour the area of its coverage within five in a thousand", () => {
    fc.assert(
      fc.property(blots, (content) => {
        const { map, findings, reduction } = traceRaster(drawExactly(160, `<g transform="scale(2)">${content}</g>`), {
          ...PLAIN_SHAPES,
          specksPx: 0,
        });
        // The sum of what every pixel holds of a colour: red is a measure of it where only two colours are about.
        fc.pre(reduction.spots.length === 2);
        const [a, b] = reduction.spots;
        const whole = 160 * 160;
        let coverage = 0;
        findings.labels.data.forEach((label, p) => {
          if (label === NONE) return;
          const along = a.rgb.reduce(
            (sum, v, c) => sum + (findings.raster.data[p * 4 + c] - b.rgb[c]) * (v - b.rgb[c]),
            0,
          );
          coverage += along / a.rgb.reduce((sum, v, c) => sum + (v - b.rgb[c]) ** 2, 0);
        });
        const area = map.faces.reduce((sum, face) => sum + (face.spotId === a.id ? faceArea(face) : 0), 0);
        // In a colour of less than 30 px square, half a pixel at each of a few corners is more than that.
        fc.pre(coverage > 900 && whole - coverage > 900);
        expect(Math.abs(area / coverage - 1)).toBeLessThan(0.005);
        expect(Math.abs((whole - area) / (whole - coverage) - 1)).toBeLessThan(0.005);
      }),
      { numRuns: 15 },
    );
  });
});

describe("simplifying any map", () => {
  it("never moves a boundary farther than the tolerance, and never adds a node", () => {
    fc.assert(
      fc.property(blots, fc.constantFrom(0.2, 0.5, 1.5), (content, tolerance) => {
        const { map } = traced(content);
        const simple = simplifyMap(map, all(tolerance));
        simple.edges.forEach(({ path }, e) => {
          if (path === map.edges[e].path) return;
          expect(farthest(path, map.edges[e].path)).toBeLessThan(tolerance * 1.01);
          expect(farthest(map.edges[e].path, path)).toBeLessThan(tolerance * 1.01);
        });
        expect(nodesOf(simple)).toBeLessThanOrEqual(nodesOf(map));
      }),
      RUNS,
    );
  });
  it("never makes boundaries cross, never loses a hole or a face, keeps everything closed", () => {
    fc.assert(
      fc.property(blots, fc.constantFrom(0.5, 2, 6), (content, tolerance) => {
        const { map } = traced(content);
        const simple = simplifyMap(map, all(tolerance));
        checkWhole(simple);
        expect(simple.faces.map(({ rings }) => rings.length)).toEqual(map.faces.map(({ rings }) => rings.length));
        expect(findCrossing(simple.edges).size).toBe(0);
      }),
      RUNS,
    );
  });
});

describe("what simplifying keeps", () => {
  const drawing = drawExactly(
    160,
    '<path fill="#14304f" d="M10 10H150V120Q146 150 110 149Q86 150 80 144Q70 136 60 147Q40 152 10 140Z"/>' +
      '<circle cx="50.3" cy="60.8" r="21.7" fill="#f2b134"/><circle cx="50.3" cy="60.8" r="4.4" fill="#14304f"/>' +
      '<path fill="#d8412f" d="M90 40q10 -8 20 0t20 0q6 12 0 22t2 20q-10 4 -21 0t-21 1q-5 -11 0 -21t0 -22z"/>',
  );
  const { map, reduction } = traceRaster(drawing, { ...PLAIN_SHAPES, tolerancePx: 0.1 });
  const red = reduction.spots.find(({ rgb }) => rgb[0] > 200 && rgb[2] < 60 && rgb[1] < 100)?.id ?? "";

  it("circles and straight lengths, to the last digit", () => {
    const simple = simplifyMap(map, all(1.2));
    expect(nodesOf(simple)).toBeLessThan(nodesOf(map));
    const circles = (m: PlanarMap) => m.edges.flatMap(({ path }) => asCircle(path) ?? []);
    expect(circles(simple)).toEqual(circles(map));
    expect(circles(simple)).toHaveLength(2);
    const lengths = (m: PlanarMap) =>
      m.edges.flatMap(({ path }) =>
        Array.from({ length: segmentCount(path) }, (_, s) =>
          isLine(path, s) ? lengthOf(path[s * 6 + 6] - path[s * 6], path[s * 6 + 7] - path[s * 6 + 1]) : 0,
        ).filter((length) => length > 20),
      );
    expect(lengths(simple)).toEqual(lengths(map));
  });
  it.each<Simplification["scope"]>([
    { kind: "spot", spotId: red },
    { kind: "shape", at: { x: 110, y: 60 } },
  ])("everything but what was asked for ($kind)", (scope) => {
    const simple = simplifyMap(map, [{ tolerancePx: 1.2, scope }]);
    const changed = simple.edges.filter(({ path }, e) => path !== map.edges[e].path);
    expect(changed.length).toBeGreaterThan(0);
    for (const { left, right } of changed) {
      const sides = [left, right].flatMap((face) => (face === BARE ? [] : [simple.faces[face].spotId]));
      expect(sides).toContain(red);
    }
  });
  it("nothing at a place where there is no shape", () => {
    const simple = simplifyMap(map, [{ tolerancePx: 1, scope: { kind: "shape", at: { x: -5, y: 900 } } }]);
    expect(simple.edges.map(({ path }) => path)).toEqual(map.edges.map(({ path }) => path));
  });
});
