// Spots of a colour that compression mixed (libvips' JPEG, chroma at half the resolution) are none of a drawing's (resvg).
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { ciede2000, parseHex, rgbToLab } from "../colour/index.ts";
import { findComponents, type Raster } from "../raster/index.ts";
import { drawSvg } from "../testing/pictures.test.support.ts";
import { findColours } from "./index.ts";

const SIDE = 480;
const [CREAM, NAVY, TEAL, SOFT] = ["#f2f0e4", "#13304e", "#1f7a8c", "#58a6b0"] as const;

/** Pixels of a piece that is no speck: smaller ones are left out by usual settings. */
const LEAST_PX = 3;

/** Pixels of an ink of a drawing once through a JPEG, in a part of it, specks left out. */
async function pixelsOf(content: string, hex: string, isIn: (x: number, y: number) => boolean, quality: number) {
  const { width, height, data } = drawSvg(SIDE, content);
  const bytes = await sharp(data, { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality })
    .toBuffer();
  const pixels = await sharp(bytes).ensureAlpha().raw().toBuffer();
  const raster: Raster = { width, height, data: new Uint8ClampedArray(pixels) };
  const { found, labels } = findColours(raster);
  const ink = rgbToLab(parseHex(hex));
  const mine = found.findIndex(({ rgb }) => ciede2000(rgbToLab(rgb), ink) < 2);
  if (mine < 0) throw new Error(`${hex} was not found among ${found.map(({ id }) => id)}`);
  const within = labels.data.map((label, p) => (label === mine && isIn(p % width, Math.floor(p / width)) ? 1 : 0));
  const { label, areaPx } = findComponents({ width, height, data: within });
  return [...areaPx].reduce((sum, area, c) => sum + (label[c] === 1 && area >= LEAST_PX ? area : 0), 0);
}

/** A sea in a navy ring. */
const SEA = `<rect width="${SIDE}" height="${SIDE}" fill="${NAVY}"/><circle cx="240" cy="240" r="200" fill="${CREAM}"/><clipPath id="c"><circle cx="240" cy="240" r="200"/></clipPath><g clip-path="url(#c)"><rect y="200" width="${SIDE}" height="${SIDE}" fill="${TEAL}"/><path d="M90 250q75-40 150 0t150 0v18q-75 40-150 0t-150 0z" fill="${SOFT}"/></g>`;
/** Cream that shines through its edge, as where renderers lay edge upon edge. */
const SEAM = `<circle cx="240" cy="240" r="200" fill="none" stroke="${CREAM}" stroke-width="0.15"/>`;
const WORDS = Array.from({ length: 60 }, (_, i) => {
  const [x, y] = [130 + (i % 15) * 15.3, 308 + Math.floor(i / 15) * 20.6];
  return `<circle cx="${x}" cy="${y}" r="4"/><path d="M${x + 4.6} ${y - 9}v13"/>`;
}).join("");
const LETTERED = `${SEA}<g fill="none" stroke="${CREAM}" stroke-width="2.6">${WORDS}</g>`;

const inWords = (x: number, y: number) => x > 120 && x < 360 && y > 290 && y < 385;
const atSeam = (x: number, y: number) => Math.hypot(x - 239.5, y - 239.5) > 190 && y > 300;

describe("compression", () => {
  it.each([60, 80, 92])("puts no ink of elsewhere into small lettering (quality %d)", async (quality) => {
    expect(await pixelsOf(LETTERED, NAVY, inWords, quality)).toBe(0);
    expect(await pixelsOf(LETTERED, SOFT, inWords, quality)).toBeLessThan(5);
  });

  it("leaves a letter in one of two near shades", async () => {
    const onPaper = `${LETTERED}<rect width="${SIDE}" height="30" fill="#ffffff"/>`;
    expect(await pixelsOf(onPaper, "#ffffff", inWords, 80)).toBe(0);
  });

  it("makes hardly a sliver of a third ink along a seam", async () => {
    // One way round has 630 pixels; 91 of them were such.
    expect(await pixelsOf(SEA + SEAM, SOFT, atSeam, 80)).toBeLessThan(20);
  });

  it.each([60, 80])("leaves small beads that were drawn on an edge where they are (quality %d)", async (quality) => {
    const beads = Array.from({ length: 9 }, (_, i) => {
      const angle = 0.6 + i * 0.24;
      return `<circle cx="${240 + 200 * Math.cos(angle)}" cy="${240 + 200 * Math.sin(angle)}" r="4"/>`;
    }).join("");
    const area = await pixelsOf(`${SEA}<g fill="${SOFT}">${beads}</g>`, SOFT, atSeam, quality);
    expect(Math.abs(area / (9 * Math.PI * 16) - 1)).toBeLessThan(0.2);
  });
});
