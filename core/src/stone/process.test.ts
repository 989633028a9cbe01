import { execFileSync } from "node:child_process";
import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import { FACTS } from "../../../tools/testing/output-facts.ts";
import type { Rgb } from "../colour/index.ts";
import { invertMap, mapPoint, straightenFrame, wholeFrame } from "../raster/index.ts";
import type { StockReference } from "../shelf/index.ts";
import { paint, traceRaster } from "../testing/pictures.test.support.ts";
import { diameterOf } from "../trade/index.ts";
import { type HandEntry, type Stone, type StoneSettings, stones, stonesMaking } from "./index.ts";

const WHITE: Rgb = [255, 255, 255];
const NAVY: Rgb = [20, 48, 79];
const GOLD: Rgb = [242, 177, 52];
const [GOLD_ID, NAVY_ID] = ["f2b134", "14304f"];

/** A gold field of 60 x 40 px on cloth, outlined; beside it a navy square of 16 px, filled, and under it a bar, one row. */
const ART = paint(120, 80, (x, y) => {
  if (x >= 8 && x < 68 && y >= 10 && y < 50) return GOLD;
  if (x >= 84 && x < 100 && y >= 20 && y < 36) return NAVY;
  return x >= 10 && x < 110 && y >= 64 && y < 68 ? NAVY : WHITE;
});
const { map, reduction } = traceRaster(ART);
const SPOTS = reduction.spots.map((spot) => (spot.id === "ffffff" ? { ...spot, role: "garment" as const } : spot));

/** What the process makes of it, a millimetre to the pixel, in SS10 unless said otherwise; white is the garment. */
function make(
  settings: Partial<StoneSettings> = {},
  { frame = wholeFrame(120, 80), stock = {} as Record<string, StockReference> } = {},
) {
  const design = {
    ...{ map, picture: ART, frame, spots: SPOTS, order: [], widthMm: 120, garment: WHITE },
    ...{ stock, pieces: 10, placement: null },
  };
  const steps = stonesMaking
    .open()
    .make(design, stones.withSettings({ processes: {} }, { everywhere: { size: "SS10" }, ...settings }), "a picture");
  let step = steps.next();
  while (!step.done) step = steps.next();
  const made = stones.resultIn([step.value]);
  if (!made) throw new Error("nothing was made");
  return { product: step.value, made };
}

const hand = (...entries: readonly unknown[]) => ({
  hand: entries.map((entry, i) => ({ id: `stone-${i + 1}`, isOn: true, ...(entry as object) })) as HandEntry[],
});
const nearest = (all: readonly Stone[], x: number, y: number) =>
  all.reduce((best, one) => (Math.hypot(one.x - x, one.y - y) < Math.hypot(best.x - x, best.y - y) ? one : best));
const leastGap = (all: readonly Stone[]) =>
  Math.min(
    ...all.flatMap((one, i) =>
      all
        .slice(i + 1)
        .map(
          (other) => Math.hypot(one.x - other.x, one.y - other.y) - (diameterOf(one.size) + diameterOf(other.size)) / 2,
        ),
    ),
  );

describe("what is decided", () => {
  const { made } = make();
  it("is by width at true size: the field is outlined, the square filled, the bar one row", () => {
    const asOf = (spotId: string) =>
      made.areas.filter((area) => area.spotId === spotId).map(({ numbers }) => numbers.as);
    expect(asOf(GOLD_ID)).toEqual(["outline"]);
    expect(asOf(NAVY_ID).sort()).toEqual(["fill", "middle"]);
    expect(leastGap(made.stones)).toBeGreaterThan(0.3 - 1e-5);
  });
  it("on all, on a spot and on one area: the narrower goes before", () => {
    const changed = make({
      everywhere: { size: "SS6" },
      decided: { [NAVY_ID]: { size: "SS8" } },
      areas: [{ id: "area-1", isOn: true, at: { x: 92, y: 28 }, as: "outline" }],
    }).made;
    const square = changed.areas.find(({ entryIds }) => entryIds.includes("area-1"));
    expect(square?.numbers).toMatchObject({ as: "outline", size: "SS8" });
    expect(changed.areas.find(({ spotId }) => spotId === GOLD_ID)?.numbers.size).toBe("SS6");
  });
  it("by the sizes that the shelf keeps: a spot whose stones are kept in SS16 alone is proposed in them", () => {
    const only = { SS6: null, SS8: null, SS10: null, SS12: null, SS16: 100, SS20: null, SS30: null, SS34: null };
    const stock = {
      [GOLD_ID]: {
        ...{ kind: "stone", code: "C-31", name: "Oilskin", hex: "#f2b134", difference: 1 },
        film: null,
        stones: only,
      },
    } as Record<string, StockReference>;
    const { made: kept, product } = make({ everywhere: {} }, { stock });
    expect(new Set(kept.stones.filter(({ spotId }) => spotId === GOLD_ID).map(({ size }) => size))).toEqual(
      new Set(["SS16"]),
    );
    const filled = make({ everywhere: { as: "fill", isMixed: true } }, { stock }).made.stones;
    expect(new Set(filled.filter(({ spotId }) => spotId === GOLD_ID).map(({ size }) => size))).toEqual(
      new Set(["SS16"]),
    );
    expect(product.report().warnings.map(({ text }) => text)).toEqual([
      expect.stringMatching(/^\d+ of C-31 Oilskin in SS16 are needed, 100 are on the shelf\.$/),
    ]);
  });
  it("lies over the design's edge by no more than is allowed", () => {
    const inside = make({ overShare: 0, everywhere: { size: "SS10" } }).made.stones;
    expect(inside.length).toBeGreaterThan(60);
    const boxes = [
      [8, 10, 68, 50],
      [84, 20, 100, 36],
      [10, 64, 110, 68],
    ];
    for (const { x, y, size } of inside) {
      const r = diameterOf(size) / 2 - 0.06;
      expect(boxes.some(([l, t, right, b]) => x - r >= l && x + r <= right && y - r >= t && y + r <= b)).toBe(true);
    }
  });
});

describe("stones by hand", () => {
  const before = make().made.stones;
  it("are moved, and others give way; or are left where they were if there is no room", () => {
    const [one, other] = [nearest(before, 38, 10), nearest(before, 41, 10)];
    const to = { x: other.x - 0.6, y: other.y };
    const moved = make(hand({ kind: "move", at: one, to, givesWay: true })).made;
    expect(moved.missed).toEqual([]);
    expect(Math.hypot(nearest(moved.stones, to.x, to.y).x - to.x)).toBeLessThan(1e-9);
    expect(moved.stones).toHaveLength(before.length);
    expect(leastGap(moved.stones)).toBeGreaterThan(0.3 - 1e-5);
    const stayed = make(hand({ kind: "move", at: one, to, givesWay: false })).made;
    expect(stayed.missed).toEqual([{ id: "stone-1", why: "room" }]);
    expect(stayed.stones.map(({ x, y }) => [x, y]).sort()).toEqual(before.map(({ x, y }) => [x, y]).sort());
  });
  it("are added, taken away and changed", () => {
    const one = nearest(before, 38, 10);
    const { stones: all, missed } = make(
      hand(
        { kind: "add", at: { x: 38, y: 30 }, size: "SS20", spotId: NAVY_ID },
        { kind: "take", at: nearest(before, 60, 50) },
        { kind: "change", at: one, size: "SS16", spotId: NAVY_ID },
        { kind: "take", at: { x: 38, y: 35 } },
      ),
    ).made;
    expect(missed).toEqual([{ id: "stone-4", why: "gone" }]);
    expect(all).toHaveLength(before.length);
    expect(nearest(all, 38, 30)).toMatchObject({ x: 38, y: 30, size: "SS20", spotId: NAVY_ID });
    expect(nearest(all, one.x, one.y)).toMatchObject({ size: "SS16", spotId: NAVY_ID });
    expect(leastGap(all)).toBeGreaterThan(0.3 - 1e-5);
  });
  it("of one row lie evenly again after one was taken out of it", () => {
    const row = before.filter(({ y }) => Math.abs(y - 10) < 0.1).sort((a, b) => a.x - b.x);
    const [first, last, middle] = [row[4], row[12], row[8]];
    const spread = make(hand({ kind: "take", at: middle }, { kind: "spread", at: first, to: last })).made.stones.filter(
      ({ x, y }) => Math.abs(y - 10) < 0.1 && x >= first.x - 0.01 && x <= last.x + 0.01,
    );
    const xs = spread.map(({ x }) => x).sort((a, b) => a - b);
    const steps = xs.slice(1).map((x, i) => x - xs[i]);
    expect(steps).toHaveLength(7);
    for (const step of steps) expect(step).toBeCloseTo((last.x - first.x) / 7, 2);
  });
  it("in a row of a fill move along it by halves of a gap", () => {
    const settings = {
      areas: [{ id: "area-1", isOn: true, at: { x: 92, y: 28 }, as: "fill" as const, pattern: "squares" as const }],
    };
    const plain = make(settings).made.stones;
    const one = nearest(plain, 92, 28);
    const { stones: shifted, missed } = make({ ...settings, ...hand({ kind: "shift", at: one, halfGaps: -1 }) }).made;
    expect(missed).toEqual([]);
    const inRow = (all: readonly Stone[]) =>
      all
        .filter(({ row }) => row === one.row)
        .map(({ x }) => x)
        .sort((a, b) => a - b);
    inRow(shifted).forEach((x, i) => {
      expect(x).toBeCloseTo(inRow(plain)[i] - 0.2, 6);
    });
    expect(inRow(plain).length).toBeGreaterThan(2);
  });
  it("keep their places in the client's picture when it is laid upright another way", () => {
    const frame = straightenFrame(wholeFrame(120, 80), 4);
    const at = { x: 60, y: 40 };
    const { x, y } = mapPoint(invertMap(frame.toSource), at);
    expect(Math.hypot(x - at.x, y - at.y)).toBeGreaterThan(1);
    // As large as it was on the garment: the picture has grown a little round it.
    const { stones: all } = make(hand({ kind: "add", at, size: "SS20", spotId: NAVY_ID }), { frame }).made;
    const added = all.find(({ size }) => size === "SS20");
    expect(Math.hypot((added?.x ?? 0) - x, (added?.y ?? 0) - y)).toBeLessThan(1e-6);
  });
});

describe("the files of a job in stones", () => {
  const settings: Partial<StoneSettings> = {
    template: { split: "sizes", isMirrored: false, formats: ["svg", "dxf", "hpgl"] },
    decided: { [NAVY_ID]: { size: "SS6" } },
  };
  const { product, made } = make(settings);
  const listed = product.outputs(FACTS);
  const fileOf = async (name: string) => {
    const output = (await listed).outputs.find((one) => one.name === name);
    if (!output) throw new Error(`no file ${name}`);
    return Buffer.from(await output.make(() => {}));
  };
  it("are a template for each size in each format, the list and the check sheet", async () => {
    const sizes = [...new Set(made.stones.map(({ size }) => size))];
    expect(sizes).toHaveLength(2);
    expect((await listed).outputs.map(({ name }) => name).sort()).toEqual(
      [
        ...sizes.flatMap((size) => ["dxf", "plt", "svg"].map((ending) => `template-${size}.${ending}`)),
        ...["stones.csv", "check-sheet.pdf"],
      ].sort(),
    );
  });
  it("agree in their counts: report, list, check sheet (poppler), templates", async () => {
    const facts = product.report().facts.stones as { spotId: string; size: string; count: number }[];
    const total = facts.reduce((sum, { count }) => sum + count, 0);
    expect(total).toBe(made.stones.length);
    const { data } = Papa.parse<{ size: string; spot_id: string }>((await fileOf("stones.csv")).toString(), {
      ...{ header: true, comments: "#", skipEmptyLines: true },
    });
    for (const { spotId, size, count } of facts)
      expect(data.filter((row) => row.size === size && row.spot_id === spotId)).toHaveLength(count);
    expect(data).toHaveLength(total);
    const words = execFileSync("pdftotext", ["-layout", "-", "-"], {
      input: await fileOf("check-sheet.pdf"),
    }).toString();
    expect(words).toContain(`${total} stones on 120.0 × 80.0 mm; 10 pieces`);
    for (const { size, count } of facts) expect(words).toMatch(new RegExp(`${size}\\s+${count}\\s`));
    for (const size of ["SS6", "SS10"]) {
      const plot = (await fileOf(`template-${size}.plt`)).toString();
      // Four holes line the templates up.
      expect(plot.match(/PU\d/g)).toHaveLength(made.stones.filter((stone) => stone.size === size).length + 4);
    }
  });
  it("show every stone at true size on the check sheet (poppler, netpbm)", async () => {
    const png = execFileSync("pdftoppm", ["-r", "254", "-png", "-"], { input: await fileOf("check-sheet.pdf") });
    const pgm = execFileSync("sh", ["-c", "pngtopnm | ppmtopgm"], {
      input: png,
      stdio: ["pipe", "pipe", "ignore"],
      maxBuffer: 1e8,
    });
    const header = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(pgm.subarray(0, 40).toString("latin1"));
    const width = Number(header?.[1]);
    expect(Math.abs(width - 2100)).toBeLessThanOrEqual(1);
    const pixels = pgm.subarray(header?.[0].length ?? 0);
    // In the middle of A4, 42 mm from its upper edge.
    const shade = (x: number, y: number) => pixels[Math.round((y + 42) * 10) * width + Math.round((x + 45) * 10)];
    for (const { x, y } of made.stones) expect(shade(x, y)).toBeLessThan(250);
    expect(shade(38, 30)).toBe(255);
  });
});
