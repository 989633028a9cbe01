import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  boundsOf,
  type CubicPath,
  joinPaths,
  nearestOnPath,
  nodesOf,
  partOfPath,
  reversePath,
  segmentCount,
} from "../geometry/index.ts";
import { renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { type PlanarMap, spotPaths } from "../trace/index.ts";
import { layOutlines } from "./index.ts";
import { areasBy, expectPlanar, spotArea } from "./lay.test.support.ts";

/** Ten flat icons (npm @iconify-json/fluent-emoji-flat, MIT), each with up to eight colours, 96 px wide. */
const NAMES = [
  "artist-palette",
  "balloon",
  "beach-with-umbrella",
  "bell",
  "bicycle",
  "birthday-cake",
  "castle",
  "fish",
  "lighthouse",
  "sailboat",
];

function readMaps(): PlanarMap[] {
  const { icons } = JSON.parse(
    readFileSync(createRequire(import.meta.url).resolve("@iconify-json/fluent-emoji-flat/icons.json"), "utf8"),
  );
  const names = [...NAMES.filter((name) => icons[name]), ...Object.keys(icons).sort()].slice(0, 10);
  return names.map((name) => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 32 32">${icons[name].body}</svg>`;
    return traceRaster(renderSvg(svg, 3)).map;
  });
}
const MAPS = readMaps();

const coordinate = fc.integer({ min: -8000, max: 104000 }).map((v) => v / 1000);
/** Cubics through random points with random handles: they cross everything, and themselves. */
const loose = fc
  .array(fc.tuple(coordinate, coordinate, coordinate, coordinate, coordinate, coordinate), {
    minLength: 2,
    maxLength: 6,
  })
  .map((parts): CubicPath => {
    const flat = parts.flat();
    return Float64Array.from([...flat.slice(-2), ...flat]);
  });

/** Two stretches of boundaries of the map, joined by curves: an outline that touches and runs along what is there. */
function alongMap(map: PlanarMap, seeds: readonly number[], bow: number): CubicPath {
  const parts: CubicPath[] = [];
  for (let k = 0; k + 2 < seeds.length; k += 3) {
    const edge = map.edges[Math.floor(seeds[k] * map.edges.length)].path;
    const ends = [seeds[k + 1], seeds[k + 2]].map((share) => share * segmentCount(edge)).sort((a, b) => a - b);
    if (ends[1] - ends[0] < 0.01) ends[1] = Math.min(segmentCount(edge), ends[0] + 0.5);
    const part = partOfPath(edge, ends[0], ends[1]);
    parts.push((seeds[k] * 1000) % 2 > 1 ? part : reversePath(part));
  }
  const closed = parts.flatMap((part, k) => {
    const next = parts[(k + 1) % parts.length];
    const [x0, y0, x1, y1] = [part[part.length - 2], part[part.length - 1], next[0], next[1]];
    const [dx, dy] = [(x1 - x0) / 3, (y1 - y0) / 3];
    return [
      part,
      Float64Array.from([
        x0,
        y0,
        x0 + dx - bow * dy,
        y0 + dy + bow * dx,
        x1 - dx - bow * dy,
        y1 - dy + bow * dx,
        x1,
        y1,
      ]),
    ];
  });
  return joinPaths(closed);
}

/** Nearer than this an outline may leave a sliver that goes, and its other side with it, px. */
const SLIVER_PX = 0.05;

const share = fc.integer({ min: 0, max: 9999 }).map((v) => v / 10000);
const seeds = fc.array(share, { minLength: 6, maxLength: 9 }).map((all) => all.slice(0, all.length - (all.length % 3)));

function check(map: PlanarMap, outline: CubicPath, spotId: string | null): void {
  const laid = layOutlines(map, {
    laid: [{ paths: [outline] }],
    decide: (cell) => (cell.windings[0] !== 0 ? spotId : cell.spotId),
  });
  expect(laid).not.toBeNull();
  if (!laid) return;
  expectPlanar(laid);
  const spots = new Set([...map.faces.map((face) => face.spotId), ...(spotId ? [spotId] : [])]);
  const whole = map.width * map.height;
  for (const id of spots) {
    const { both, first } = areasBy(spotPaths(map, id), [outline], map);
    expect(Math.abs(spotArea(laid, id) - (id === spotId ? both : first))).toBeLessThan(1e-4 * whole);
  }
  // What it does not come near is the very same.
  const box = boundsOf(outline);
  const paths = new Set(laid.edges.map(({ path }) => path));
  for (const { path } of map.edges) {
    const own = boundsOf(path);
    const [across, down] = [
      Math.max(own.left, box.left) - Math.min(own.right, box.right),
      Math.max(own.top, box.top) - Math.min(own.bottom, box.bottom),
    ];
    const isNear = Math.max(across, down) < SLIVER_PX;
    if (!isNear) expect(paths.has(path)).toBe(true);
  }
  // No node off its curve.
  const curves = [...map.edges.map(({ path }) => path), outline];
  const frame = (v: number, most: number) => v === 0 || v === most;
  const nodes = nodesOf(laid.edges.map(({ path }) => path));
  for (let i = 0; i < nodes.length; i += 2) {
    const [x, y] = [nodes[i], nodes[i + 1]];
    const near = curves.some((path) => nearestOnPath(path, x, y, 0.002));
    expect(near || frame(x, map.width) || frame(y, map.height)).toBe(true);
  }
}

describe("an outline laid into a map", () => {
  it("takes what it encloses and leaves the rest, wherever it runs", () => {
    fc.assert(
      fc.property(fc.nat(9), loose, fc.constantFrom(0, 1, null), (m, outline, spot) => {
        const map = MAPS[m];
        check(map, outline, spot === null ? null : spot === 1 ? "fresh" : map.faces[0].spotId);
      }),
      {
        numRuns: 300,
        // It comes back to within 0.003 px of itself, at the picture's edge.
        examples: [
          [0, Float64Array.of(0, -0.004, 2.259, 0, 0, 4.876, 0, -1.789, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, -0.004), 0],
        ],
      },
    );
  });
  it("becomes one with boundaries that it runs along", () => {
    fc.assert(
      fc.property(
        fc.nat(9),
        seeds,
        fc.integer({ min: -150, max: 150 }).map((v) => v / 100),
        fc.constantFrom(0, 1, null),
        (m, some, bow, spot) => {
          const map = MAPS[m];
          check(map, alongMap(map, some, bow), spot === null ? null : spot === 1 ? "fresh" : map.faces[0].spotId);
        },
      ),
      { numRuns: 300 },
    );
  });
});
