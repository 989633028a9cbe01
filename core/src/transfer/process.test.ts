import { execFileSync } from "node:child_process";
import DxfParser from "dxf-parser";
import { describe, expect, it } from "vitest";
import { FACTS } from "../../../tools/testing/output-facts.ts";
import type { Rgb } from "../colour/index.ts";
import { flattenPath } from "../geometry/index.ts";
import { type Raster, wholeFrame } from "../raster/index.ts";
import { paint, renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { transfer, transferMaking } from "./index.ts";
import type { TransferSettings } from "./settings.ts";

const WHITE: Rgb = [255, 255, 255];
const NAVY: Rgb = [20, 48, 79];
const GOLD: Rgb = [242, 177, 52];

/** What the process makes of a picture, one millimetre to the pixel unless said otherwise; white is the garment. */
function make(raster: Raster, settings: Partial<TransferSettings> = {}, widthMm = raster.width) {
  const { map, reduction } = traceRaster(raster);
  const spots = reduction.spots.map((spot) => (spot.id === "ffffff" ? { ...spot, role: "garment" as const } : spot));
  const design = {
    map,
    picture: raster,
    frame: wholeFrame(raster.width, raster.height),
    spots,
    order: [],
    widthMm,
    garment: WHITE,
    stock: {},
    pieces: 1,
    placement: null,
  };
  const recipe = transfer.withSettings({ processes: {} }, settings);
  const steps = transferMaking.open().make(design, recipe, "a picture");
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

async function filesOf(product: ReturnType<typeof make>): Promise<Map<string, string>> {
  const texts = new Map<string, string>();
  for (const { name, make: write } of (await product.outputs(FACTS)).outputs)
    texts.set(name, new TextDecoder().decode(await write(() => {})));
  return texts;
}

/** A gold field with a navy bar at its left end, on cloth. */
const FIELD = paint(80, 40, (x, y) => (x < 8 || x >= 72 || y < 8 || y >= 32 ? WHITE : x < 24 ? NAVY : GOLD));

/** What poppler draws of a page, at 100 pixels to the inch. */
async function drawPage(pdf: Uint8Array) {
  const ppm = execFileSync("pdftoppm", ["-r", "100", "-singlefile", "-"], { input: pdf, maxBuffer: 1 << 26 });
  const [head, width, height] = /^P6\n(\d+) (\d+)\n255\n/.exec(ppm.subarray(0, 40).toString("latin1")) ?? [];
  const pixels = ppm.subarray(head?.length ?? 0);
  const at = (xMm: number, yMm: number) => {
    const o = (Math.floor((yMm / 25.4) * 100) * Number(width) + Math.floor((xMm / 25.4) * 100)) * 3;
    return [...pixels.subarray(o, o + 3)];
  };
  return { widthMm: (Number(width) / 100) * 25.4, heightMm: (Number(height) / 100) * 25.4, at };
}

describe("the art printed in one piece", () => {
  const wanted = { isWanted: true, art: "shapes", distanceMm: 2, closesHolesMm: 5, bleedMm: 1 } as const;
  const files = async (printed: Partial<TransferSettings["printed"]>, raster = FIELD) => {
    const made = make(raster, { printed: { ...wanted, ...printed }, formats: ["svg", "dxf", "hpgl"] });
    const bytes = new Map<string, Uint8Array>();
    for (const { name, make: write } of (await made.outputs(FACTS)).outputs) bytes.set(name, await write(() => {}));
    return { made, bytes, film: transfer.resultIn([made])?.printed };
  };
  const textOf = (bytes: Uint8Array | undefined) => new TextDecoder().decode(bytes);

  it("is a page with art, bleed and four marks at true size, and a line to cut it along", async () => {
    const { bytes, made, film } = await files({});
    expect([...bytes.keys()]).toEqual(["printed.pdf", "cut-line.svg", "cut-line.dxf", "cut-line.plt"]);
    // 64 x 24 mm of art, 2 mm round it, and 15 mm for the marks.
    const { widthMm, heightMm, at } = await drawPage(bytes.get("printed.pdf") ?? new Uint8Array());
    expect(widthMm).toBeCloseTo(64 + 4 + 30, -0.5);
    expect(heightMm).toBeCloseTo(24 + 4 + 30, -0.5);
    expect(at(17 + 4, 29)).toEqual(NAVY);
    expect(at(17 + 40, 29)).toEqual(GOLD);
    // A millimetre of colour beyond the outline, and none beyond that.
    expect(at(17 - 0.6, 29)).toEqual(NAVY);
    expect(at(17 - 1.5, 29)).toEqual([255, 255, 255]);
    for (const [x, y] of [
      [7.5, 7.5],
      [widthMm - 7.5, 7.5],
      [7.5, heightMm - 7.5],
      [widthMm - 7.5, heightMm - 7.5],
    ])
      expect(at(x, y)).toEqual([0, 0, 0]);
    expect(made.report().facts.printed).toMatchObject({ lifts: 1 });
    expect(film?.marks).toHaveLength(4);
  });

  it("is cut two millimetres from its outline all round, in every format alike", async () => {
    const { bytes, film } = await files({});
    const line = flattenPath(film?.cutLine[0] ?? new Float64Array(), 0.01);
    for (let i = 0; i < line.length; i += 2) {
      const dx = Math.max(17 - line[i], 0, line[i] - (17 + 64));
      const dy = Math.max(17 - line[i + 1], 0, line[i + 1] - (17 + 24));
      expect(Math.hypot(dx, dy)).toBeCloseTo(2, 0.9);
    }
    const entities = new DxfParser().parseSync(textOf(bytes.get("cut-line.dxf")))?.entities ?? [];
    expect(entities.filter(({ layer }) => layer === "CUT")).toHaveLength(1);
    expect(entities.filter(({ layer, type }) => layer === "MARKS" && type === "CIRCLE")).toHaveLength(4);
    const across = [...textOf(bytes.get("cut-line.plt")).matchAll(/(\d+),\d+/g)].map(([, x]) => Number(x) / 40);
    expect(Math.min(...across)).toBeCloseTo(15, 0);
    expect(Math.max(...across)).toBeCloseTo(83, 0);
    expect(textOf(bytes.get("cut-line.svg"))).toMatch(/<g data-use="cut"[^>]*><path/);
  });

  it("keeps wide holes and closes narrow ones", async () => {
    const ring = (r: number) =>
      paint(80, 80, (x, y) => {
        const away = Math.hypot(x - 39.5, y - 39.5);
        return away > 30 || away < r ? WHITE : NAVY;
      });
    expect((await files({}, ring(12))).film?.cutLine).toHaveLength(2);
    // Two millimetres from all sides leave it 4 mm wide.
    expect((await files({}, ring(4))).film?.cutLine).toHaveLength(1);
    expect((await files({ closesHolesMm: 2 }, ring(4))).film?.cutLine).toHaveLength(2);
  });

  it("may be the picture with all its shades", async () => {
    const shaded = paint(80, 40, (x, y) => (x < 8 || x >= 72 || y < 8 || y >= 32 ? WHITE : [20 + 2 * x, 48, 79]));
    const { bytes, film } = await files({ art: "picture" }, shaded);
    const { at } = await drawPage(bytes.get("printed.pdf") ?? new Uint8Array());
    const { x = 0, y = 0 } = film?.art ?? {};
    for (const px of [15, 40, 65]) {
      const [red] = at(x + px + 0.5, y + 20);
      expect(Math.abs(red - (20 + 2 * px))).toBeLessThan(4);
    }
  });
});

describe("transfer film", () => {
  it("reports each layer with what it takes of film and of the blade", () => {
    const { facts } = make(FIELD).report();
    const [gold, navy] = facts.layers as Record<string, number>[];
    expect(gold).toMatchObject({ spotId: "f2b134", order: 1, mode: "lapped", pieces: 1 });
    expect(gold.areaMm2).toBeCloseTo(48 * 24 + 24 * 0.5, 0);
    expect(gold.cutLengthMm).toBeCloseTo(2 * (48.5 + 24), 0);
    expect(navy).toMatchObject({ spotId: "14304f", order: 2 });
    expect(navy.cutLengthMm).toBeCloseTo(2 * (16 + 24), 0);
  });

  it("gives a cut file of each layer and format, as it lies on the cutter, and all layers as they are worn", async () => {
    const files = await filesOf(make(FIELD, { formats: ["svg", "dxf", "hpgl"] }));
    expect([...files.keys()]).toEqual([
      ...["svg", "dxf", "plt"].map((ending) => `layer-1-f2b134.${ending}`),
      ...["svg", "dxf", "plt"].map((ending) => `layer-2-14304f.${ending}`),
      "layers.svg",
      ...["svg", "dxf", "plt"].map((ending) => `sheet-1-f2b134.${ending}`),
      ...["svg", "dxf", "plt"].map((ending) => `sheet-2-14304f.${ending}`),
      "press-sheet.pdf",
    ]);
    // By resvg: the navy bar lies at the left as it is worn, and at the right on the cutter.
    const colourAt = (svg: string, x: number, y: number) => {
      const { width, data } = renderSvg(svg);
      const zoom = width / 80;
      return [...data.subarray((Math.floor(y * zoom) * width + Math.floor(x * zoom)) * 4)].slice(0, 4);
    };
    expect(colourAt(files.get("layers.svg") ?? "", 12, 20)).toEqual([...NAVY, 255]);
    expect(colourAt(files.get("layers.svg") ?? "", 60, 20)).toEqual([...GOLD, 255]);
    expect(colourAt(files.get("layer-2-14304f.svg") ?? "", 12, 20)[3]).toBe(0);
    expect(colourAt(files.get("layer-2-14304f.svg") ?? "", 68, 20)).toEqual([...NAVY, 255]);
    expect(files.get("layers.svg")).toMatch(/width="80mm" height="40mm"/);
    expect([...(files.get("layers.svg") ?? "").matchAll(/<g [^>]*data-id="([^"]*)"/g)].map(([, id]) => id)).toEqual([
      "f2b134",
      "14304f",
    ]);
    expect(files.get("layers.svg")).not.toContain("seams");
    const across = (new DxfParser().parseSync(files.get("layer-2-14304f.dxf") ?? "")?.entities ?? []).flatMap(
      (entity) => ("vertices" in entity ? (entity.vertices as { x: number }[]).map(({ x }) => x) : []),
    );
    expect(Math.min(...across)).toBeCloseTo(56, 0);
    expect(Math.max(...across)).toBeCloseTo(72, 0);
    const plotted = [...(files.get("layer-2-14304f.plt") ?? "").matchAll(/(\d+),\d+/g)].map(([, x]) => Number(x) / 40);
    expect(Math.min(...plotted)).toBeCloseTo(56, 0);
    expect(Math.max(...plotted)).toBeCloseTo(72, 0);
  });

  it("makes any choice of its layers: those that are left out have no files, and no place on the press sheet", async () => {
    const files = await filesOf(make(FIELD, { decided: { f2b134: { isLeftOut: true } } }));
    expect([...files.keys()]).toEqual(["layer-2-14304f.svg", "layers.svg", "sheet-2-14304f.svg", "press-sheet.pdf"]);
    expect(files.get("layers.svg")).not.toContain('data-id="f2b134"');
  });

  it("warns of strips that do not cut, gaps that do not weed and islands that get lost, each with its place", () => {
    const fine = paint(400, 300, (x, y) => {
      const isStrip = x >= 40 && x < 240 && y >= 40 && y < 48;
      const isBlock = x >= 40 && x < 240 && y >= 100 && y < 200 && !(x >= 138 && x < 143);
      const isDot = (x - 320) ** 2 + (y - 150) ** 2 < 64;
      return isStrip || isBlock || isDot ? NAVY : WHITE;
    });
    // A tenth of a millimetre to the pixel.
    const { thin, warnings } = make(fine, {}, 40).report();
    expect(thin.map(({ kind }) => kind).sort()).toEqual(["film gap", "island", "strip"]);
    const placeOf = (kind: string) => thin.find((place) => place.kind === kind);
    expect(placeOf("strip")?.widthMm).toBeCloseTo(0.8, 1);
    expect(placeOf("film gap")?.widthMm).toBeCloseTo(0.5, 1);
    expect(placeOf("island")).toMatchObject({ spotId: "14304f" });
    expect(placeOf("island")?.x).toBeCloseTo(320, -0.5);
    expect(warnings.map(({ text }) => text.replace(/;.*/, ""))).toEqual([
      "1 strip of film under 1 mm",
      "1 gap in a layer under 0.8 mm, too narrow to weed",
      "1 island under 2 mm across, lost in weeding",
    ]);
  });

  it("says where more films lie on each other than feel soft", () => {
    const rings = paint(120, 120, (x, y) => {
      const away = Math.max(Math.abs(x - 59.5), Math.abs(y - 59.5));
      const colours: Rgb[] = [GOLD, NAVY, [216, 65, 47], [31, 122, 140]];
      return colours[Math.floor(away / 12)] ?? WHITE;
    });
    const decided = Object.fromEntries(
      ["f2b134", "14304f", "d8412f", "1f7a8c"].map((id) => [id, { mode: "solid" as const }]),
    );
    const { warnings } = make(rings, { decided }).report();
    const stiff = warnings.find(({ text }) => text.includes("films"));
    expect(stiff?.text).toBe("4 films lie on each other; more than 3 feel stiff.");
    expect(stiff?.place?.x).toBeCloseTo(60, -0.5);
  });
});
