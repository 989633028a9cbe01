// Stones as files, read back by others: dxf-parser and papaparse (npm), librsvg (Debian).
import { execFileSync } from "node:child_process";
import DxfParser, { type ICircleEntity } from "dxf-parser";
import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import { circle, ring } from "../area/area.test.support.ts";
import { writeShapesDxf, writeShapesSvg } from "../formats/index.ts";
import { diameterOf, type StoneSize } from "../trade/index.ts";
import { countStones, fillInRows, layTemplates, Setting, type Stone, writeStonesCsv } from "./index.ts";

const DESIGN = { widthMm: 90, heightMm: 60 };
const SPOTS = [
  { id: "aa0000", rgb: [201, 36, 47] },
  { id: "0000aa", rgb: [20, 48, 79] },
] as const;
const nameOf = (spotId: string) => (spotId === "aa0000" ? "Signal red, clear" : "Deep water");

/** A red field of larger stones and a blue disc of smaller ones. */
function setBoth(): readonly Stone[] {
  const setting = new Setting(0.3);
  const fill = (rings: Float64Array[], size: StoneSize, spotId: string) =>
    fillInRows(rings, "hexagons", { size, spotId, angleDeg: 0, gaps: { gapMm: 0.4, leastMm: 0.3 } }, setting);
  fill([ring(4, 4, 44, 4, 44, 34, 4, 34)], "SS10", "aa0000");
  fill([circle(66, 34, 16)], "SS6", "0000aa");
  return setting.stones;
}
const STONES = setBoth();

describe("the stone list", () => {
  const csv = writeStonesCsv(STONES, { job: "Crest", ...DESIGN, nameOf, spots: SPOTS });
  it("is read by any table reader: a row for each stone, with its size, width, colour and spot", () => {
    const { data, errors } = Papa.parse<Record<string, string>>(csv, {
      header: true,
      comments: "#",
      skipEmptyLines: true,
    });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(STONES.length);
    data.forEach((row, i) => {
      const { x, y, size, spotId } = STONES[i];
      expect(Math.hypot(Number(row.x_mm) - x, Number(row.y_mm) - y)).toBeLessThan(0.001);
      expect(row).toMatchObject({
        size,
        diameter_mm: String(diameterOf(size)),
        colour: nameOf(spotId),
        spot_id: spotId,
      });
    });
  });
  it("counts by spot and size: how many to have at hand for all pieces, what they cost, what the shelf has", () => {
    const stock = {
      aa0000: {
        ...({ kind: "stone", code: "C-21", name: "Port light", hex: "#c9242f", difference: 1, film: null } as const),
        stones: { SS6: 1440, SS8: null, SS10: 20, SS12: null, SS16: null, SS20: null, SS30: null, SS34: null },
      },
    };
    const facts = { spotIds: ["aa0000", "0000aa"], stock, pieces: 12, lossPercent: 5, prices: "SS6 0.90, SS10 1.10" };
    const counts = countStones(STONES, facts);
    expect(counts.map(({ spotId, size }) => `${spotId} ${size}`)).toEqual(["aa0000 SS10", "0000aa SS6"]);
    expect(counts.reduce((sum, { count }) => sum + count, 0)).toBe(STONES.length);
    for (const { count, needed } of counts) expect(needed).toBe(Math.ceil(count * 12 * 1.05));
    const [red, blue] = counts;
    expect(red.price).toBeCloseTo(red.needed * 0.011, 9);
    expect([red.kept, blue.kept]).toEqual([20, null]);
    const inOther = countStones(
      STONES.map((stone) => ({ ...stone, size: "SS8" as const })),
      facts,
    );
    expect(inOther.map(({ isKept, price }) => [isKept, price])).toEqual([
      [false, null],
      [true, null],
    ]);
  });
});

describe("templates", () => {
  const circlesOf = (text: string) =>
    (new DxfParser().parseSync(text)?.entities ?? []).filter(
      (entity): entity is ICircleEntity => entity.type === "CIRCLE",
    );
  it("hold a hole for each stone, a quarter of a millimetre wider, where it lies (dxf-parser)", () => {
    const [template, ...others] = layTemplates(STONES, DESIGN, "one", false);
    expect(others).toHaveLength(0);
    const holes = circlesOf(writeShapesDxf(template.drawing)).filter(({ layer }) => layer.startsWith("HOLES"));
    expect(holes).toHaveLength(STONES.length);
    for (const { x, y, size } of STONES) {
      // y up, the template 14 mm larger on every side.
      const [hx, hy] = [x + 14, DESIGN.heightMm + 14 - y];
      const own = holes.find(({ center }) => Math.hypot(center.x - hx, center.y - hy) < 0.005);
      expect(Math.abs(2 * (own?.radius ?? 0) - (diameterOf(size) + 0.25))).toBeLessThan(0.005);
    }
  });
  it("by size or by colour hold each stone once, and are laid on each other by the same four holes", () => {
    for (const split of ["sizes", "colours"] as const) {
      const templates = layTemplates(STONES, DESIGN, split, false);
      expect(templates).toHaveLength(2);
      expect(templates.reduce((sum, { stones }) => sum + stones, 0)).toBe(STONES.length);
      const registers = templates.map(({ drawing }) =>
        circlesOf(writeShapesDxf(drawing))
          .filter(({ layer }) => layer === "REGISTER")
          .map(({ center, radius }) => [center.x, center.y, radius]),
      );
      expect(registers[0]).toHaveLength(4);
      expect(registers[1]).toEqual(registers[0]);
    }
  });
  it("mirrored have every hole on the other side", () => {
    const [plain] = layTemplates(STONES, DESIGN, "one", false);
    const [mirrored] = layTemplates(STONES, DESIGN, "one", true);
    const width = DESIGN.widthMm + 28;
    const places = (template: typeof plain) => circlesOf(writeShapesDxf(template.drawing)).map(({ center }) => center);
    places(plain).forEach(({ x, y }, i) => {
      const other = places(mirrored)[i];
      expect(Math.hypot(width - x - other.x, y - other.y)).toBeLessThan(1e-5);
    });
  });
  it("as SVG are as large as the design and its margin, holes where they belong (librsvg)", () => {
    const [template] = layTemplates(STONES, DESIGN, "one", false);
    const svg = writeShapesSvg(template.drawing).replaceAll('fill="none"', 'fill="#000"');
    const png = execFileSync("rsvg-convert", ["-w", String((DESIGN.widthMm + 28) * 10), "-b", "#fff"], { input: svg });
    const pgm = execFileSync("sh", ["-c", "pngtopnm | ppmtopgm"], { input: png, stdio: ["pipe", "pipe", "ignore"] });
    const header = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(pgm.subarray(0, 40).toString("latin1"));
    const [width, height] = [Number(header?.[1]), Number(header?.[2])];
    expect(width).toBe(1180);
    expect(Math.abs(height - 880)).toBeLessThanOrEqual(1);
    const pixels = pgm.subarray(header?.[0].length ?? 0);
    const isHole = (xMm: number, yMm: number) =>
      pixels[Math.round((yMm + 14) * 10) * width + Math.round((xMm + 14) * 10)] < 128;
    for (const { x, y } of STONES) expect(isHole(x, y)).toBe(true);
    expect(isHole(50, 10)).toBe(false);
  });
});
