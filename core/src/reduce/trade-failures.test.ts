// Where finding colours usually fails in the trade: each a drawing of its own, drawn by an independent renderer (resvg).
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { ciede2000, formatHex, parseHex, rgbToLab } from "../colour/index.ts";
import { makeRaster, pickColour, type Raster, removePicked } from "../raster/index.ts";
import { makeRecipe, runPipeline } from "../recipe/index.ts";
import { drawSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { faceArea } from "../trace/index.ts";
import { findColours, reduceColours, UNDECIDED } from "./index.ts";

const hexes = (raster: Raster, count: number | null = null) =>
  reduceColours(findColours(raster), { ...UNDECIDED, count })
    .spots.map(({ rgb }) => formatHex(rgb))
    .sort();

/** CIEDE2000 from a colour to the nearest that was found. */
function nearest(raster: Raster, hex: string): number {
  const lab = rgbToLab(parseHex(hex));
  return Math.min(...findColours(raster).found.map(({ rgb }) => ciede2000(rgbToLab(rgb), lab)));
}

async function asJpeg({ width, height, data }: Raster, quality: number): Promise<Raster> {
  const bytes = await sharp(data, { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality })
    .toBuffer();
  const raw = await sharp(bytes).ensureAlpha().raw().toBuffer();
  return makeRaster(width, height, new Uint8ClampedArray(raw.buffer, raw.byteOffset, raw.length));
}

describe("the trade's own failures", () => {
  it("two near tones of very different area stay two, also when exactly that number is asked for", () => {
    // 56 % and 0.6 % of the picture, beside a hair-thin outline that would take the slot.
    const art = drawSvg(
      400,
      '<rect x="20" y="20" width="360" height="250" fill="#1f7a8c"/><rect x="60" y="60" width="36" height="28" fill="#2f8ea0"/><circle cx="200" cy="330" r="40" fill="none" stroke="#d8412f" stroke-width="1.2"/>',
    );
    expect(hexes(art)).toHaveLength(4);
    const asked = hexes(art, 4);
    expect(asked).toEqual(expect.arrayContaining(["#1f7a8c", "#2f8ea0", "#ffffff"]));
  });

  it("a hair-thin outline is found in its own colour, not in its mix with the paper", () => {
    for (const width of [0.8, 1, 1.5]) {
      const art = drawSvg(
        300,
        `<circle cx="150" cy="150" r="100" fill="#f2b134"/><circle cx="150" cy="150" r="112" fill="none" stroke="#14304f" stroke-width="${width}"/>`,
      );
      expect(hexes(art)).toHaveLength(3);
      expect(nearest(art, "#14304f")).toBeLessThan(width < 1 ? 16 : 8);
    }
  });

  it("small text is found and traced as letters, in clean art and in a JPEG", async () => {
    const letters = Array.from({ length: 18 }, (_, i) => {
      const [x, y] = [20 + (i % 9) * 11, 40 + Math.floor(i / 9) * 18];
      return `<path d="M${x} ${y}v9M${x} ${y + 0.7}h5.3M${x} ${y + 4.5}h4" stroke="#7a1f4b" stroke-width="1.4" fill="none"/>`;
    }).join("");
    const art = drawSvg(160, `<rect x="5" y="15" width="120" height="70" fill="#e9dfc8"/>${letters}`);
    for (const picture of [art, await asJpeg(art, 90)]) {
      expect(hexes(picture)).toHaveLength(3);
      expect(nearest(picture, "#7a1f4b")).toBeLessThan(14);
    }
    const { map } = traceRaster(art);
    const text = map.faces.filter(({ spotId }) => spotId !== "ffffff" && spotId !== "e9dfc8");
    expect(text).toHaveLength(18);
  });

  it("slivers along an edge that lies upon an edge belong to a neighbour, not to a spot", () => {
    // Cream over red along one edge, twice anti-aliased: a fringe of red is left.
    const art = drawSvg(
      300,
      '<rect width="300" height="300" fill="#f2efe4"/><path d="M60.4 20L80.7 280H220L240.6 20Z" fill="#d8412f"/><path d="M64.7 75.4H236.3L228 180.7H73.1Z" fill="#f2efe4"/>',
    );
    expect(hexes(art)).toEqual(["#d8412f", "#f2efe4"]);
    const { map } = traceRaster(art);
    // Two parts of the red, nothing between them.
    expect(map.faces.filter(({ spotId }) => spotId === "d8412f")).toHaveLength(2);
  });

  it("a line of one pixel over two colours is one colour all the way", () => {
    const art = drawSvg(
      240,
      '<rect width="120" height="240" fill="#d8412f"/><rect x="120" width="120" height="240" fill="#1f7a8c"/><path d="M10 30.4L230 190.3" stroke="#101014" stroke-width="1"/>',
    );
    expect(hexes(art)).toHaveLength(3);
    expect(nearest(art, "#101014")).toBeLessThan(12);
  });

  it("white parts of the design stay when the white background goes", () => {
    const art = drawSvg(
      300,
      '<circle cx="150" cy="150" r="110" fill="#14304f"/><circle cx="150" cy="150" r="60" fill="#ffffff"/><circle cx="150" cy="150" r="20" fill="#d8412f"/>',
    );
    const { mask } = pickColour(art, {
      seeds: [{ x: 2, y: 2 }],
      rgb: [255, 255, 255],
      tolerance: 22,
      reach: "connected",
    });
    const cut = removePicked(art, mask);
    const { map } = traceRaster(cut);
    const white = map.faces.filter(({ spotId }) => spotId === "ffffff");
    expect(white).toHaveLength(1);
    // The ring between the two inner circles: pi (60^2 - 20^2).
    expect(Math.abs(faceArea(white[0]) - Math.PI * 3200)).toBeLessThan(20);
    expect(hexes(cut)).toEqual(["#14304f", "#d8412f", "#ffffff"]);
  });

  it("a low-resolution JPEG has as many colours without its background as with it, less the background", async () => {
    const letters = Array.from({ length: 24 }, (_, i) => {
      const [x, y] = [14 + (i % 8) * 29, 30 + Math.floor(i / 8) * 26];
      return `<path d="M${x} ${y}v16M${x} ${y + 8}h11M${x + 11} ${y}v16M${x + 16} ${y + 16}v-16h6q5 0 0 8h-6"/>`;
    }).join("");
    const bread = drawSvg(
      260,
      `<g fill="none" stroke="#3e2a1b" stroke-width="3.4">${letters}</g><path d="M60 240V180a70 60 0 0 1 140 0V240Z" fill="#9a5b26"/><path d="M68 232V184a62 54 0 0 1 124 0V232Z" fill="#ebcb92"/>`,
    );
    const jpeg = await asJpeg(bread, 65);
    expect(hexes(jpeg)).toHaveLength(4);
    const actions = [
      {
        id: "a",
        isOn: true,
        kind: "pick" as const,
        seeds: [{ x: 2, y: 2 }],
        hex: "#ffffff",
        tolerance: 22,
        reach: "everywhere" as const,
      },
    ];
    const { reduction } = runPipeline({ key: "bread", raster: jpeg }, makeRecipe({ artwork: { actions } }));
    expect(reduction.spots).toHaveLength(3);
  });

  it("a dark line in a JPEG does not leave its lightness with the hue of what lies beside it", async () => {
    const art = drawSvg(
      300,
      '<circle cx="150" cy="150" r="120" fill="#ffb02e"/><path d="M90 130q20 -20 40 0M170 130q20 -20 40 0M100 200q50 30 100 0" stroke="#402a32" stroke-width="5" fill="none" stroke-linecap="round"/>',
    );
    for (const quality of [75, 85, 95]) expect(hexes(await asJpeg(art, quality))).toHaveLength(3);
  });
});
