import fc from "fast-check";
import polygonClipping from "polygon-clipping";
import { describe, expect, it } from "vitest";
import type { Rgb } from "../colour/index.ts";
import type { Raster } from "../raster/index.ts";
import { assignSpots, findColours, reduceColours, type Spot, UNDECIDED } from "../reduce/index.ts";
import { independentArea, independentRegion } from "../testing/independent-regions.test.support.ts";
import { PLAIN_SHAPES, paint } from "../testing/pictures.test.support.ts";
import { faceArea, tracePicture } from "../trace/index.ts";
import { cutLayers, type Layer, type Layering, type LayerMode, transferSettingsSchema } from "./index.ts";

const NAVY: Rgb = [20, 48, 79];
const GOLD: Rgb = [242, 177, 52];
const RED: Rgb = [216, 65, 47];
const WHITE: Rgb = [255, 255, 255];
const IDS = { navy: "14304f", gold: "f2b134", red: "d8412f", white: "ffffff" };

interface Options {
  readonly modes?: Readonly<Record<string, LayerMode>>;
  readonly order?: readonly string[];
  readonly lapMm?: number;
  readonly givesIslands?: boolean;
}

/** The map, spots and layers of a picture on white cloth, one millimetre to the pixel; white is the garment's. */
function cut(raster: Raster, { modes = {}, order = [], ...rest }: Options = {}) {
  const findings = findColours(raster);
  const reduction = reduceColours(findings, { ...UNDECIDED, count: findings.found.length }, WHITE);
  const shapes = { ...PLAIN_SHAPES, tolerancePx: 0.1, specksPx: 0 };
  const map = tracePicture(findings, reduction, assignSpots(findings, reduction, []), shapes);
  const decided = Object.fromEntries(Object.entries(modes).map(([id, mode]) => [id, { mode }]));
  const settings = transferSettingsSchema.parse({ order, decided, ...rest });
  return {
    map,
    spots: reduction.spots,
    ...cutLayers({ map, spots: reduction.spots, widthMm: raster.width }, settings),
  };
}

function layerOf({ layers }: Layering, id: string): Layer {
  const layer = layers.find(({ spotId }) => spotId === id);
  if (!layer) throw new Error(`no layer ${id}`);
  return layer;
}

const areaOf = (layer: Layer) => independentArea(independentRegion(layer.region));

/** Gold on the left, navy on the right, with cloth around. */
const HALVES = paint(60, 40, (x, y) => (x < 10 || x >= 50 || y < 10 || y >= 30 ? WHITE : x < 30 ? GOLD : NAVY));
const goldFirst = [IDS.gold, IDS.navy];

describe("a layer of transfer film, checked against independent polygon arithmetic", () => {
  it("is the traced shape where it is flush", () => {
    const { map, layers } = cut(HALVES, { modes: { [IDS.gold]: "flush", [IDS.navy]: "flush" } });
    for (const { spotId, areaMm2, underMm2 } of layers) {
      const traced = map.faces.reduce((sum, face) => (face.spotId === spotId ? sum + faceArea(face) : sum), 0);
      expect(areaMm2).toBeCloseTo(traced, 9);
      expect(underMm2).toBe(0);
    }
  });

  it("runs on under what is pressed later by the lap, and nowhere else", () => {
    const layering = cut(HALVES, { order: goldFirst, modes: { [IDS.gold]: "lapped", [IDS.navy]: "lapped" } });
    // An edge of 20 mm under the other layer, within the cutting tolerance of 0.05 mm.
    expect(areaOf(layerOf(layering, IDS.gold))).toBeCloseTo(20 * 20 + 20 * 0.5, -0.3);
    expect(layerOf(layering, IDS.gold).underMm2).toBeCloseTo(20 * 0.5, -0.3);
    expect(areaOf(layerOf(layering, IDS.navy))).toBeCloseTo(20 * 20, 1);
    expect(layerOf(layering, IDS.gold).pieces).toBe(1);
  });

  it("meets itself under a line that leaves too little open to be weeded, and not under a wider one", () => {
    const crossed = (width: number) =>
      paint(60, 40, (x, y) =>
        x < 10 || x >= 50 || y < 10 || y >= 30 ? WHITE : x >= 30 && x < 30 + width ? NAVY : GOLD,
      );
    const lapped = (width: number) =>
      layerOf(cut(crossed(width), { order: goldFirst, modes: { [IDS.gold]: "lapped" } }), IDS.gold);
    expect(lapped(5).pieces).toBe(2);
    expect(areaOf(lapped(5))).toBeCloseTo(20 * 36, -0.5);
    expect(lapped(3).pieces).toBe(1);
    expect(areaOf(lapped(3))).toBeCloseTo(20 * 40, -0.5);
  });

  it("stays whole under narrow lettering that joins something wide, and opens under what is wide", () => {
    // A navy letter of 2 mm strokes on gold, with a navy field of 14 mm hanging on it.
    const joined = paint(60, 40, (x, y) => {
      const isStroke = x >= 14 && x < 30 && y >= 18 && y < 20;
      const isField = x >= 30 && x < 44 && y >= 13 && y < 27;
      return x < 10 || x >= 50 || y < 10 || y >= 30 ? WHITE : isStroke || isField ? NAVY : GOLD;
    });
    const gold = layerOf(cut(joined, { order: goldFirst, modes: { [IDS.gold]: "lapped" } }), IDS.gold);
    // The window is the field less the lap all round; corners of it are round.
    expect(areaOf(gold)).toBeCloseTo(20 * 40 - 13 * 13, -0.7);
    expect(gold.nodes).toBeLessThan(20);
  });

  it("leaves no piece of film beyond a gap of open cloth", () => {
    // Navy lies over gold on both sides of a slit narrower than the lap.
    const slit = paint(60, 40, (x, y) =>
      x < 10 || x >= 50 || y < 10 || y >= 30 || (x >= 21 && x < 22) ? WHITE : x < 20 ? GOLD : NAVY,
    );
    const layering = cut(slit, { order: goldFirst, modes: { [IDS.gold]: "lapped" }, lapMm: 4 });
    expect(layerOf(layering, IDS.gold).pieces).toBe(1);
    expect(areaOf(layerOf(layering, IDS.gold))).toBeCloseTo(20 * 11, -0.5);
  });

  it("that is solid lies under all that it encloses, but not in a hole where the garment shows", () => {
    const inside = (x: number, y: number, r: number) => Math.max(Math.abs(x - 30), Math.abs(y - 30)) < r;
    const badge = paint(60, 60, (x, y) =>
      inside(x, y, 4) ? WHITE : inside(x, y, 12) ? GOLD : inside(x, y, 20) ? NAVY : WHITE,
    );
    const modes = { [IDS.navy]: "solid" } as const;
    const layering = cut(badge, { modes, order: [IDS.navy, IDS.gold] });
    const [whole, hole] = [39, 7].map((side) => side * side);
    expect(areaOf(layerOf(layering, IDS.navy))).toBeCloseTo(whole - hole, 0);
    // Pressed last it has nothing to lie under.
    const last = cut(badge, { modes, order: [IDS.gold, IDS.navy] });
    expect(layerOf(last, IDS.navy).underMm2).toBeCloseTo(0, 6);
  });

  it("property: keeps within the design, and covers its shape, however they lie over each other", () => {
    const cells = fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 36, maxLength: 36 });
    const mode = fc.constantFrom<LayerMode>("flush", "lapped", "solid");
    fc.assert(
      fc.property(cells, mode, fc.double({ min: 0.2, max: 3, noNaN: true }), (labels, chosen, lapMm) => {
        const colours = [GOLD, NAVY, WHITE, RED];
        const raster = paint(48, 48, (x, y) => colours[labels[Math.floor(y / 8) * 6 + Math.floor(x / 8)]]);
        const modes = Object.fromEntries(Object.values(IDS).map((id) => [id, chosen]));
        const layering = cut(raster, { modes, lapMm });
        const film = new Set(layering.spots.filter(({ role }: Spot) => role === "ink").map(({ id }) => id));
        const shapes = (holds: (id: string) => boolean) =>
          independentRegion(layering.map.faces.filter(({ spotId }) => holds(spotId)).flatMap(({ paths }) => paths));
        const design = shapes((id) => film.has(id));
        for (const { spotId, region } of layering.layers) {
          const own = independentRegion(region);
          expect(independentArea(polygonClipping.difference(own, design))).toBeLessThan(0.05);
          expect(
            independentArea(
              polygonClipping.difference(
                shapes((id) => id === spotId),
                own,
              ),
            ),
          ).toBeLessThan(0.05);
        }
      }),
      {
        numRuns: 40,
        // Left the design by 0.08 mm2 while laps were fitted with curves.
        examples: [
          [
            [
              0, 1, 0, 0, 0, 0, 0, 0, 0, 2, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 1, 0, 3, 1, 1, 0, 0, 1, 0, 0, 0, 0, 0,
              0,
            ],
            "solid",
            2.7015380859375,
          ],
        ],
      },
    );
  });
});

describe("islands too small to be picked up", () => {
  // Gold dots on cloth, on navy, and on the seam of a larger gold field.
  const dots = paint(60, 40, (x, y) => {
    const isDot = (cx: number, cy: number) => x >= cx && x < cx + 2 && y >= cy && y < cy + 2;
    if (isDot(2, 2) || isDot(30, 20) || x >= 45) return GOLD;
    return x >= 10 && y >= 8 && y < 32 ? NAVY : WHITE;
  });
  const flush = { [IDS.gold]: "flush", [IDS.navy]: "flush" } as const;

  it("go to the film round them; those in open cloth stay", () => {
    const layering = cut(dots, { modes: flush, givesIslands: true });
    expect(layering.given).toEqual([{ x: expect.closeTo(31, 0), y: expect.closeTo(21, 0) }]);
    expect(layerOf(layering, IDS.gold).pieces).toBe(2);
    expect(layerOf(layering, IDS.navy).areaMm2).toBeCloseTo(35 * 24, 0);
  });

  it("stay what they are unless that is wanted", () => {
    const layering = cut(dots, { modes: flush });
    expect(layering.given).toEqual([]);
    expect(layerOf(layering, IDS.navy).areaMm2).toBeLessThan(35 * 24 - 1);
    expect(layerOf(layering, IDS.gold).pieces).toBe(3);
  });
});

describe("what is proposed", () => {
  const framed = paint(60, 60, (x, y) => {
    const away = Math.max(Math.abs(x - 29.5), Math.abs(y - 29.5));
    return away > 25 ? WHITE : away > 22 ? NAVY : x < 20 && y < 20 ? RED : GOLD;
  });

  it("is to press the large layers first and outlines over them", () => {
    expect(cut(framed).layers.map(({ spotId }) => spotId)).toEqual([IDS.gold, IDS.red, IDS.navy]);
  });

  it("an outline that is to be solid goes under what it goes round", () => {
    expect(cut(framed, { modes: { [IDS.navy]: "solid" } }).layers[0]).toMatchObject({
      spotId: IDS.navy,
      mode: "solid",
    });
  });

  it("is to leave whole what is knocked out little, and to lap the rest", () => {
    const lettered = paint(60, 60, (x, y) =>
      x < 5 || x >= 55 || y < 5 || y >= 55 ? WHITE : (x - 20) ** 2 + (y - 30) ** 2 < 36 ? GOLD : NAVY,
    );
    expect(cut(lettered).layers.map(({ proposedMode }) => proposedMode)).toEqual(["solid", "lapped"]);
    expect(layerOf(cut(lettered, { modes: { [IDS.navy]: "flush" } }), IDS.navy)).toMatchObject({
      mode: "flush",
      proposedMode: "solid",
    });
  });

  it("gives way to the order that was chosen; what was not chosen keeps its place after its neighbour", () => {
    expect(cut(framed, { order: [IDS.navy] }).layers.map(({ spotId }) => spotId)).toEqual([
      IDS.gold,
      IDS.red,
      IDS.navy,
    ]);
    expect(cut(framed, { order: [IDS.navy, IDS.gold] }).layers.map(({ spotId }) => spotId)).toEqual([
      IDS.navy,
      IDS.gold,
      IDS.red,
    ]);
  });
});
