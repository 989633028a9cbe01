import sharp, { type Sharp } from "sharp";
import { describe, expect, it } from "vitest";
import { decodeArtwork, IntakeError, makeThumbnail, recogniseKind } from "../src/intake/index.ts";

/** Four plain quarters, 24 x 16: red, green, blue, half-clear gold. */
function quarters(): Sharp {
  const data = Buffer.alloc(24 * 16 * 4);
  for (let y = 0; y < 16; y++)
    for (let x = 0; x < 24; x++) {
      const colour = [
        [220, 30, 40, 255],
        [20, 160, 70, 255],
        [30, 60, 190, 255],
        [240, 180, 50, 128],
      ][(x < 12 ? 0 : 1) + (y < 8 ? 0 : 2)];
      data.set(colour, (y * 24 + x) * 4);
    }
  return sharp(data, { raw: { width: 24, height: 16, channels: 4 } });
}

const pixel = (data: Uint8ClampedArray, width: number, x: number, y: number) => [
  ...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 4),
];

describe("what arrives is known by its content and decoded to sRGB pixels", () => {
  it.each<[string, (image: Sharp) => Sharp]>([
    ["png", (image) => image.png()],
    ["png", (image) => image.png({ palette: true, dither: 0 })],
    ["png", (image) => image.toColourspace("rgb16").png()],
    ["webp", (image) => image.webp({ lossless: true })],
    ["tiff", (image) => image.tiff({ compression: "lzw" })],
    ["tiff", (image) => image.tiff({ compression: "deflate" })],
    ["gif", (image) => image.flatten({ background: "#fff" }).gif({ dither: 0 })],
  ])("%s, exactly", async (kind, encode) => {
    const bytes = await encode(quarters()).toBuffer();
    expect(recogniseKind(bytes)).toBe(kind);
    const { raster, facts } = await decodeArtwork(bytes);
    expect(facts).toMatchObject({ kind, width: 24, height: 16, bytes: bytes.length });
    const corners = [pixel(raster.data, 24, 2, 2), pixel(raster.data, 24, 20, 2), pixel(raster.data, 24, 2, 12)];
    // Palettes of GIF are of 24 bits, but libvips' own quantiser may miss by one.
    const expected = [
      [220, 30, 40, 255],
      [20, 160, 70, 255],
      [30, 60, 190, 255],
    ];
    corners.forEach((corner, i) => {
      corner.forEach((value, c) => {
        expect(Math.abs(value - expected[i][c])).toBeLessThanOrEqual(1);
      });
    });
  });

  it("JPEG: upright by its EXIF, whatever the name says", async () => {
    const bytes = await quarters()
      .flatten({ background: "#fff" })
      .jpeg({ quality: 100, chromaSubsampling: "4:4:4" })
      .withMetadata({ orientation: 6 })
      .toBuffer();
    const { raster, facts } = await decodeArtwork(bytes);
    expect(facts).toMatchObject({ kind: "jpeg", width: 16, height: 24 });
    // Turned a quarter clockwise, the red quarter of the top left is at the top right.
    const [r, g, b] = pixel(raster.data, 16, 13, 3);
    expect(r).toBeGreaterThan(200);
    expect(Math.max(g, b)).toBeLessThan(60);
  });

  it("JPEG in CMYK becomes sRGB", async () => {
    const bytes = await quarters()
      .flatten({ background: "#fff" })
      .toColourspace("cmyk")
      .jpeg({ quality: 95 })
      .toBuffer();
    expect((await sharp(bytes).metadata()).space).toBe("cmyk");
    const { raster } = await decodeArtwork(bytes);
    const [r, g, b, alpha] = pixel(raster.data, 24, 3, 3);
    expect(alpha).toBe(255);
    expect(r).toBeGreaterThan(g + 80);
    expect(r).toBeGreaterThan(b + 80);
  });

  it("SVG: shapes, drawn large enough to trace, transparent where nothing is", async () => {
    const svg = Buffer.from(
      '<?xml version="1.0"?>\n<!-- crew -->\n<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="20mm" viewBox="0 0 30 20"><rect width="15" height="20" fill="#14304f"/></svg>',
    );
    const { raster, facts } = await decodeArtwork(svg);
    expect(facts).toMatchObject({ kind: "svg", dpi: null });
    expect(Math.abs(facts.width - 2400)).toBeLessThan(60);
    expect(facts.width / facts.height).toBeCloseTo(1.5, 2);
    expect(pixel(raster.data, facts.width, 600, 800)).toEqual([20, 48, 79, 255]);
    expect(pixel(raster.data, facts.width, 1800, 800)[3]).toBe(0);
  });

  it("makes a small picture for the board with the ratio kept", async () => {
    const { raster } = await decodeArtwork(
      await sharp({ create: { width: 900, height: 300, channels: 3, background: "#14304f" } })
        .png()
        .toBuffer(),
    );
    const { width, height, format } = await sharp(await makeThumbnail(raster)).metadata();
    expect({ width, height, format }).toEqual({ width: 480, height: 160, format: "webp" });
  });
});

describe("what cannot be artwork is named", () => {
  it.each<[string, string | Buffer, RegExp, number]>([
    ["nothing", "", /empty/, 422],
    ["a letter", "Dear shop,\nplease print this.", /text, not a picture/, 415],
    ["a zip", "PK\x03\x04....", /zip archive/, 415],
    ["a web page", "<!doctype html><html><svg></svg></html>", /text, not a picture/, 415],
  ])("%s", (_name, content, message, status) => {
    const refusal = (() => {
      try {
        recogniseKind(Buffer.from(content as string, "latin1"));
        return null;
      } catch (error) {
        return error;
      }
    })();
    expect(refusal).toBeInstanceOf(IntakeError);
    expect(refusal).toMatchObject({ status, message: expect.stringMatching(message) });
  });
});
