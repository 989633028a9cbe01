import DxfParser from "dxf-parser";
import { describe, expect, it } from "vitest";
import type { Rgb } from "../colour/index.ts";
import type { Raster } from "../raster/index.ts";
import { FACTS, paint, renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { transfer } from "./index.ts";
import type { TransferSettings } from "./settings.ts";

const WHITE: Rgb = [255, 255, 255];
const NAVY: Rgb = [20, 48, 79];
const GOLD: Rgb = [242, 177, 52];

/** What the process makes of a picture, one millimetre to the pixel unless said otherwise; white is the garment. */
function make(raster: Raster, settings: Partial<TransferSettings> = {}, widthMm = raster.width) {
  const { map, reduction } = traceRaster(raster);
  const spots = reduction.spots.map((spot) => (spot.id === "ffffff" ? { ...spot, role: "garment" as const } : spot));
  const design = { map, spots, order: [], widthMm, garment: WHITE, stock: {}, pieces: 1, placement: null };
  const recipe = transfer.withSettings({ processes: {} }, settings);
  const steps = transfer.open().make(design, recipe, "a picture");
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

async function filesOf(product: ReturnType<typeof make>): Promise<Map<string, string>> {
  const texts = new Map<string, string>();
  for (const { name, make: write } of product.outputs(FACTS).outputs)
    texts.set(name, new TextDecoder().decode(await write(() => {})));
  return texts;
}

/** A gold field with a navy bar at its left end, on cloth. */
const FIELD = paint(80, 40, (x, y) => (x < 8 || x >= 72 || y < 8 || y >= 32 ? WHITE : x < 24 ? NAVY : GOLD));

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
