// Shapes whose geometry is known: what is traced of their picture (drawn by resvg) is measured against it.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import fontkit from "@pdf-lib/fontkit";
import { describe, expect, it } from "vitest";
import { layShapes, writeShapesSvg } from "../formats/index.ts";
import { asCircle, type CubicPath, flattenPath, isLine, lengthOf, pathArea, segmentCount } from "../geometry/index.ts";
import { makeRaster } from "../raster/index.ts";
import { drawExactly, PLAIN_SHAPES, paint, renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { countShapes, faceArea, type MapEdge, type MapFace, type PlanarMap } from "./index.ts";

const INK = "#14304f";
const traceSvg = (size: number, content: string) => traceRaster(drawExactly(size, content));

/** Faces of all that is not paper, largest first. A thin line never shows its colour pure. */
function inkFaces({ map }: ReturnType<typeof traceRaster>): MapFace[] {
  return map.faces.filter(({ spotId }) => spotId !== "ffffff").sort((a, b) => b.areaPx - a.areaPx);
}

const loops = (map: PlanarMap): MapEdge[] => map.edges.filter(({ start, read }) => start < 0 && read.length > 0);

describe("circles", () => {
  it.each([
    [60, 60, 3.3],
    [40.37, 41.62, 7.25],
    [61.3, 57.8, 31.4],
    [60.11, 60.93, 52.7],
  ])("at %d, %d with radius %d are one circle each, within 0.05 px", (cx, cy, r) => {
    const [loop, ...others] = loops(traceSvg(120, `<circle cx="${cx}" cy="${cy}" r="${r}" fill="${INK}"/>`).map);
    expect(others).toEqual([]);
    const circle = asCircle(loop.path);
    expect(Math.abs((circle?.radius ?? 0) - r)).toBeLessThan(0.05);
    expect(lengthOf((circle?.x ?? 0) - cx, (circle?.y ?? 0) - cy)).toBeLessThan(0.05);
  });
  it("keep their centre and radius where others touch them", () => {
    const traced = traceSvg(
      120,
      `<circle cx="36" cy="60" r="24" fill="${INK}"/><circle cx="84.5" cy="60" r="24" fill="${INK}"/>`,
    );
    const area = inkFaces(traced).reduce((sum, face) => sum + faceArea(face), 0);
    expect(Math.abs(area / (2 * Math.PI * 24 * 24) - 1)).toBeLessThan(0.005);
  });
});

describe("art that touches the picture's edge", () => {
  it("a full circle is an arc in each corner, true all the way, that leaves the edge where the circle does", () => {
    const { map } = traceSvg(200, `<circle cx="100" cy="100" r="100" fill="${INK}"/>`);
    const arcs = map.edges.filter(({ read }) => read.length > 0);
    expect(arcs).toHaveLength(4);
    for (const { path } of arcs) {
      expect(segmentCount(path)).toBeLessThanOrEqual(2);
      const points = flattenPath(path, 0.02);
      for (let i = 0; i < points.length; i += 2)
        expect(Math.abs(lengthOf(points[i] - 100, points[i + 1] - 100) - 100)).toBeLessThan(0.12);
    }
    // Half a pixel of cover ends 10 px beside the place where the circle touches.
    for (let v = 0; v < map.vertices.length; v += 2) {
      const [x, y] = [map.vertices[v], map.vertices[v + 1]];
      expect(Math.min(Math.abs(x - 100), Math.abs(y - 100))).toBeLessThan(4);
    }
  });
  it.each([100, 99.8])("a circle of radius %d cut out and trimmed to its box is one circle", (r) => {
    const { map } = traceRaster(
      renderSvg(
        `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200"><circle cx="100" cy="100" r="${r}" fill="${INK}"/></svg>`,
      ),
    );
    expect(map.edges).toHaveLength(1);
    const circle = asCircle(map.edges[0].path);
    expect(Math.abs((circle?.radius ?? 0) - r)).toBeLessThan(0.05);
    expect(lengthOf((circle?.x ?? 0) - 100, (circle?.y ?? 0) - 100)).toBeLessThan(0.05);
  });
  it("a slanting band meets it where it was drawn to", () => {
    const { map } = traceSvg(100, `<path d="M-10 20L110 32V44L-10 32Z" fill="${INK}"/>`);
    const ends: number[] = [];
    for (let v = 0; v < map.vertices.length; v += 2) if (map.vertices[v] === 0) ends.push(map.vertices[v + 1]);
    for (const [i, y] of [21, 33].entries()) expect(Math.abs(ends.sort((a, b) => a - b)[i] - y)).toBeLessThan(0.1);
  });
});

describe("tips between curved sides", () => {
  it.each([30, 45, 70])("of a lens of two arcs of radius %d lie within 0.15 px of where the arcs meet", (radius) => {
    const { map } = traceSvg(
      120,
      `<path d="M20.3 60.4A${radius + 30} ${radius + 30} 0 0 1 98.6 60.4A${radius} ${radius} 0 0 1 20.3 60.4Z" fill="${INK}"/>`,
    );
    const [{ path }] = loops(map);
    for (const [x, y] of [
      [20.3, 60.4],
      [98.6, 60.4],
    ]) {
      const distances: number[] = [];
      for (let i = 0; i < path.length; i += 6) distances.push(lengthOf(path[i] - x, path[i + 1] - y));
      expect(Math.min(...distances)).toBeLessThan(0.15);
    }
  });
});

describe("ellipses", () => {
  it.each([0, 20, 65])("turned by %d degrees are four cubics with their axes", (angle) => {
    const { map } = traceSvg(
      120,
      `<ellipse cx="60" cy="58" rx="44" ry="23" fill="${INK}" transform="rotate(${angle} 60 58)"/>`,
    );
    const [{ path }] = loops(map);
    expect(segmentCount(path)).toBe(4);
    const from = [0, 6, 12, 18].map((o) => lengthOf(path[o] - 60, path[o + 1] - 58)).sort((a, b) => a - b);
    for (const [i, half] of [23, 23, 44, 44].entries()) expect(Math.abs(from[i] - half)).toBeLessThan(0.08);
  });
});

/** Farthest that a corner of a box (left, top, right, bottom), turned round 60, 60, is from a node of a path of four lines, px. */
function cornersOff(path: CubicPath, [left, top, right, bottom]: readonly number[], angle: number): number {
  expect(segmentCount(path)).toBe(4);
  const turn = (angle * Math.PI) / 180;
  const off = [left, top, right, top, right, bottom, left, bottom].flatMap((_, i, box) => {
    if (i % 2 === 1) return [];
    const [u, v] = [box[i] - 60, box[i + 1] - 60];
    const [x, y] = [60 + u * Math.cos(turn) - v * Math.sin(turn), 60 + u * Math.sin(turn) + v * Math.cos(turn)];
    const nodes = [0, 1, 2, 3].map((s) => lengthOf(path[s * 6] - x, path[s * 6 + 1] - y));
    return Math.min(...nodes);
  });
  for (let s = 0; s < 4; s++) expect(isLine(path, s)).toBe(true);
  return Math.max(...off);
}

describe("stems as letters have them", () => {
  const cases = [2, 2.35, 2.8, 3.4, 4.3, 5.2].flatMap((width) => [0.1, 0.45, 0.8].map((at) => [width, at]));
  it.each(cases)("of %d px, upright, %d px off the grid, end square, corners within 0.15 px", (width, at) => {
    const [left, top] = [55 + at, 50.3];
    const { map } = traceSvg(120, `<rect x="${left}" y="${top}" width="${width}" height="18.3" fill="${INK}"/>`);
    expect(cornersOff(loops(map)[0].path, [left, top, left + width, top + 18.3], 0)).toBeLessThan(0.15);
  });
  it("with round ends keep them", () => {
    const { map } = traceSvg(
      120,
      `<path d="M40.2 50.4V70.7" fill="none" stroke="${INK}" stroke-width="3.4" stroke-linecap="round"/>`,
    );
    const [{ path }] = loops(map);
    const turns = Array.from({ length: segmentCount(path) }, (_, s) => isLine(path, s));
    expect(turns.filter((isStraight) => isStraight).length).toBeLessThanOrEqual(2);
    expect(pathArea(path)).toBeCloseTo(3.4 * 20.3 + Math.PI * 1.7 ** 2, 0);
  });
});

describe("squares", () => {
  it.each([0, 3, 11, 22.5, 33, 45])("turned by %d degrees are exactly four lines, corners within 0.1 px", (angle) => {
    const { map } = traceSvg(
      120,
      `<rect x="31.4" y="29.8" width="52.3" height="52.3" fill="${INK}" transform="rotate(${angle} 60 60)"/>`,
    );
    expect(cornersOff(loops(map)[0].path, [31.4, 29.8, 83.7, 82.1], angle)).toBeLessThan(0.1);
  });
  it("that stand upright have exact right angles", () => {
    const [{ path }] = loops(traceSvg(120, `<path d="M20.3 18.6H97.1V88.9H20.3Z" fill="${INK}"/>`).map);
    for (let s = 0; s < 4; s++) {
      const level = path[s * 6] === path[s * 6 + 6] || path[s * 6 + 1] === path[s * 6 + 7];
      expect(level).toBe(true);
    }
  });
  it("with rounded corners are four lines and four curves", () => {
    const [{ path }] = loops(traceSvg(160, `<rect x="20" y="30" width="120" height="90" rx="22" fill="${INK}"/>`).map);
    expect(segmentCount(path)).toBe(8);
    expect([0, 1, 2, 3, 4, 5, 6, 7].filter((s) => isLine(path, s))).toHaveLength(4);
  });
});

describe("rings", () => {
  it.each([1, 2, 3, 4])("of %d px stay closed and even", (width) => {
    const traced = traceSvg(
      120,
      `<circle cx="60.2" cy="59.7" r="40" fill="none" stroke="${INK}" stroke-width="${width}"/>`,
    );
    const [ring, ...others] = inkFaces(traced);
    expect(others).toEqual([]);
    expect(ring.rings).toHaveLength(2);
    const radii = ring.paths.map((path) => {
      const line = flattenPath(path, 0.05);
      const from = line.flatMap((x, i) => (i % 2 === 0 ? [lengthOf(x - 60.2, line[i + 1] - 59.7)] : []));
      return [Math.min(...from), Math.max(...from)];
    });
    const [inner, outer] = radii.sort((a, b) => a[0] - b[0]);
    expect(Math.abs(outer[0] - inner[1] - width)).toBeLessThan(0.25);
    expect(Math.abs(outer[1] - inner[0] - width)).toBeLessThan(0.25);
  });
});

describe("points", () => {
  it("of a five-pointed star are kept", () => {
    const at = (i: number, r: number) => {
      const angle = (i * Math.PI) / 5 - Math.PI / 2 + 0.1;
      return [80 + r * Math.cos(angle), 80 + r * Math.sin(angle)];
    };
    const star = Array.from({ length: 10 }, (_, i) => at(i, i % 2 === 0 ? 70 : 28));
    const [{ path }] = loops(
      traceSvg(160, `<path d="M${star.map((p) => p.join(" ")).join("L")}Z" fill="${INK}"/>`).map,
    );
    expect(segmentCount(path)).toBe(10);
    for (const [x, y] of star) {
      const off = Array.from({ length: 10 }, (_, s) => lengthOf(path[s * 6] - x, path[s * 6 + 1] - y));
      expect(Math.min(...off)).toBeLessThan(0.35);
    }
  });
});

describe("thin and winding things", () => {
  it("a spiral stays one shape, as wide all the way", () => {
    const turns = Array.from({ length: 400 }, (_, i) => {
      const angle = (i / 399) * 6 * Math.PI;
      const r = 8 + (i / 399) * 60;
      return `${80 + r * Math.cos(angle)} ${80 + r * Math.sin(angle)}`;
    });
    const traced = traceSvg(160, `<path d="M${turns.join("L")}" fill="none" stroke="${INK}" stroke-width="5"/>`);
    const [spiral, ...others] = inkFaces(traced);
    expect(others).toEqual([]);
    let length = 0;
    const xy = turns.map((turn) => turn.split(" ").map(Number));
    for (let i = 1; i < xy.length; i++) length += lengthOf(xy[i][0] - xy[i - 1][0], xy[i][1] - xy[i - 1][1]);
    expect(Math.abs(faceArea(spiral) / (5 * length) - 1)).toBeLessThan(0.01);
  });
  it("a line of one pixel stays, one pixel wide", () => {
    const traced = traceSvg(120, `<path d="M20 30.5L100 90.5" stroke="${INK}" stroke-width="1"/>`);
    const [line, ...others] = inkFaces(traced);
    expect(others).toEqual([]);
    expect(Math.abs(faceArea(line) - 100)).toBeLessThan(12);
  });
});

describe("a checkerboard", () => {
  it("has every junction in its place", () => {
    const cell = 11;
    const { map } = traceRaster(
      paint(66, 66, (x, y) =>
        (Math.floor(x / cell) + Math.floor(y / cell)) % 2 === 0 ? [20, 48, 79] : [242, 177, 52],
      ),
    );
    expect(map.faces).toHaveLength(36);
    const inside: string[] = [];
    for (let v = 0; v < map.vertices.length; v += 2) {
      const [x, y] = [map.vertices[v] / cell, map.vertices[v + 1] / cell];
      expect(Math.abs(x - Math.round(x)) + Math.abs(y - Math.round(y))).toBeLessThan(0.01);
      if (x > 0.5 && x < 5.5 && y > 0.5 && y < 5.5) inside.push(`${Math.round(x)},${Math.round(y)}`);
    }
    expect(new Set(inside).size).toBe(25);
    for (const face of map.faces) expect(faceArea(face)).toBeCloseTo(cell * cell, 6);
  });
});

describe("almost nothing", () => {
  it("one colour is one shape, a clear picture none", () => {
    expect(countShapes(traceRaster(paint(30, 20, () => [20, 48, 79])).map)).toEqual({ shapes: 1, nodes: 4 });
    const { map } = traceRaster(makeRaster(30, 20, new Uint8ClampedArray(30 * 20 * 4)));
    expect([map.faces.length, map.edges.length]).toEqual([0, 0]);
  });
});

describe("text of 12 px x-height", () => {
  const require = createRequire(import.meta.url);
  const font = fontkit.create(
    readFileSync(require.resolve("dejavu-fonts-ttf/ttf/DejaVuSans.ttf")) as never,
  ) as unknown as {
    layout(text: string): {
      glyphs: readonly {
        advanceWidth: number;
        bbox: { maxY: number };
        path: { toSVG(): string; commands: { command: string }[] };
      }[];
    };
  };
  const zoom = 16;
  const [width, height] = [150, 36];
  it.each(["agents", "Ferry 8", "kite & sax", "HELP 4 U"])("%s reads like the font's own outlines", (text) => {
    const scale = 12 / font.layout("x").glyphs[0].bbox.maxY;
    let x = 8.3;
    const glyphs = font.layout(text).glyphs.map(({ path, advanceWidth }) => {
      const at = x;
      x += advanceWidth * scale;
      return { outlines: path.commands.filter(({ command }) => command === "closePath").length, d: path.toSVG(), at };
    });
    const ink = glyphs.map(
      ({ d, at }) => `<path transform="translate(${at} 25.6) scale(${scale} ${-scale})" d="${d}" fill="${INK}"/>`,
    );
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}"><rect width="${width}" height="${height}" fill="#fff"/>${ink.join("")}</svg>`;
    // A wide tolerance, as for the drawing around it: small text keeps to its own.
    const { map, reduction } = traceRaster(renderSvg(svg), { ...PLAIN_SHAPES, tolerancePx: 0.8 });
    const outlines = map.edges.filter(({ read }) => read.length > 0);
    expect(outlines).toHaveLength(glyphs.reduce((sum, glyph) => sum + glyph.outlines, 0));
    const size = `width="${width}" height="${height}"`;
    const traced = renderSvg(
      writeShapesSvg(layShapes(map, reduction.spots, 1)).replace(/width="[^"]*" height="[^"]*"/, size),
      zoom,
    );
    const drawn = renderSvg(svg, zoom);
    let off = 0;
    for (let i = 0; i < drawn.data.length; i += 4) if (drawn.data[i] > 138 !== traced.data[i] > 138) off++;
    let length = 0;
    for (const { path } of outlines) {
      const line = flattenPath(path, 0.05);
      for (let i = 0; i + 3 < line.length; i += 2) length += lengthOf(line[i + 2] - line[i], line[i + 3] - line[i + 1]);
    }
    expect(off / (zoom * zoom) / length).toBeLessThan(0.12);
  });
});
