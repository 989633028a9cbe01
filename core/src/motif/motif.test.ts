// Keeping and placing motifs: what is laid down is what was kept, at any size, turned and flipped.
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applyEdit } from "../edit/index.ts";
import { readMotifSvg, writeMotifSvg } from "../formats/index.ts";
import { expectPlanar, spotArea } from "../lay/lay.test.support.ts";
import { wholeFrame } from "../raster/index.ts";
import { makeRecipe, makeShapeEntry, placeEdits, scaleRecipe } from "../recipe/index.ts";
import { drawSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { NO_TYPEFACES } from "../typeface/index.ts";
import { keepMotif, type Motif, matchSpots, motifAreas, rowSteps } from "./index.ts";

const HASH = "a".repeat(64);
const SIZE = 240;
const MM = 0.5;

/** A buoy: three colours that share edges, a hole to the garment, and a thin ring. */
const BUOY =
  '<path d="M60 10L100 70H20Z" fill="#d8412f"/><rect x="20" y="70" width="80" height="24" fill="#f5f1e6"/><rect x="20" y="94" width="80" height="16" fill="#14304f"/><circle cx="60" cy="82" r="7" fill="#ffffff"/><circle cx="60" cy="50" r="9" fill="none" stroke="#14304f" stroke-width="3"/>';
const SEA =
  '<rect width="240" height="240" fill="#9cc8dd"/><path d="M0 150C60 90 120 210 240 130V240H0Z" fill="#2c6fbb"/>';

function keep(content: string): Motif {
  const { map, reduction } = traceRaster(drawSvg(SIZE, content));
  const motif = keepMotif(
    map.faces,
    reduction.spots.flatMap((spot) => (spot.pictureRgb[2] === 255 ? [] : { ...spot, stock: null })),
    MM,
  );
  if (!motif) throw new Error("nothing was kept");
  return motif;
}

type Placed = Partial<Parameters<typeof makeShapeEntry>[0] & object> & Record<string, unknown>;
function entryOf(motif: Motif, more: Placed) {
  const { widthMm, heightMm, spots } = motif;
  return makeShapeEntry({
    ...{ id: "m", kind: "motif", motif: { hash: HASH, name: "Buoy", widthMm, heightMm } },
    ...{ places: [{ at: { x: 120, y: 120 }, widthPx: 90 }], spots: spots.map((_, k) => `new-${k}`) },
    ...more,
  } as Parameters<typeof makeShapeEntry>[0]);
}

/** The sea with a motif laid in. */
function lay(motif: Motif, more: Placed, factor = 1) {
  const entries = scaleRecipe(makeRecipe({ shapes: { entries: [entryOf(motif, more)] } }), factor).shapes.entries;
  const library = { typefaces: NO_TYPEFACES, motifs: { get: () => motif } };
  const [{ edit }] = placeEdits(entries, wholeFrame(SIZE, SIZE), MM, library);
  const { map } = traceRaster(drawSvg(SIZE, SEA));
  const done = applyEdit(map, edit);
  if (typeof done === "string") throw new Error(done);
  expectPlanar(done);
  return { before: map, after: done };
}

const buoy = keep(BUOY);

describe("a motif that is kept", () => {
  it("has its true size, its colours and the areas of the shapes", () => {
    expect([buoy.widthMm, buoy.heightMm]).toEqual([expect.closeTo(80 * MM, 0), expect.closeTo(100 * MM, 0)]);
    const hexes = buoy.spots.map(({ hex }) => hex).sort();
    expect(hexes).toEqual(["#14304f", "#d8412f", "#f5f1e6"]);
    const areas = new Map(buoy.spots.map(({ hex }, k) => [hex, motifAreas(buoy)[k]]));
    // Arithmetic of the drawing: the cream bar less its hole of radius 7.
    expect(areas.get("#f5f1e6")).toBeCloseTo((80 * 24 - Math.PI * 49) * MM * MM, -0.5);
  });
  it("comes out of its SVG to the last digit, whatever its name; with changed shapes it is not read as that motif", () => {
    const facts = fc.record({
      ...{ name: fc.string({ minLength: 1, unit: "grapheme", maxLength: 40 }) },
      ...{
        folder: fc.string({ unit: "grapheme", maxLength: 20 }),
        words: fc.constant('<&"]]> \u2028'),
        from: fc.constant("No. 7"),
      },
    });
    fc.assert(
      fc.property(facts, fc.nat(), (filed, at) => {
        fc.pre(filed.name.trim() !== "");
        const trimmed = { ...filed, name: filed.name.trim(), folder: filed.folder.trim(), words: filed.words.trim() };
        const text = writeMotifSvg({ motif: buoy, facts: trimmed });
        expect(readMotifSvg(text)).toEqual({ motif: buoy, facts: trimmed });
        const body = text.indexOf("<g ");
        const k = body + (at % (text.length - body));
        expect(readMotifSvg(`${text.slice(0, k)}${text.slice(k + 1)}`)?.motif ?? null).not.toEqual(buoy);
      }),
      { numRuns: 60 },
    );
  });
});

describe("a motif that is placed", () => {
  it("covers what it covered times the square of its scale, turned and flipped as it is", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 140 }),
        fc.integer({ min: -180, max: 180 }),
        fc.boolean(),
        (widthPx, angleDeg, isFlipped) => {
          const { after } = lay(buoy, { places: [{ at: { x: 120, y: 120 }, widthPx, angleDeg, isFlipped }] });
          const scale = widthPx / buoy.widthMm;
          motifAreas(buoy).forEach((area, k) => {
            expect(Math.abs(spotArea(after, `new-${k}`) / (area * scale * scale) - 1)).toBeLessThan(1e-6);
          });
        },
      ),
      { numRuns: 40 },
    );
  });
  it("lets what lies under its holes show, and takes nothing else", () => {
    const { before, after } = lay(buoy, {});
    const total = (map: typeof after) =>
      [...new Set(map.faces.map(({ spotId }) => spotId))].reduce((sum, id) => sum + spotArea(map, id), 0);
    expect(total(after)).toBeCloseTo(total(before), 3);
  });
  it("is the same, twice as large, in twice as many pixels", () => {
    const places = [{ at: { x: 60, y: 60 }, widthPx: 40, angleDeg: 30 }];
    const [once, twice] = [lay(buoy, { places }), lay(buoy, { places }, 2)];
    for (const k of buoy.spots.keys())
      expect(spotArea(twice.after, `new-${k}`) / spotArea(once.after, `new-${k}`)).toBeCloseTo(4, 4);
  });
  it("lies over an earlier one of its row, and side by side they are as many times the area", () => {
    const grid = { kind: "grid", columns: 3, rows: 2, stepX: 60, stepY: 80, isStaggered: true };
    const places = [{ at: { x: 50, y: 60 }, widthPx: 40 }];
    const row = lay(buoy, { places, row: grid });
    const one = lay(buoy, { places });
    for (const k of buoy.spots.keys())
      expect(spotArea(row.after, `new-${k}`) / spotArea(one.after, `new-${k}`)).toBeCloseTo(6, 4);
    const piled = lay(buoy, { places: [...places, { at: { x: 55, y: 65 }, widthPx: 40 }] });
    const all = buoy.spots.map((_, k) => spotArea(piled.after, `new-${k}`));
    expect(all.reduce((a, b) => a + b)).toBeLessThan(
      1.4 * buoy.spots.reduce((sum, _, k) => sum + spotArea(one.after, `new-${k}`), 0),
    );
    for (const k of buoy.spots.keys()) expect(all[k]).toBeGreaterThan(spotArea(one.after, `new-${k}`) - 0.01);
  });
  it("takes the place of shapes that are picked, which leaves what was around them", () => {
    const dots =
      '<rect width="240" height="240" fill="#9cc8dd"/><circle cx="50" cy="50" r="20" fill="#d8412f"/><circle cx="190" cy="190" r="20" fill="#d8412f"/>';
    const { map, reduction } = traceRaster(drawSvg(SIZE, dots));
    const red = reduction.spots.find(({ pictureRgb }) => pictureRgb[0] > 200)?.id ?? "";
    const over = [{ at: { x: 50, y: 50 }, spotId: red }];
    const entry = entryOf(buoy, { places: [{ at: { x: 50, y: 50 }, widthPx: 12 }], over });
    const [{ edit }] = placeEdits([entry], wholeFrame(SIZE, SIZE), MM, {
      typefaces: NO_TYPEFACES,
      motifs: { get: () => buoy },
    });
    const done = applyEdit(map, edit);
    if (typeof done === "string") throw new Error(done);
    expect(spotArea(done, red)).toBeCloseTo(spotArea(map, red) / 2, 0);
  });
  it("says by its name that it is not here", () => {
    const [{ edit }] = placeEdits([entryOf(buoy, {})], wholeFrame(SIZE, SIZE), MM, {
      typefaces: NO_TYPEFACES,
      motifs: { get: () => null },
    });
    expect(edit).toEqual({ kind: "none", reason: expect.stringContaining("Buoy") });
  });
});

describe("rows", () => {
  it("go all the way round without one lying on another, each on the circle", () => {
    const steps = rowSteps({ kind: "arc", count: 12, radius: 50, spanDeg: 360, angleDeg: 0, isTurned: true });
    for (const { dx, dy } of steps) expect(Math.hypot(dx, dy - 50)).toBeCloseTo(50, 9);
    expect(steps.map(({ angleDeg }) => angleDeg)).toEqual(Array.from({ length: 12 }, (_, k) => 30 * k));
  });
  it("hang under their middle where the radius is negative", () => {
    const [first, middle, last] = rowSteps({
      kind: "arc",
      count: 3,
      radius: -50,
      spanDeg: 90,
      angleDeg: 0,
      isTurned: true,
    });
    expect(middle).toEqual({ dx: 0, dy: expect.closeTo(0, 12), angleDeg: expect.closeTo(0, 12) });
    expect([first.dx, first.dy, first.angleDeg]).toEqual([expect.closeTo(-35.355, 3), expect.closeTo(-14.645, 3), 45]);
    expect([last.dx, last.dy]).toEqual([expect.closeTo(35.355, 3), expect.closeTo(-14.645, 3)]);
  });
});

describe("spots of a motif", () => {
  const stock = (code: string) =>
    ({ kind: "ink", code, name: code, hex: "#000000", difference: 0, film: null, stones: null }) as const;
  it("are those of the job with the same stock, else the nearest colour, and no other", () => {
    const there = [
      { id: "a", rgb: [216, 65, 47], stock: null },
      { id: "b", rgb: [20, 48, 79], stock: stock("K7") },
      { id: "c", rgb: [217, 66, 48], stock: null },
    ] as const;
    const wanted = [
      { hex: "#d8412f", stock: null },
      { hex: "#ffffff", stock: stock("K7") },
      { hex: "#d8402e", stock: null },
      { hex: "#00ff00", stock: null },
    ];
    expect(matchSpots(wanted, there)).toEqual(["a", "b", "c", null]);
  });
});
