import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { planCuts, writeHpgl } from "../cut/index.ts";
import { pathToSvg, polygonPath, reversePath } from "../geometry/index.ts";
import { renderSvg } from "../testing/pictures.test.support.ts";
import { circleRegion } from "../testing/separation.test.support.ts";
import { cutJob, differ, findFaults, type Mask, playPlot, pressLayers, readPlot, USUAL_CUTTER, weed } from "./index.ts";

/** Three layers of a badge of 80 x 60 mm, none of which is its own mirror image. */
const LAYERS = [
  { id: "14304f", region: [polygonPath([5, 5, 75, 5, 60, 55, 5, 55]), reversePath(circleRegion(25, 30, 10)[0])] },
  { id: "f2b134", region: circleRegion(50, 25, 8) },
  { id: "d8412f", region: [polygonPath([10, 40, 50, 42, 48, 50, 12, 52])] },
];
const SHEET = { widthPx: 80, heightPx: 60, mmPerPx: 1 };
const PER_MM = 5;
/** Layers are cut on a roll that is just as wide as the art is high. */
const CUTTER = { ...USUAL_CUTTER, rollWidthMm: 60 };

const plotOf = (region: (typeof LAYERS)[number]["region"], isMirrored = true) =>
  writeHpgl(planCuts(region, { ...SHEET, isMirrored }));

/** A region as an independent renderer draws it. */
function maskOf(region: (typeof LAYERS)[number]["region"]): Mask {
  const d = region.map((path) => pathToSvg(path, 4)).join("");
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="80" height="60" viewBox="0 0 80 60"><path d="${d}" fill-rule="evenodd"/></svg>`;
  const { width, height, data } = renderSvg(svg, PER_MM);
  const covered = Uint8Array.from({ length: width * height }, (_, p) => (data[p * 4 + 3] >= 128 ? 1 : 0));
  return { width, height, perMm: PER_MM, data: covered };
}

const PLANNED = LAYERS.map(({ id, region }, i) => ({ order: i + 1, id, mask: maskOf(region) }));
const fileOf = (k: number) => `layer-${k + 1}-${LAYERS[k].id}.plt`;
const GOOD = new Map(LAYERS.map(({ region }, k) => [fileOf(k), plotOf(region)]));

/** The good files with one of them changed, or taken away. */
function changed(k: number, change: (text: string) => string | null): Map<string, string> {
  const files = new Map(GOOD);
  const text = change(GOOD.get(fileOf(k)) ?? "");
  if (text === null) files.delete(fileOf(k));
  else files.set(fileOf(k), text);
  return files;
}

/** The same plot with every place put elsewhere, plotter units. */
const moved = (place: (x: number, y: number) => [number, number]) => (text: string) =>
  text.replace(/(-?\d+),(-?\d+)/g, (_, x, y) => place(Number(x), Number(y)).map(Math.round).join(","));

/** The places of each stroke of a plot, plotter units. */
const strokesOf = (text: string) =>
  text
    .split("PU")
    .slice(1)
    .map((part) => [...part.matchAll(/(-?\d+),(-?\d+)/g)].map(([, x, y]) => [Number(x), Number(y)]))
    .filter((places) => places.length > 1);
const writeStrokes = (strokes: number[][][]) =>
  `IN;SP1;${strokes.map(([first, ...rest]) => `PU${first};PD${rest.join(",")};`).join("")}PU;SP0;`;
/** All strokes of a plot, one of them changed. */
const withStroke = (change: (places: number[][]) => number[][][]) => (text: string) => {
  const [first, ...rest] = strokesOf(text);
  return writeStrokes([...change(first), ...rest]);
};

/** Until a stroke is back at its start: without what it cuts on over it. */
function ringOf(places: number[][]): number[][] {
  const end = places.findIndex(([x, y], i) => i > 0 && x === places[0][0] && y === places[0][1]);
  return places.slice(0, end + 1);
}

const FAULTS: readonly [string, number, string, (text: string) => string | null][] = [
  ["a contour whose last side is missing", 0, "open", withStroke((all) => [ringOf(all).slice(0, -1)])],
  ["a contour that stops half way", 1, "open", withStroke((all) => [all.slice(0, all.length >> 1)])],
  [
    "a contour that ends a third of a millimetre beside its start",
    2,
    "open",
    withStroke((all) => [[...ringOf(all).slice(0, -1), [ringOf(all)[0][0] + 13, ringOf(all)[0][1] + 13]]]),
  ],
  [
    "a contour that begins anew in the middle, apart",
    1,
    "open",
    withStroke((all) => [all.slice(0, 20), all.slice(24)]),
  ],
  ["a contour cut twice", 0, "doubled", withStroke((all) => [all, all])],
  ["a contour cut once more the other way", 1, "doubled", withStroke((all) => [all, [...all].reverse()])],
  [
    "a contour cut again a twentieth of a millimetre beside",
    2,
    "doubled",
    withStroke((all) => [all, all.map(([x, y]) => [x + 2, y])]),
  ],
  ["a side cut twice", 2, "doubled", withStroke((all) => [all, all.slice(0, 2)])],
  ["a contour gone round twice in one stroke", 2, "doubled", withStroke((all) => [[...ringOf(all), ...all.slice(1)]])],
  ["a layer a centimetre left of the roll's beginning", 1, "off the roll", moved((x, y) => [x - 1800, y])],
  ["a layer beyond the roll's far edge", 2, "off the roll", moved((x, y) => [x, y + 1800])],
  ["a layer twice as large", 0, "off the roll", moved((x, y) => [x * 2, y * 2])],
  ["one point that fell off", 0, "off the roll", (text) => text.replace(/PD(\d+),(\d+)/, "PD$1,-400")],
  ["the first layer missing", 0, "missing layer", () => null],
  ["the last layer missing", 2, "missing layer", () => null],
  ["the first layer not mirrored", 0, "not mirrored", () => plotOf(LAYERS[0].region, false)],
  ["the second layer not mirrored", 1, "not mirrored", () => plotOf(LAYERS[1].region, false)],
  ["the third layer not mirrored", 2, "not mirrored", () => plotOf(LAYERS[2].region, false)],
  ["a hole that is not cut", 0, "not the plan", (text) => writeStrokes(strokesOf(text).slice(1))],
  [
    "an instruction that cutters do not have",
    1,
    "not understood",
    (text) => text.replace("PU;SP0;", "AA10,10,90;PU;SP0;"),
  ],
];

describe("the simulated cutter", () => {
  it("finds nothing wrong with a good job, and less than its picture's grain between film and plan", () => {
    const { faults, layers } = cutJob(GOOD, PLANNED, CUTTER);
    expect(faults).toEqual([]);
    for (const { extraMm2, missingMm2 } of layers) expect(extraMm2 + missingMm2).toBeLessThan(2);
  });

  it.each(FAULTS)("finds %s", (_, k, kind, change) => {
    const { faults } = cutJob(changed(k, change), PLANNED, CUTTER);
    expect(faults.map((fault) => [fault.kind, fault.file])).toContainEqual([kind, fileOf(k)]);
    // Nothing is said of the files that were left alone.
    expect(faults.every(({ file }) => file === fileOf(k))).toBe(true);
  });

  it("property: finds nothing in 200 files of rings, wedges and stars", () => {
    const piece = fc.record({
      kind: fc.constantFrom("ring", "star", "wedge"),
      size: fc.double({ min: 2, max: 9, noNaN: true }),
      points: fc.integer({ min: 3, max: 9 }),
    });
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 12 }), (pieces) => {
        const region = pieces.flatMap(({ kind, size, points }, i) => {
          const [x, y] = [10 + (i % 4) * 20, 10 + Math.floor(i / 4) * 20];
          // Outlines turn one way, as those of layers do.
          if (kind === "ring") return [circleRegion(x, y, size)[0], reversePath(circleRegion(x, y, size / 2)[0])];
          const corners = kind === "star" ? points * 2 : 3;
          return [
            polygonPath(
              Array.from({ length: corners }, (_, k) => {
                const r = kind === "star" && k % 2 === 1 ? size / 2 : size;
                const angle = (k * 2 * Math.PI) / corners;
                return [x + r * Math.cos(angle), y + r * Math.sin(angle)];
              }).flat(),
            ),
          ];
        });
        const plot = readPlot(plotOf(region));
        expect(findFaults(plot, CUTTER)).toEqual([]);
        const film = weed(plot, { widthMm: 80, heightMm: 60, perMm: PER_MM });
        const { extraMm2, missingMm2 } = differ(
          film,
          maskOf(region.map((path) => path.map((v, i) => (i % 2 === 0 ? 80 - v : v)))),
        );
        // The grain of two pictures along up to a metre of edges.
        expect(extraMm2 + missingMm2).toBeLessThan(16);
      }),
      { numRuns: 200 },
    );
  });

  it("moves its blade in the time that the way takes", () => {
    const plot = readPlot("IN;SP1;PU0,0;PD4000,0;PD4000,4000;PU0,0;");
    const moves = playPlot(plot, { ...USUAL_CUTTER, cutMmPerS: 100, travelMmPerS: 200, liftS: 0.5 });
    // A lift, and 200 mm at 100 mm/s.
    expect(moves.at(-1)?.toS).toBeCloseTo(0.5 + 2, 9);
    expect(moves.filter(({ tool }) => tool === 1)).toHaveLength(2);
  });

  it("reads relative ways, lower case, several places in one instruction, and labels as no instruction", () => {
    const { strokes, unknown } = readPlot("in;sp1;pu40,40;pr;pd400,0,0,400;pa pd40,40;SP2;PU0,0;LBPD9,9\x03;PU;");
    expect(strokes).toEqual([{ tool: 1, points: [1, 1, 11, 1, 11, 11, 1, 1] }]);
    expect(unknown).toEqual([]);
  });

  it("weeds a box with the waste, and leaves holes open", () => {
    const boxed =
      "IN;SP1;PU0,0;PD3200,0,3200,2400,0,2400,0,0;PU400,400;PD1200,400,1200,1200,400,1200,400,400;PU600,600;PD1000,600,1000,1000,600,1000,600,600;PU;";
    const film = weed(readPlot(boxed), { widthMm: 80, heightMm: 60, perMm: 2, hasBoxes: true });
    expect(film.data.reduce((sum, one) => sum + one, 0) / 4).toBe(20 * 20 - 10 * 10);
  });
});

describe("the simulated press", () => {
  const mask = (x0: number, x1: number): Mask => ({
    ...{ width: 100, height: 50, perMm: 1 },
    data: Uint8Array.from({ length: 5000 }, (_, p) => (p % 100 >= x0 && p % 100 < x1 ? 1 : 0)),
  });
  const lay = (dxMm: number, shrinkShare = 0) =>
    pressLayers([
      { mask: mask(10, 50), dxMm: 0, dyMm: 0, shrinkShare: 0 },
      { mask: mask(50, 90), dxMm, dyMm: 0, shrinkShare },
    ]).top;
  const bare = (top: Uint8Array) => top.filter((one, p) => one === 0 && p % 100 >= 10 && p % 100 < 90).length;

  it("shows the shirt where a layer that meets another edge to edge slips away from it, or shrinks", () => {
    expect(bare(lay(0))).toBe(0);
    expect(bare(lay(2))).toBe(2 * 50);
    // A tenth of 40 and of 50 mm, half at either end.
    expect(bare(lay(0, 0.1))).toBe(40 * 50 - 36 * 45);
  });

  it("lays later layers over earlier ones", () => {
    const top = lay(-5);
    expect(top[47]).toBe(2);
    expect(top[20]).toBe(1);
  });
});
