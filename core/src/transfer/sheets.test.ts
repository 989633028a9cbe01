import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import DxfParser from "dxf-parser";
import fc from "fast-check";
import { afterAll, describe, expect, it } from "vitest";
import { drawLines, drawPlot, farFrom } from "../../../tools/testing/cut-pictures.ts";
import { FACTS } from "../../../tools/testing/output-facts.ts";
import { flattenPath, polygonPath, reversePath } from "../geometry/index.ts";
import { circleRegion } from "../testing/separation.test.support.ts";
import type { Layer, Layering } from "./layers.ts";
import { type Nesting, nestPieces, type Roll } from "./nest.ts";
import { listLayerOutputs } from "./outputs.ts";
import { placeOnRoll } from "./piece.ts";
import { type TransferSettings, transferSettingsSchema } from "./settings.ts";
import { planSheets } from "./sheets.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-sheets-"));
afterAll(() => rmSync(folder, { recursive: true }));

const spot = { id: "14304f", name: "Navy", rgb: [20, 48, 79], role: "ink" } as never;

/** A round badge of 100 mm with a hole, and a layer of a bar in it; half a millimetre to the unit. */
function badge(): Layering {
  const layer = (id: string, order: number, region: Layer["region"]): Layer => ({
    ...{ spotId: id, name: id, rgb: [20, 48, 79], order, mode: "lapped", proposedMode: "lapped", region },
    ...{ thickened: [], areaMm2: 1000, underMm2: 0, pieces: 1, nodes: 4 },
  });
  const [disc] = circleRegion(100, 100, 100);
  const [hole] = circleRegion(100, 60, 30);
  return {
    ...{ widthPx: 200, heightPx: 200, mmPerPx: 0.5, given: [], outline: [disc] },
    layers: [
      layer("14304f", 1, [disc, reversePath(hole)]),
      layer("d8412f", 2, [polygonPath([40, 120, 160, 120, 160, 150, 40, 150])]),
    ],
    stack: { most: 1, place: null },
  };
}

const made = (spots: never[]) => ({ spots, garment: [255, 255, 255] as const, placement: null, pieces: 3 });
const design = { stock: {}, pieces: 5, widthMm: 100 };
const settingsOf = (sheets: Partial<TransferSettings["sheets"]> = {}, rest: Partial<TransferSettings> = {}) =>
  transferSettingsSchema.parse({ sheets: { hasMarks: true, ...sheets }, ...rest });

/** Length of the best rows of all turned alike, by the trade's own arithmetic. */
function bestRows(count: number, w: number, h: number, { widthMm, edgeMm, gapMm }: Roll): number {
  const rows = (across: number, along: number) => {
    const inRow = Math.floor((widthMm - 2 * edgeMm + gapMm) / (across + gapMm));
    return inRow < 1 ? Number.POSITIVE_INFINITY : Math.ceil(count / inRow) * (along + gapMm) - gapMm;
  };
  return Math.min(rows(w, h), rows(h, w));
}

/** The least distance between two pieces either way, and whether all lie on the roll. */
function checkNesting({ placements, lengthMm }: Nesting, w: number, h: number, roll: Roll) {
  const boxes = placements.map(({ x, y, isTurned }) => {
    const [across, along] = isTurned ? [h, w] : [w, h];
    return { left: x, top: y, right: x + across, bottom: y + along };
  });
  let least = Number.POSITIVE_INFINITY;
  boxes.forEach((a, i) => {
    for (const b of boxes.slice(i + 1))
      least = Math.min(least, Math.max(b.left - a.right, a.left - b.right, b.top - a.bottom, a.top - b.bottom));
  });
  const isInside = boxes.every(
    ({ left, top, right, bottom }) =>
      left >= roll.edgeMm - 1e-6 &&
      top >= -1e-6 &&
      right <= roll.widthMm - roll.edgeMm + 1e-6 &&
      bottom <= lengthMm + 1e-6,
  );
  return { least, isInside };
}

describe("pieces nested on a roll", () => {
  it("property: all of them, inside it, their gap apart, and never on more of it than the best rows take", () => {
    const size = fc.double({ min: 20, max: 290, noNaN: true });
    fc.assert(
      fc.property(size, size, fc.constantFrom(1, 12, 50), fc.constantFrom(305, 381, 508), (w, h, count, widthMm) => {
        const roll = { widthMm, edgeMm: 5, gapMm: 5 };
        const nesting = nestPieces(count, { widthMm: w, heightMm: h }, roll);
        if (!nesting) throw new Error("a piece that fits was refused");
        expect(nesting.placements).toHaveLength(count);
        const { least, isInside } = checkNesting(nesting, w, h, roll);
        expect(isInside).toBe(true);
        if (count > 1) expect(least).toBeGreaterThan(5 - 1e-6);
        expect(nesting.lengthMm).toBeLessThanOrEqual(bestRows(count, w, h, roll) + 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  it("mixes turned and unturned ones where that is shorter", () => {
    // Beside a column of three, 150 across, there is room for two that are turned.
    const roll = { widthMm: 250, edgeMm: 0, gapMm: 0 };
    const nesting = nestPieces(5, { widthMm: 150, heightMm: 100 }, roll);
    expect(nesting?.lengthMm).toBeCloseTo(300, 6);
    expect(bestRows(5, 150, 100, roll)).toBe(450);
  });
});

describe("a sheet of film", () => {
  const [disc, bar] = planSheets(badge(), design, settingsOf());

  it("has all pieces of a job as large as its design, with marks at the same places of every layer", () => {
    expect([bar.piece.widthMm, bar.piece.heightMm]).toEqual([disc.piece.widthMm, disc.piece.heightMm]);
    expect(bar.piece.marks).toEqual(disc.piece.marks);
    expect(disc.piece.marks).toHaveLength(3);
    // The badge's empty corners have room for them: the piece is the design and the box's margin.
    expect(disc.piece.widthMm).toBeCloseTo(110, 6);
  });

  it("without marks takes each layer's own size", () => {
    const [, alone] = planSheets(badge(), design, settingsOf({ hasMarks: false }));
    expect(alone.piece.widthMm).toBeCloseTo(60 + 10, 6);
    expect(alone.piece.heightMm).toBeCloseTo(15 + 10, 6);
  });

  it("has marks beside the design where its corners are taken", () => {
    const square = badge();
    const outline = [polygonPath([0, 0, 200, 0, 200, 200, 0, 200])];
    const [sheet] = planSheets({ ...square, outline }, design, settingsOf());
    expect(sheet.piece.widthMm).toBeCloseTo(110 + 2 * 11, 6);
  });

  it("parts its waste by lines that keep clear of film and marks, and stay in the box", () => {
    const [sheet] = planSheets(badge(), design, settingsOf({ weedLinesMm: 30 }));
    const { weedLines, film, marks, widthMm, heightMm } = sheet.piece;
    expect(weedLines.length).toBeGreaterThan(3);
    const sides = [...film, ...marks].map((path) => flattenPath(path, 0.02));
    for (const [x0, y, x1] of weedLines) {
      expect(Math.min(x0, widthMm - x1, y, heightMm - y)).toBeGreaterThanOrEqual(0);
      for (let x = x0; x <= x1; x += 0.2)
        for (const side of sides)
          for (let i = 0; i < side.length; i += 2)
            expect(Math.hypot(side[i] - x, side[i + 1] - y)).toBeGreaterThan(1.49);
    }
  });

  it("tells its place in the press order by notches of its box's edge", () => {
    const notches = (sheet: typeof disc) =>
      (sheet.piece.box ?? []).filter((v, i) => i % 2 === 1 && v > 0 && v < 2).length;
    expect([notches(disc), notches(bar)]).toEqual([1, 2]);
  });

  it("says what it takes: of the roll, of money, of time, and what is waste", () => {
    const [sheet] = planSheets(badge(), design, settingsOf({ rollWidthMm: 508, pricePerMetre: 8 }));
    // Four of 110 mm across, two rows.
    expect(sheet.nesting?.lengthMm).toBeCloseTo(225, 6);
    expect(sheet.cost).toBeCloseTo(0.225 * 8, 6);
    expect(sheet.wasteShare).toBeCloseTo(1 - 5000 / (508 * 225), 6);
    expect(sheet.cutS).toBeGreaterThan((5 * (2 * Math.PI * 65 + 440)) / 200);
  });

  it("takes roll and price from the film that was chosen on the shelf", () => {
    const film = { rollWidthMm: 305, pricePerMetre: 12, tackS: null, finalS: null, celsius: null };
    const chosen = {
      kind: "transfer-film",
      code: "F-11",
      name: "Deep water",
      hex: "#18345a",
      difference: 1,
      film,
      stones: null,
    } as const;
    const [sheet] = planSheets(badge(), { ...design, stock: { "14304f": chosen } }, settingsOf());
    expect(sheet.roll.widthMm).toBe(305);
    expect(sheet.cost).toBeCloseTo(((sheet.nesting?.lengthMm ?? 0) / 1000) * 12, 9);
  });

  it("that is too wide for its roll says at once how wide a print fits", () => {
    const settings = settingsOf({ rollWidthMm: 90 });
    const [sheet] = planSheets(badge(), design, settings);
    expect(sheet.nesting).toBeNull();
    const at = (widthMm: number) =>
      planSheets({ ...badge(), mmPerPx: widthMm / 200 }, { ...design, widthMm }, settings)[0].nesting;
    expect(at(sheet.widestPrintMm - 0.01)).not.toBeNull();
    expect(at(sheet.widestPrintMm + 0.01)).toBeNull();
  });
});

describe("the files of a sheet", () => {
  const settings = settingsOf({ weedLinesMm: 40 }, { formats: ["svg", "dxf", "hpgl"] });
  const layering = badge();
  const sheets = planSheets(layering, { ...design, pieces: 3 }, settings);
  const { outputs } = listLayerOutputs({ layering, sheets, printed: null }, made([spot]), settings, FACTS);
  const read = async (name: string) => {
    const bytes = await outputs.find((one) => one.name === name)?.make(() => {});
    return new TextDecoder().decode(bytes);
  };

  it("are one drawing: HPGL by hp2xx along the roll, SVG by librsvg, within a tenth of a millimetre", async () => {
    // Small: hp2xx fits its picture to whole pixels, which over a long roll adds up.
    const small = { ...layering, mmPerPx: 0.15 };
    const [sheet] = planSheets(small, { ...design, pieces: 3, widthMm: 30 }, settings);
    const files = listLayerOutputs(
      { layering: small, sheets: [sheet], printed: null },
      made([spot]),
      settings,
      FACTS,
    ).outputs;
    const text = async (ending: string) =>
      new TextDecoder().decode(await files.find(({ name }) => name === `sheet-1-14304f.${ending}`)?.make(() => {}));
    // With a rim, so that no line is cut in half by the picture's edge.
    const svg = (await text("svg"))
      .replace(/fill="#14304f"/g, 'fill="none" stroke="#000" stroke-width="0.15"')
      .replace(/stroke-width="0.1"/g, 'stroke-width="0.15"')
      .replace(/width="([\d.]+)mm" height="([\d.]+)mm" viewBox="0 0 [^"]*"/, (_, width, height) => {
        const [w, h] = [Number(width) + 2, Number(height) + 2];
        return `width="${w}mm" height="${h}mm" viewBox="-1 -1 ${w} ${h}"`;
      });
    const [plotted, drawn] = [await drawPlot(folder, await text("plt"), 90), await drawLines(folder, svg)];
    expect(Math.abs(plotted.width - drawn.width)).toBeLessThanOrEqual(3);
    expect(farFrom(plotted, drawn, 2)).toBe(0);
    expect(farFrom(drawn, plotted, 2)).toBe(0);
  });

  it("have film, weed lines and box on layers of their own in DXF (dxf-parser), at true size", async () => {
    const entities = new DxfParser().parseSync(await read("sheet-1-14304f.dxf"))?.entities ?? [];
    const on = (layer: string) => entities.filter((entity) => entity.layer === layer);
    expect(on("NAVY")).toHaveLength(3 * 5);
    expect(on("BOX")).toHaveLength(3);
    expect(on("WEED").length).toBe(3 * sheets[0].piece.weedLines.length);
    const across = on("BOX").flatMap((entity) =>
      (entity as unknown as { vertices: { x: number }[] }).vertices.map(({ x }) => x),
    );
    expect(Math.max(...across) - Math.min(...across)).toBeCloseTo(3 * 110 + 10, 2);
  });

  it("cut each piece's box last, and no weed line over itself", async () => {
    const plot = await read("sheet-1-14304f.plt");
    const cuts = plot
      .split("PU")
      .slice(1, -1)
      .map((cut) => [...cut.matchAll(/(\d+),(\d+)/g)].map(([, x, y]) => [+x / 40, +y / 40]));
    const { box, weedLines } = sheets[0].piece;
    const perPiece = 5 + weedLines.length + 1;
    expect(cuts).toHaveLength(3 * perPiece);
    for (let k = 1; k <= 3; k++) {
      const last = cuts[k * perPiece - 1];
      const along = last.map(([x]) => x);
      expect(Math.max(...along) - Math.min(...along)).toBeCloseTo(110, 1);
      // Corners, three points for its one notch, the first again, and the overcut's end.
      expect(last).toHaveLength((box?.length ?? 0) / 2 + 1);
    }
    expect(cuts[perPiece - 2]).toHaveLength(2);
  });

  it("have names only for a pen: never among what is cut", async () => {
    const named = settingsOf({ hasNames: true }, { formats: ["svg", "dxf", "hpgl"] });
    const all = planSheets(layering, { ...design, pieces: 2 }, named);
    const files = listLayerOutputs({ layering, sheets: all, printed: null }, made([spot]), named, FACTS).outputs;
    const text = async (name: string) =>
      new TextDecoder().decode(await files.find((one) => one.name === name)?.make(() => {}));
    const plot = await text("sheet-1-14304f.plt");
    expect(plot.indexOf("SP2;")).toBeGreaterThan(plot.lastIndexOf("PD"));
    expect(plot.split("LB1 14304f\x03")).toHaveLength(3);
    expect(await text("sheet-1-14304f.svg")).toMatch(/<g data-use="pen"[^>]*><text[^>]*>1 14304f<\/text>/);
    const entities = new DxfParser().parseSync(await text("sheet-1-14304f.dxf"))?.entities ?? [];
    expect(entities.filter(({ type, layer }) => type === "TEXT" && layer === "PEN")).toHaveLength(2);
  });

  it("lie on the roll as they were nested", () => {
    const { nesting, piece } = sheets[0];
    const [first] = nesting?.placements ?? [];
    expect(placeOnRoll(piece, { ...first, isTurned: true }, 0, piece.heightMm)).toEqual([first.x, first.y]);
    expect(placeOnRoll(piece, { ...first, isTurned: true }, piece.widthMm, 0)).toEqual([
      first.x + piece.heightMm,
      first.y + piece.widthMm,
    ]);
  });
});
