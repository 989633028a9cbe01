import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { FACTS } from "../../../tools/testing/output-facts.ts";
import type { Rgb } from "../colour/index.ts";
import { polygonPath } from "../geometry/index.ts";
import type { StockReference } from "../shelf/index.ts";
import type { Layer, Layering } from "./layers.ts";
import { planPress } from "./press-plan.ts";
import { writePressSheet } from "./press-sheet-pdf.ts";
import { transferSettingsSchema } from "./settings.ts";
import type { FilmSheet } from "./sheets.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-press-"));
afterAll(() => rmSync(folder, { recursive: true }));

/** Layers of 200 mm in these colours. */
function layeringOf(...colours: Rgb[]): Layering {
  const layers = colours.map(
    (rgb, i): Layer => ({
      ...{ spotId: `00000${i}`, name: `Colour ${i + 1}`, rgb, order: i + 1, mode: "lapped", proposedMode: "lapped" },
      region: [polygonPath([0, 20 * i, 100, 20 * i, 100, 20 * i + 18, 0, 20 * i + 18])],
      ...{ thickened: [], areaMm2: 0, underMm2: 0, pieces: 1, nodes: 4 },
    }),
  );
  return { widthPx: 100, heightPx: 100, mmPerPx: 2, layers, given: [], outline: [], stack: { most: 1, place: null } };
}

const stock = (film: Partial<NonNullable<StockReference["film"]>>): StockReference => ({
  ...{ kind: "transfer-film", code: "F-11", name: "Deep water", hex: "#18345a", difference: 1, stones: null },
  film: { rollWidthMm: null, pricePerMetre: null, tackS: null, finalS: null, celsius: null, ...film },
});
const sheet = (spotId: string, chosen: StockReference | null) => ({ spotId, stock: chosen }) as FilmSheet;

const settings = transferSettingsSchema.parse({});
const two = layeringOf([20, 48, 79], [216, 65, 47]);

describe("pressing", () => {
  it("tacks each layer and presses the whole: 5 s, 15 s, 165 degrees where nothing else is said (common practice, no source)", () => {
    const plan = planPress(two, [], settings, 50);
    expect(plan).toMatchObject({ perPieceS: 25, finalS: 15, celsius: 165, notes: [] });
    expect(plan.steps.map(({ tackS, film }) => [tackS, film])).toEqual([
      [5, null],
      [5, null],
    ]);
  });

  it("goes by each film's own numbers; the whole is pressed as long as one needs, and no hotter than all stand", () => {
    const sheets = [sheet("000000", stock({ tackS: 8, celsius: 150 })), sheet("000001", stock({ finalS: 20 }))];
    const plan = planPress(two, sheets, settings, 1);
    expect(plan).toMatchObject({ perPieceS: 8 + 5 + 20, finalS: 20, celsius: 150 });
    expect(plan.steps[0]).toMatchObject({ celsius: 150, film: "F-11 Deep water" });
    expect(plan.notes).toHaveLength(1);
  });
});

describe("the press sheet", () => {
  const read = async (layering: Layering, placement: { name: string } | null) => {
    const plan = planPress(layering, [sheet("000000", stock({}))], settings, 50);
    const bytes = await writePressSheet({ layering, plan, design: { garment: [29, 42, 68], placement } }, FACTS);
    const file = join(folder, "press-sheet.pdf");
    writeFileSync(file, bytes);
    execFileSync("qpdf", ["--check", file]);
    const text = execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" });
    const pages = Number(/Pages:\s+(\d+)/.exec(execFileSync("pdfinfo", [file], { encoding: "utf8" }))?.[1]);
    return { file, text, pages };
  };

  it("says on one page, read by pdftotext, what the press needs", async () => {
    const { text, pages } = await read(two, { name: "Left chest" });
    expect(pages).toBe(1);
    expect(text).toContain("7 Tern");
    expect(text).toContain("Tern Island Ferry");
    expect(text).toContain("2 layers, then 15 s for the whole: 25 s under the press for a piece, 21 min for 50");
    expect(text.indexOf("Colour 1")).toBeLessThan(text.indexOf("Colour 2"));
    expect(text).toContain("F-11 Deep water");
    expect(text).toContain("lapped; tack 5 s at 165 °C");
    expect(text).toContain("Press the whole: 15 s at 165 °C");
    expect(text).toContain("Upper edge 100 mm under the collar");
    expect(text).toContain("Its middle 105 mm from the garment's");
  });

  it("stays one page with many layers, nothing beyond its margins", async () => {
    const colours = Array.from({ length: 16 }, (_, i): Rgb => [i * 15, 100, 200 - i * 10]);
    const { file, text, pages } = await read(layeringOf(...colours), null);
    expect(pages).toBe(1);
    expect(text).toContain("Colour 16");
    // Bounds of all words, points.
    const boxes = execFileSync("pdftotext", ["-bbox", file, "-"], { encoding: "utf8" });
    for (const [, right, bottom] of boxes.matchAll(/xMax="([\d.]+)" yMax="([\d.]+)"/g)) {
      expect(Number(right)).toBeLessThan(595 - 20);
      expect(Number(bottom)).toBeLessThan(842 - 20);
    }
  });

  it("shows the shirt after each press: the first picture has the first film alone, the next both (by poppler)", async () => {
    const { file } = await read(two, null);
    const ppm = execFileSync("pdftoppm", ["-r", "72", "-singlefile", file], { maxBuffer: 1 << 24 });
    const [, width] = /P6\n(\d+) (\d+)\n255\n/.exec(ppm.subarray(0, 30).toString("latin1")) ?? [];
    const pixels = ppm.subarray(ppm.length - Number(width) * 842 * 3);
    const has = ([r, g, b]: Rgb, fromMm: number, toMm: number) => {
      const [from, to] = [fromMm, toMm].map((mm) => Math.round((mm / 25.4) * 72));
      for (let y = from; y < to; y++)
        for (let x = 34; x < 34 + 90; x++) {
          const o = (y * Number(width) + x) * 3;
          if (Math.abs(pixels[o] - r) + Math.abs(pixels[o + 1] - g) + Math.abs(pixels[o + 2] - b) < 12) return true;
        }
      return false;
    };
    expect(has([20, 48, 79], 48, 78)).toBe(true);
    expect(has([216, 65, 47], 48, 78)).toBe(false);
    expect(has([216, 65, 47], 82, 112)).toBe(true);
  });
});
