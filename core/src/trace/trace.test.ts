import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Rgb } from "../colour/index.ts";
import { layShapes, writeShapesSvg } from "../formats/index.ts";
import { flattenPath, isLine, pathArea, segmentCount } from "../geometry/index.ts";
import { drawSvg, PLAIN_SHAPES, paint, renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { BARE, countShapes, faceArea, type MapFace, type PlanarMap, ringPath } from "./index.ts";

const COLOURS: readonly Rgb[] = [
  [20, 48, 79],
  [216, 65, 47],
  [242, 177, 52],
  [31, 122, 140],
];

/** Small pictures of two to four colours in blocks, junctions and checkerboards among them. */
const blocks = fc
  .tuple(fc.integer({ min: 2, max: 7 }), fc.integer({ min: 2, max: 7 }), fc.integer({ min: 1, max: 4 }))
  .chain(([w, h, cell]) =>
    fc.tuple(
      fc.constant({ w, h, cell }),
      fc.array(fc.integer({ min: 0, max: 3 }), { minLength: w * h, maxLength: w * h }),
    ),
  )
  .map(([{ w, h, cell }, labels]) =>
    paint(w * cell, h * cell, (x, y) => COLOURS[labels[Math.floor(y / cell) * w + Math.floor(x / cell)]]),
  );

/** Length of a polyline. */
function lengthAlong(line: readonly number[]): number {
  let length = 0;
  for (let i = 2; i < line.length; i += 2) length += Math.hypot(line[i] - line[i - 2], line[i + 1] - line[i - 1]);
  return length;
}

/** Twice the signed area of all faces and of every ring's ends. */
function checkRings(map: PlanarMap): void {
  for (const face of map.faces) {
    expect(face.rings.length).toBeGreaterThan(0);
    for (const ring of face.rings) {
      const path = ringPath(map, ring);
      expect([path[path.length - 2], path[path.length - 1]]).toEqual([path[0], path[1]]);
    }
    // Exactly one ring runs round the face; the others, turning the other way, are holes.
    expect(face.rings.filter((ring) => pathArea(ringPath(map, ring)) < 0).length).toBeLessThanOrEqual(1);
  }
}

describe("the planar map", () => {
  it("closes every face, and uses every boundary once from each side", () => {
    fc.assert(
      fc.property(blocks, (raster) => {
        const { map } = traceRaster(raster, { ...PLAIN_SHAPES, specksPx: 0 });
        checkRings(map);
        const uses = new Map<number, number>();
        for (const face of map.faces)
          for (const ring of face.rings) for (const half of ring) uses.set(half, (uses.get(half) ?? 0) + 1);
        map.edges.forEach((edge, e) => {
          expect(uses.get(2 * e) ?? 0).toBe(edge.left === BARE ? 0 : 1);
          expect(uses.get(2 * e + 1) ?? 0).toBe(edge.right === BARE ? 0 : 1);
          expect(edge.left).not.toBe(edge.right);
        });
      }),
      { numRuns: 300 },
    );
  });

  it("leaves no gap and no overlap: the faces of an opaque picture add up to it", () => {
    fc.assert(
      fc.property(blocks, (raster) => {
        const { map } = traceRaster(raster, { ...PLAIN_SHAPES, specksPx: 0 });
        const total = map.faces.reduce((sum, face) => sum + faceArea(face), 0);
        expect(total).toBeCloseTo(raster.width * raster.height, 6);
      }),
      { numRuns: 300 },
    );
  });

  it("shows no hairline when an independent renderer (resvg) draws shapes.svg with smooth edges", () => {
    const raster = drawSvg(
      240,
      '<circle cx="90" cy="100" r="70" fill="#d8412f"/><path d="M20 20L220 90L130 230Z" fill="#14304f"/><path d="M10 200Q120 120 230 210L230 235Q120 170 10 235Z" fill="#f2b134"/>',
    );
    const { map, reduction } = traceRaster(raster);
    const svg = writeShapesSvg(layShapes(map, reduction.spots, 1)).replace(
      /width="[^"]*" height="[^"]*"/,
      'width="240" height="240"',
    );
    const inner = map.edges.filter(({ left, right }) => left !== BARE && right !== BARE);
    const boundaryPx = inner.reduce((sum, { path }) => sum + lengthAlong(flattenPath(path, 0.1)), 0);
    for (const zoom of [1, 3.3]) {
      const drawn = renderSvg(svg, zoom);
      let least = 255;
      let missing = 0;
      for (let i = 3; i < drawn.data.length; i += 4) {
        least = Math.min(least, drawn.data[i]);
        missing += (255 - drawn.data[i]) / 255;
      }
      // Where three colours meet, two ends of seams and three edges are blended in one pixel.
      expect(least).toBeGreaterThan(235);
      // As a line all along the boundaries, what shines through would be no wider than this.
      expect(missing / (zoom * boundaryPx)).toBeLessThan(0.01);
    }
  });
});

describe("curves", () => {
  it("a circle is one circle of its true centre and radius", () => {
    const { map } = traceRaster(drawSvg(120, '<circle cx="61.3" cy="57.8" r="31.4" fill="#14304f"/>'));
    const circle = map.edges.find((edge) => edge.start < 0 && segmentCount(edge.path) === 4 && !isLine(edge.path, 0));
    if (!circle) throw new Error("no circle was traced");
    const xs = [0, 6, 12, 18].map((o) => circle.path[o]);
    const ys = [1, 7, 13, 19].map((o) => circle.path[o]);
    expect((Math.max(...xs) + Math.min(...xs)) / 2).toBeCloseTo(61.3, 1);
    expect((Math.max(...ys) + Math.min(...ys)) / 2).toBeCloseTo(57.8, 1);
    expect((Math.max(...xs) - Math.min(...xs)) / 2).toBeCloseTo(31.4, 1);
  });

  it("a wider tolerance never gives a wavy outline more nodes", () => {
    const blot =
      '<path fill="#14304f" d="M40 60q15 -14 30 0t30 0t30 0t30 0q16 18 0 36t4 34t-4 34t0 36q-16 14 -30 0t-30 2t-30 -2t-30 0q-15 -18 0 -36t-3 -34t3 -34t0 -36z"/>';
    const raster = drawSvg(220, blot);
    const counts = [0.1, 0.2, 0.5, 1, 2, 4].map(
      (tolerancePx) => countShapes(traceRaster(raster, { ...PLAIN_SHAPES, tolerancePx }).map).nodes,
    );
    expect(counts).toEqual([...counts].sort((a, b) => b - a));
    // It was drawn with sixteen curves.
    expect(counts[1]).toBeLessThanOrEqual(24);
  });

  it.each([0, 5, 17, 45])("a square turned by %d degrees is four lines with its corners in place", (angle) => {
    const { map } = traceRaster(
      drawSvg(120, `<rect x="35" y="35" width="50" height="50" fill="#14304f" transform="rotate(${angle} 60 60)"/>`),
    );
    const square = map.edges.find((edge) => edge.start < 0 && edge.path[0] > 1);
    if (!square) throw new Error("no square was traced");
    expect(segmentCount(square.path)).toBe(4);
    const half = Math.hypot(25, 25);
    for (let s = 0; s < 4; s++) {
      expect(isLine(square.path, s)).toBe(true);
      expect(Math.abs(Math.hypot(square.path[s * 6] - 60, square.path[s * 6 + 1] - 60) - half)).toBeLessThan(0.15);
    }
  });

  it("a thin ring stays closed, with its hole", () => {
    const { map, reduction } = traceRaster(
      drawSvg(120, '<circle cx="60" cy="60" r="40" fill="none" stroke="#d8412f" stroke-width="2"/>'),
    );
    const red = reduction.spots.find((spot) => spot.id === "d8412f");
    const rings = map.faces.filter((face) => face.spotId === red?.id);
    expect(rings).toHaveLength(1);
    expect(rings[0].rings).toHaveLength(2);
    expect(faceArea(rings[0])).toBeCloseTo(2 * Math.PI * 40 * 2, -1);
  });

  it("puts a boundary where its coverage says, not on the pixel grid", () => {
    const { map } = traceRaster(drawSvg(100, '<path d="M0 0H33.25V100H0Z" fill="#14304f"/>'));
    const inner = map.edges.find((edge) => edge.left !== BARE && edge.right !== BARE);
    if (!inner) throw new Error("no boundary between the halves");
    for (let i = 0; i < inner.path.length; i += 6) expect(inner.path[i]).toBeCloseTo(33.25, 1);
  });

  it("gives specks, dark in light and light in dark, to what surrounds them", () => {
    const speckled = paint(60, 60, (x, y) => {
      const isDark = x < 30;
      const isSpeck = (x === 10 && y === 10) || (x === 45 && (y === 20 || y === 21));
      return COLOURS[isDark !== isSpeck ? 0 : 2];
    });
    expect(countShapes(traceRaster(speckled, { ...PLAIN_SHAPES, specksPx: 0 }).map).shapes).toBe(4);
    expect(countShapes(traceRaster(speckled, PLAIN_SHAPES).map).shapes).toBe(2);
  });

  it("never swings away from its pixels, even where the picture shades on one side", () => {
    const shaded = renderSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="260"><defs><linearGradient id="g" x2="0" y2="1"><stop offset="0" stop-color="#27306b"/><stop offset="1" stop-color="#ffd27a"/></linearGradient></defs><path d="M20.4 12.4H280.4V130Q280 200 150 250Q20 200 20.4 130Z" fill="url(#g)" stroke="#14161f" stroke-width="8"/></svg>',
    );
    const { map, findings } = traceRaster(shaded);
    for (const face of map.faces) {
      // Where the picture shades there is no edge to read: a third of a pixel along the boundary is the grid's own step.
      expect(Math.abs(faceArea(face) - face.areaPx)).toBeLessThan(30 + outlineLength(face) / 3);
    }
    expect(findings.found.length).toBeGreaterThan(4);
  });

  it("a picture of one colour is one shape of four lines", () => {
    const { map } = traceRaster(paint(30, 20, () => COLOURS[1]));
    expect(countShapes(map)).toEqual({ shapes: 1, nodes: 4 });
  });
});

/** Length of a face's outline from node to node, px. */
function outlineLength(face: MapFace): number {
  let length = 0;
  for (const path of face.paths)
    for (let i = 6; i < path.length; i += 6) length += Math.hypot(path[i] - path[i - 6], path[i + 1] - path[i - 5]);
  return length;
}
