import fc from "fast-check";
import polygonClipping, { type MultiPolygon, type Polygon } from "polygon-clipping";
import { describe, expect, it } from "vitest";
import { parseHex, type Rgb } from "../colour/index.ts";
import { flattenPath, pathArea } from "../geometry/index.ts";
import type { Raster } from "../raster/index.ts";
import { assignSpots, type ColourSettings, findColours, reduceColours, UNDECIDED } from "../reduce/index.ts";
import { PLAIN_SHAPES, paint } from "../testing/pictures.test.support.ts";
import { tracePicture } from "../trace/index.ts";
import { type Plate, type Separation, separatePlates } from "./index.ts";

const NAVY: Rgb = [20, 48, 79];
const GOLD: Rgb = [242, 177, 52];
const CREAM: Rgb = [242, 239, 228];
const RED: Rgb = [216, 65, 47];
const IDS = { navy: "14304f", gold: "f2b134", cream: "f2efe4", red: "d8412f" };

interface Options {
  readonly trapMm?: number;
  readonly chokeMm?: number;
  readonly mode?: "auto" | "on" | "off";
  readonly garment?: string;
  readonly order?: string[];
  readonly decided?: ColourSettings["decided"];
}

/** Separates a picture printed at one millimetre to the pixel. */
function separate(raster: Raster, options: Options = {}): Separation {
  const findings = findColours(raster);
  const reduction = reduceColours(findings, {
    ...UNDECIDED,
    count: findings.found.length,
    decided: options.decided ?? {},
  });
  const map = tracePicture(findings, reduction, assignSpots(findings, reduction, []), {
    ...PLAIN_SHAPES,
    tolerancePx: 0.1,
    specksPx: 0,
  });
  const settings = {
    order: options.order ?? [],
    trapMm: options.trapMm ?? 0.3,
    base: { mode: options.mode ?? "off", chokeMm: options.chokeMm ?? 0.35, thinnestMm: 0.35, decided: {} },
  };
  return separatePlates(
    { map, spots: reduction.spots, widthMm: raster.width, garment: parseHex(options.garment ?? "#ffffff") },
    settings,
  );
}

function plateOf(separation: Separation, id: string): Plate {
  const plate = separation.plates.find((one) => one.id === id);
  if (!plate) throw new Error(`no plate ${id}`);
  return plate;
}

/** The independent library loses rings over the last digits of a double; a millionth of a pixel is nothing here. */
const settled = (v: number) => Math.round(v * 1e6) / 1e6;

/** The region in an independent library's terms (polygon-clipping): outer rings less holes. */
function independent(region: Plate["region"]): MultiPolygon {
  const rings = region.map((path) => {
    const flat = flattenPath(path, 0.005);
    const ring: [number, number][] = [];
    for (let i = 0; i < flat.length; i += 2) ring.push([settled(flat[i]), settled(flat[i + 1])]);
    return { ring, area: pathArea(path) };
  });
  const outerSign = Math.sign(
    rings.reduce((largest, one) => (Math.abs(one.area) > Math.abs(largest) ? one.area : largest), 0),
  );
  const outers = rings.filter((one) => Math.sign(one.area) === outerSign).map((one): Polygon => [one.ring]);
  const holes = rings.filter((one) => Math.sign(one.area) === -outerSign).map((one): Polygon => [one.ring]);
  if (outers.length === 0) return [];
  const whole = polygonClipping.union(outers[0], ...outers.slice(1));
  return holes.length === 0 ? whole : polygonClipping.difference(whole, ...holes);
}

function areaOf(polygons: MultiPolygon): number {
  const ringArea = (ring: readonly (readonly [number, number])[]) => {
    let twice = 0;
    for (let i = 0; i < ring.length; i++) {
      const [x0, y0] = ring[i];
      const [x1, y1] = ring[(i + 1) % ring.length];
      twice += x0 * y1 - x1 * y0;
    }
    return Math.abs(twice / 2);
  };
  return polygons.reduce(
    (sum, [outer, ...holes]) => sum + ringArea(outer) - holes.reduce((s, hole) => s + ringArea(hole), 0),
    0,
  );
}

describe("trapping, checked against independent polygon arithmetic", () => {
  it("is trap width times shared length where two inks meet in a straight line, on the darker side", () => {
    const separation = separate(
      paint(100, 60, (x) => (x < 50 ? GOLD : NAVY)),
      { trapMm: 3 },
    );
    const gold = plateOf(separation, IDS.gold);
    expect(gold.trapMm2).toBeCloseTo(3 * 60, 1);
    expect(areaOf(independent(gold.region))).toBeCloseTo(53 * 60, 1);
    expect(areaOf(independent(plateOf(separation, IDS.navy).region))).toBeCloseTo(50 * 60, 1);
  });

  it("is a frame inside a dark square, and a rounded frame around a light one", () => {
    const inSquare = (x: number, y: number) => x >= 30 && x < 70 && y >= 30 && y < 70;
    const inside = separate(
      paint(100, 100, (x, y) => (inSquare(x, y) ? NAVY : GOLD)),
      { trapMm: 3 },
    );
    expect(plateOf(inside, IDS.gold).trapMm2).toBeCloseTo(40 * 40 - 34 * 34, -0.5);
    const around = separate(
      paint(100, 100, (x, y) => (inSquare(x, y) ? GOLD : NAVY)),
      { trapMm: 3 },
    );
    expect(plateOf(around, IDS.gold).trapMm2).toBeCloseTo(4 * 40 * 3 + Math.PI * 9, -0.5);
  });

  it("is never spread into bare garment or a garment-coloured spot", () => {
    const stripes = paint(90, 40, (x) => (x < 30 ? GOLD : x < 60 ? NAVY : CREAM));
    for (const role of ["garment", "drop"] as const) {
      const separation = separate(stripes, { trapMm: 3, decided: { [IDS.navy]: { role } } });
      expect(separation.plates.map((plate) => plate.trapMm2)).toEqual([0, 0]);
      expect(separation.plates.map((plate) => plate.id)).not.toContain(IDS.navy);
    }
  });

  it("shrinks with a line narrower than twice the trap: two traps meet in its middle", () => {
    const separation = separate(
      paint(100, 60, (x) => (x >= 50 && x < 54 ? NAVY : GOLD)),
      { trapMm: 3 },
    );
    const gold = plateOf(separation, IDS.gold);
    expect(gold.trapMm2).toBeCloseTo(4 * 60, 0);
    expect(areaOf(independent(gold.region))).toBeCloseTo(100 * 60, 0);
  });

  it("never leaves the union of inks, whatever the picture", () => {
    const cells = fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 36, maxLength: 36 });
    fc.assert(
      fc.property(cells, fc.double({ min: 0.2, max: 3, noNaN: true }), (labels, trapMm) => {
        const colours = [GOLD, NAVY, CREAM, RED];
        const raster = paint(48, 48, (x, y) => colours[labels[Math.floor(y / 8) * 6 + Math.floor(x / 8)]]);
        const decided = { [IDS.cream]: { role: "drop" as const } };
        const plain = separate(raster, { trapMm: 0, decided });
        const spread = separate(raster, { trapMm, decided });
        const inks = plain.plates.map((plate) => independent(plate.region)).filter((region) => region.length > 0);
        if (inks.length === 0) return;
        const union = polygonClipping.union(inks[0], ...inks.slice(1));
        for (const plate of spread.plates) {
          const outside = polygonClipping.difference(independent(plate.region), union);
          expect(areaOf(outside)).toBeLessThan(0.15);
        }
      }),
      { numRuns: 25 },
    );
  });
});

describe("trapping any picture", () => {
  it("property: no plate covers less with a wider trap, down to no width at all", () => {
    const labels = fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 64, maxLength: 64 });
    const widths = fc.tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0.05, max: 1, noNaN: true }));
    fc.assert(
      fc.property(labels, fc.constantFrom(5, 8), widths, (of, cell, [trapMm, more]) => {
        const colours = [GOLD, NAVY, CREAM, RED];
        const raster = paint(
          8 * cell,
          8 * cell,
          (x, y) => colours[of[Math.floor(y / cell) * 8 + Math.floor(x / cell)]],
        );
        const narrow = separate(raster, { trapMm });
        for (const plate of separate(raster, { trapMm: trapMm + more }).plates)
          expect(plate.coverage).toBeGreaterThan(plateOf(narrow, plate.id).coverage - 1e-4);
      }),
      { numRuns: 30 },
    );
  });
});

describe("the underbase", () => {
  it("is the union of the inks that need it, choked", () => {
    const square = paint(100, 100, (x, y) => (x >= 20 && x < 80 && y >= 20 && y < 80 ? (x < 50 ? GOLD : RED) : CREAM));
    const separation = separate(square, {
      mode: "on",
      chokeMm: 2,
      garment: "#101820",
      decided: { [IDS.cream]: { role: "drop" } },
    });
    const base = plateOf(separation, "base");
    expect(base.order).toBe(1);
    expect(areaOf(independent(base.region))).toBeCloseTo(56 * 56, -0.5);
    expect(base.coverage).toBeCloseTo((56 * 56) / 10_000, 2);
  });

  it("never leaves the union it supports", () => {
    const cells = fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 36, maxLength: 36 });
    fc.assert(
      fc.property(cells, (labels) => {
        const colours = [GOLD, CREAM, RED];
        const raster = paint(48, 48, (x, y) => colours[labels[Math.floor(y / 8) * 6 + Math.floor(x / 8)]]);
        const separation = separate(raster, {
          trapMm: 0,
          mode: "on",
          chokeMm: 0.8,
          garment: "#101820",
          decided: { [IDS.cream]: { role: "drop" } },
        });
        const base = separation.plates.find((plate) => plate.kind === "base");
        const inks = separation.plates
          .filter((plate) => plate.kind === "spot")
          .map((plate) => independent(plate.region));
        if (!base || inks.length === 0) return;
        const outside = polygonClipping.difference(
          independent(base.region),
          polygonClipping.union(inks[0], ...inks.slice(1)),
        );
        expect(areaOf(outside)).toBeLessThan(0.01);
      }),
      { numRuns: 25 },
    );
  });

  it("comes by itself on a dark garment only, and not under ink that covers by itself", () => {
    const halves = paint(60, 60, (x) => (x < 30 ? GOLD : [12, 12, 14]));
    expect(separate(halves, { mode: "auto", garment: "#ffffff" }).plates.some((plate) => plate.kind === "base")).toBe(
      false,
    );
    const dark = separate(halves, { mode: "auto", garment: "#1d2a44", trapMm: 0 });
    expect(plateOf(dark, "base").coverage).toBeLessThan(0.5);
    expect(dark.plates.map((plate) => plate.isBased)).toEqual([false, true, false]);
  });
});

describe("print order", () => {
  const stripes = paint(120, 30, (x) => [NAVY, GOLD, CREAM, RED][Math.floor(x / 30)]);
  it("goes from light to dark", () => {
    expect(separate(stripes).plates.map((plate) => plate.id)).toEqual([IDS.cream, IDS.gold, IDS.red, IDS.navy]);
  });
  it("keeps what the person chose and places the rest by lightness", () => {
    const { plates } = separate(stripes, { order: [IDS.navy, IDS.cream] });
    expect(plates.map((plate) => plate.id).filter((id) => id !== IDS.red && id !== IDS.gold)).toEqual([
      IDS.navy,
      IDS.cream,
    ]);
    expect(plates.map((plate) => plate.order)).toEqual([1, 2, 3, 4]);
  });
});
