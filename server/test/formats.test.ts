// Every kind of file against an independent encoder, pixel by pixel: netpbm, libtiff's tools, libwebp's and libavif's own,
// ghostscript; colour conversion against littlecms' own tool.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Rgb } from "@plain-palette/core/colour";
import { differenceCiede2000 } from "culori";
import sharp from "sharp";
import { afterAll, describe, expect, it } from "vitest";
import { decodeArtwork } from "../src/intake/index.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-formats-"));
afterAll(() => rmSync(folder, { recursive: true }));
const file = (name: string) => join(folder, name);
const run = (command: string, ...args: string[]) =>
  execFileSync(command, args, { cwd: folder, stdio: ["ignore", "pipe", "ignore"], maxBuffer: 1 << 26 });

const WIDTH = 37;
const HEIGHT = 23;

/** A picture of `colours` colours with a pixel pattern that shows any shift, turn or channel swap. */
function draw(colours: readonly Rgb[]): Uint8Array {
  const rgb = new Uint8Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      rgb.set(colours[(x * 3 + y * y + (x > y ? 1 : 0)) % colours.length], (y * WIDTH + x) * 3);
  return rgb;
}

const INKS: Rgb[] = [
  [216, 65, 47],
  [20, 48, 79],
  [242, 177, 52],
  [255, 255, 255],
  [31, 122, 140],
];
const many: Rgb[] = Array.from({ length: 97 }, (_, i) => [(i * 53) % 256, (i * 101 + 7) % 256, (i * 197 + 3) % 256]);
const BLACK_AND_WHITE: Rgb[] = [
  [0, 0, 0],
  [255, 255, 255],
];
writeFileSync(file("inks.ppm"), toPpm(draw(INKS)));
writeFileSync(file("many.ppm"), toPpm(draw(many)));
writeFileSync(file("ink.ppm"), toPpm(draw(BLACK_AND_WHITE)));

function toPpm(rgb: Uint8Array): Buffer {
  return Buffer.concat([Buffer.from(`P6 ${WIDTH} ${HEIGHT} 255\n`), rgb]);
}

async function expectExactly(bytes: Uint8Array, kind: string, rgb: Uint8Array): Promise<void> {
  const { raster, facts } = await decodeArtwork(bytes);
  expect(facts).toMatchObject({ kind, width: WIDTH, height: HEIGHT, content: "pixels" });
  const got = raster.data.filter((_, i) => i % 4 !== 3);
  expect(Buffer.from(got).equals(Buffer.from(rgb))).toBe(true);
  expect(raster.data.every((value, i) => i % 4 !== 3 || value === 255)).toBe(true);
}

describe("files of independent encoders come in pixel by pixel", () => {
  it.each([
    ["BMP, 24 bit", "many", () => run("ppmtobmp", "-bpp=24", "many.ppm")],
    ["BMP, 8 bit", "many", () => run("ppmtobmp", "-bpp=8", "many.ppm")],
    ["BMP, 4 bit", "inks", () => run("ppmtobmp", "-bpp=4", "inks.ppm")],
    ["BMP, 1 bit", "ink", () => run("ppmtobmp", "-bpp=1", "ink.ppm")],
    ["BMP of OS/2", "inks", () => run("ppmtobmp", "-os2", "-bpp=8", "inks.ppm")],
  ])("%s (netpbm)", async (_name, source, encode) => {
    await expectExactly(encode(), "bmp", draw({ many, inks: INKS, ink: BLACK_AND_WHITE }[source] ?? []));
  });

  it.each([
    ["interlaced", ["-interlace"], "many"],
    ["palette of 4 bit", [], "inks"],
    ["1 bit", [], "ink"],
  ] as const)("PNG, %s (netpbm)", async (_name, args, source) => {
    const rgb = draw({ many, inks: INKS, ink: BLACK_AND_WHITE }[source]);
    await expectExactly(run("pnmtopng", ...args, `${source}.ppm`), "png", rgb);
  });

  it("PNG of 16 bit (netpbm)", async () => {
    const rgb = draw(many);
    const deep = Buffer.alloc(rgb.length * 2);
    for (let i = 0; i < rgb.length; i++) deep.writeUInt16BE(rgb[i] * 257, i * 2);
    writeFileSync(file("deep.ppm"), Buffer.concat([Buffer.from(`P6 ${WIDTH} ${HEIGHT} 65535\n`), deep]));
    await expectExactly(run("pnmtopng", "deep.ppm"), "png", rgb);
  });

  it("PNG with one colour of its palette clear (netpbm)", async () => {
    const { raster, facts } = await decodeArtwork(run("pnmtopng", "-transparent", "rgb:14/30/4f", "inks.ppm"));
    expect(facts).toMatchObject({ kind: "png", hasAlpha: true });
    const rgb = draw(INKS);
    for (let p = 0; p < WIDTH * HEIGHT; p++) expect(raster.data[p * 4 + 3]).toBe(rgb[p * 3] === 20 ? 0 : 255);
  });

  it("TIFF of 16 bit (netpbm)", async () => {
    const rgb = draw(many);
    const deep = Buffer.alloc(rgb.length * 2);
    for (let i = 0; i < rgb.length; i++) deep.writeUInt16BE(rgb[i] * 257, i * 2);
    writeFileSync(file("deep.ppm"), Buffer.concat([Buffer.from(`P6 ${WIDTH} ${HEIGHT} 65535\n`), deep]));
    await expectExactly(run("pamtotiff", "-truecolor", "deep.ppm"), "tiff", rgb);
  });

  it("an animated GIF and WebP: the first frame", async () => {
    const frames = Buffer.concat([draw(INKS), draw(BLACK_AND_WHITE)]);
    const film = sharp(frames, { raw: { width: WIDTH, height: HEIGHT * 2, channels: 3, pageHeight: HEIGHT } });
    await expectExactly(await film.clone().gif({ dither: 0 }).toBuffer(), "gif", draw(INKS));
    await expectExactly(await film.clone().webp({ lossless: true }).toBuffer(), "webp", draw(INKS));
  });

  it("GIF (netpbm)", async () => {
    await expectExactly(run("ppmtogif", "inks.ppm"), "gif", draw(INKS));
  });

  it.each(["none", "lzw", "zip", "packbits"])("TIFF, %s (libtiff)", async (compression) => {
    writeFileSync(file("plain.tif"), run("pnmtotiff", "-truecolor", "many.ppm"));
    run("tiffcp", "-c", compression, "plain.tif", `${compression}.tif`);
    await expectExactly(readFileSync(file(`${compression}.tif`)), "tiff", draw(many));
  });

  it.each(["g3", "g4"])("TIFF of a fax, CCITT %s (libtiff)", async (compression) => {
    writeFileSync(file("ink.pbm"), run("pamditherbw", "-threshold", "ink.ppm"));
    writeFileSync(file("ink.tif"), run("pnmtotiff", "-miniswhite", "ink.pbm"));
    run("tiffcp", "-c", compression, "ink.tif", `${compression}.tif`);
    await expectExactly(readFileSync(file(`${compression}.tif`)), "tiff", draw(BLACK_AND_WHITE));
  });

  it("TIFF of several pages: the one that is asked for (libtiff)", async () => {
    writeFileSync(file("one.tif"), run("pnmtotiff", "-truecolor", "many.ppm"));
    writeFileSync(file("two.tif"), run("pnmtotiff", "-truecolor", "inks.ppm"));
    run("tiffcp", "one.tif", "two.tif", "both.tif");
    const bytes = readFileSync(file("both.tif"));
    expect((await decodeArtwork(bytes)).facts.pages).toBe(2);
    const { raster } = await decodeArtwork(bytes, { page: 2, drawnWidthPx: null });
    expect(Buffer.from(raster.data.filter((_, i) => i % 4 !== 3)).equals(Buffer.from(draw(INKS)))).toBe(true);
    await expect(decodeArtwork(bytes, { page: 3, drawnWidthPx: null })).rejects.toThrow(/2 pages; there is no page 3/);
  });

  it("WebP, lossless (libwebp)", async () => {
    writeFileSync(file("many.png"), run("pnmtopng", "many.ppm"));
    run("cwebp", "-quiet", "-lossless", "-exact", "many.png", "-o", "many.webp");
    await expectExactly(readFileSync(file("many.webp")), "webp", draw(many));
  });

  it("AVIF, lossless (libavif)", async () => {
    writeFileSync(file("many.png"), run("pnmtopng", "many.ppm"));
    run("avifenc", "--lossless", "many.png", "many.avif");
    await expectExactly(readFileSync(file("many.avif")), "avif", draw(many));
  });

  it("JPEG, progressive, as libjpeg's own decoder reads it (netpbm)", async () => {
    const smooth = await sharp(Buffer.from(draw(INKS)), { raw: { width: WIDTH, height: HEIGHT, channels: 3 } })
      .blur(2)
      .jpeg({ progressive: true, quality: 92 })
      .toBuffer();
    writeFileSync(file("smooth.jpg"), smooth);
    const reference = run("jpegtopnm", "-dct=int", "smooth.jpg");
    const rgb = reference.subarray(reference.length - WIDTH * HEIGHT * 3);
    const { raster } = await decodeArtwork(smooth);
    const got = raster.data.filter((_, i) => i % 4 !== 3);
    // Decoders may round the transform differently by a level or two (ISO/IEC 10918-2 allows one a stage).
    const worst = got.reduce((most, value, i) => Math.max(most, Math.abs(value - rgb[i])), 0);
    expect(worst).toBeLessThanOrEqual(3);
  });
});

describe("PDF pages", () => {
  const page = (content: string) => `<< /PageSize [288 144] >> setpagedevice ${content} showpage `;
  const red = "0.847 0.255 0.184 setrgbcolor 72 36 144 72 rectfill";
  const blue = "0.078 0.188 0.310 setrgbcolor 0 0 72 72 rectfill";
  writeFileSync(file("two.ps"), `%!PS\n${page(red)}${page(blue)}`);
  run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=pdfwrite", "-o", "two.pdf", "two.ps");
  const bytes = readFileSync(file("two.pdf"));

  it("come in as pictures at the resolution that the print needs, clear where the page is bare (ghostscript)", async () => {
    const { raster, facts } = await decodeArtwork(bytes);
    // 10.5 in at 300 dpi.
    expect(facts).toMatchObject({
      kind: "pdf",
      width: 3150,
      height: 1575,
      pages: 2,
      content: "shapes",
      hasAlpha: true,
    });
    const at = (x: number, y: number) => [...raster.data.subarray((y * 3150 + x) * 4, (y * 3150 + x) * 4 + 4)];
    expect(at(1575, 787)).toEqual([216, 65, 47, 255]);
    expect(at(100, 100)[3]).toBe(0);
    // The rectangle's edges lie where ghostscript's own rendering has them: a quarter and three quarters across.
    expect([at(786, 787)[3], at(789, 787)[3], at(2361, 787)[3], at(2364, 787)[3]]).toEqual([0, 255, 255, 0]);
  });

  it("another page, drawn at another width; a page that is not there is named", async () => {
    const { raster } = await decodeArtwork(bytes, { page: 2, drawnWidthPx: 400 });
    expect([raster.width, raster.height]).toEqual([400, 200]);
    // 0.078 of 255 is 19.89: poppler's output rounds down.
    expect([...raster.data.subarray((150 * 400 + 50) * 4, (150 * 400 + 50) * 4 + 3)]).toEqual([19, 48, 79]);
    await expect(decodeArtwork(bytes, { page: 3, drawnWidthPx: null })).rejects.toThrow(/no page 3|damaged/);
  });

  it("a scan in a PDF is told from shapes", async () => {
    writeFileSync(file("scan.ps"), run("pnmtops", "-noturn", "many.ppm"));
    run("gs", "-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=pdfwrite", "-o", "scan.pdf", "scan.ps");
    expect((await decodeArtwork(readFileSync(file("scan.pdf")))).facts.content).toBe("mixed");
  });

  it("locked and cut-off files are refused with their cause", async () => {
    run("qpdf", "--encrypt", "secret", "secret", "256", "--", "two.pdf", "locked.pdf");
    await expect(decodeArtwork(readFileSync(file("locked.pdf")))).rejects.toThrow(/password/);
    await expect(decodeArtwork(bytes.subarray(0, 300))).rejects.toThrow(/damaged/);
  });
});

describe("colour conversion agrees with littlecms' own tool", () => {
  const difference = differenceCiede2000();
  const profiles = "/usr/share/color/icc/ghostscript";

  it.each([
    ["CMYK by its embedded profile", "default_cmyk.icc", "cmyk"],
    ["a wide-gamut RGB by its embedded profile", "a98.icc", "rgb"],
  ])("%s, within CIEDE2000 1", async (_name, profile, space) => {
    const [width, height] = [24, 24];
    const channels = space === "cmyk" ? 4 : 3;
    const samples = Buffer.alloc(width * height * channels);
    for (let p = 0; p < width * height; p++) {
      const [x, y] = [p % width, Math.floor(p / width)];
      const values = [x * 10, y * 10, (x * y * 7) % 220, space === "cmyk" ? (x + y) * 2 : 0];
      samples.set(values.slice(0, channels), p * channels);
    }
    const raw = file(`${space}.raw`);
    writeFileSync(raw, samples);
    run(
      "raw2tiff",
      "-w",
      `${width}`,
      "-l",
      `${height}`,
      "-b",
      `${channels}`,
      "-p",
      space,
      "-i",
      "yes",
      raw,
      `${space}.tif`,
    );
    // littlecms' tool converts the untagged file by the profile; ours gets the file with the profile inside.
    run("tificc", "-t", "0", "-w16", `-i${profiles}/${profile}`, "-o*sRGB", `${space}.tif`, "reference.tif");
    const tagged = tagTiff(file(`${space}.tif`), `${profiles}/${profile}`);
    // At 16 bits, or its own rounding would be half of what is measured.
    const deep = await sharp(file("reference.tif")).toColourspace("rgb16").raw({ depth: "ushort" }).toBuffer();
    const reference = new Uint16Array(deep.buffer, deep.byteOffset, deep.length / 2);
    const { raster } = await decodeArtwork(tagged);
    let worst = 0;
    for (let p = 0; p < width * height; p++) {
      const rgb = (r: number, g: number, b: number, full: number) =>
        ({ mode: "rgb", r: r / full, g: g / full, b: b / full }) as const;
      const ours = rgb(raster.data[p * 4], raster.data[p * 4 + 1], raster.data[p * 4 + 2], 255);
      const theirs = rgb(reference[p * 3], reference[p * 3 + 1], reference[p * 3 + 2], 65535);
      worst = Math.max(worst, difference(ours, theirs));
    }
    expect(worst).toBeLessThan(1);
  });

  /** The TIFF with a profile inside: a longer directory at the end, with tag 34675 (ICC.1:2022, annex B.4). */
  function tagTiff(path: string, profile: string): Buffer {
    const tiff = readFileSync(path);
    const icc = readFileSync(profile);
    const at = tiff.readUInt32LE(4);
    const entries = tiff.readUInt16LE(at);
    const directory = Buffer.alloc(2 + (entries + 1) * 12 + 4);
    directory.writeUInt16LE(entries + 1, 0);
    tiff.copy(directory, 2, at + 2, at + 2 + entries * 12);
    const entry = 2 + entries * 12;
    directory.writeUInt16LE(34675, entry);
    directory.writeUInt16LE(7, entry + 2);
    directory.writeUInt32LE(icc.length, entry + 4);
    const padded = Buffer.alloc(Math.ceil(tiff.length / 2) * 2);
    tiff.copy(padded);
    directory.writeUInt32LE(padded.length + directory.length, entry + 8);
    padded.writeUInt32LE(padded.length, 4);
    return Buffer.concat([padded, directory, icc]);
  }
});
