// Along the edge of two flats no third colour, in art that was blurred (by libvips) or compressed; unless one is drawn there.
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { formatHex } from "../colour/index.ts";
import { findComponents, measureNoise, type Raster } from "../raster/index.ts";
import { drawSvg } from "../testing/pictures.test.support.ts";
import { findColours } from "./index.ts";

async function treated({ width, height, data }: Raster, how: "blur" | "jpeg"): Promise<Raster> {
  const picture = sharp(data, { raw: { width, height, channels: 4 } }).removeAlpha();
  const bytes = await (how === "blur" ? picture.blur(0.8).png() : picture.jpeg({ quality: 50 })).toBuffer();
  const pixels = await sharp(bytes).ensureAlpha().raw().toBuffer();
  return { width, height, data: new Uint8ClampedArray(pixels) };
}

/** Pixels of the colour nearest to `hex`, and in how many pieces, among those with x under `right`. */
function piecesOf(raster: Raster, hex: string, right = raster.width) {
  const { found, labels } = findColours(raster);
  const index = found.findIndex((colour) => formatHex(colour.rgb).slice(1, 3) === hex.slice(1, 3));
  const mine = labels.data.map((label, p) => (label === index && p % labels.width < right ? 1 : 0));
  const { label, areaPx } = findComponents({ ...labels, data: mine });
  const pieces = [...areaPx].filter((_, c) => label[c] === 1);
  return { count: pieces.length, areaPx: pieces.reduce((sum, area) => sum + area, 0) };
}

// Half of yellow and half of maroon is the brown of the square.
const YELLOW = "#f2c014";
const MAROON = "#6e1020";
const BROWN = "#b0681a";
const DISC = `<rect width="260" height="200" fill="${YELLOW}"/><circle cx="100" cy="100" r="70" fill="${MAROON}"/><path d="M60 90l70 8v6z" fill="${YELLOW}"/><rect x="200" y="20" width="40" height="40" fill="${BROWN}"/>`;

describe("a third colour along an edge", () => {
  it.each(["blur", "jpeg"] as const)(
    "that only lies between the two is none of the picture's, after %s",
    async (how) => {
      const picture = await treated(drawSvg(260, DISC), how);
      expect(piecesOf(picture, BROWN, 190).areaPx).toBeLessThan(60);
      expect(piecesOf(picture, BROWN).count).toBeLessThan(6);
    },
  );

  it("stays where it was drawn as a line of four pixels, all the way round", async () => {
    const ringed = `${DISC}<circle cx="100" cy="100" r="70" fill="none" stroke="${BROWN}" stroke-width="4"/>`;
    const line = piecesOf(await treated(drawSvg(260, ringed), "blur"), BROWN, 190);
    const drawn = 2 * Math.PI * 70 * 4;
    expect(Math.abs(line.areaPx / drawn - 1)).toBeLessThan(0.3);
  });
});

describe("one flat", () => {
  it("stays one colour though compression makes patches of it; two near flats that were drawn stay two", async () => {
    const face = drawSvg(
      300,
      '<rect width="300" height="300" fill="#ffffff"/><circle cx="150" cy="150" r="120" fill="#f7dece"/><path d="M80 120q20-20 40 0M180 120q20-20 40 0M100 200q50 40 100 0" stroke="#662113" stroke-width="9" fill="none"/>',
    );
    const found = async (raster: Raster, quality: number) => {
      const { width, height, data } = raster;
      const bytes = await sharp(data, { raw: { width, height, channels: 4 } })
        .removeAlpha()
        .jpeg({ quality })
        .toBuffer();
      const pixels = await sharp(bytes).ensureAlpha().raw().toBuffer();
      return findColours({ width, height, data: new Uint8ClampedArray(pixels) }).found.length;
    };
    for (const quality of [35, 40, 50, 60]) expect([quality, await found(face, quality)]).toEqual([quality, 3]);
    const two = drawSvg(
      300,
      '<rect width="300" height="300" fill="#f7dece"/><circle cx="150" cy="150" r="90" fill="#efd0ba"/>',
    );
    expect(await found(two, 60)).toBe(2);
  });
});

describe("fine dark lines in a JPEG", () => {
  /** A ring and fine strokes of one ink on teal, and the same with all round it taken away. */
  async function drawn(size: number, strokePx: number, rows: number): Promise<readonly [Raster, Raster]> {
    const middle = size / 2;
    const strokes = Array.from({ length: 16 * rows }, (_, i) => {
      const [x, y] = [middle - 100 + (i % 16) * 13, middle - 60 + Math.floor(i / 16) * 22];
      return `<circle cx="${x}" cy="${y}" r="4"/><path d="M${x + 6} ${y - 9}v13"/>`;
    });
    const content = `<g stroke="#14202e"><circle cx="${middle}" cy="${middle}" r="150" fill="#2f7f86" stroke-width="14"/><g fill="none" stroke-width="${strokePx}">${strokes.join("")}</g></g>`;
    const whole = await treated(drawSvg(size, content), "jpeg");
    const cut = { ...whole, data: whole.data.slice() };
    for (let p = 0; p < size * size; p++)
      if (Math.hypot((p % size) + 0.5 - middle, Math.floor(p / size) + 0.5 - middle) > 153) cut.data[p * 4 + 3] = 0;
    return [whole, cut];
  }

  it.each([
    [700, 2.4, 6],
    [700, 3, 6],
    [1000, 3, 6],
  ])("are the ink that is drawn thick elsewhere, with the background taken away as without (%d px)", async (...how) => {
    const [whole, cut] = await drawn(...how);
    expect(findColours(whole).found).toHaveLength(3);
    expect(findColours(cut, measureNoise(whole)).found).toHaveLength(2);
  });
});
