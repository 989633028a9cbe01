// Flat drawings with known colours, to measure against: icons of an open set, rendered by an independent renderer.
import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { ciede2000, parseHex, type Rgb, rgbToLab } from "@plain-palette/core/colour";
import type { Raster } from "@plain-palette/core/raster";
import { Resvg } from "@resvg/resvg-js";
import sharp from "sharp";

/** One drawing: its source and the colours in it that count. */
export interface Icon {
  readonly name: string;
  readonly svg: string;
  /** Fills, and the white it lies on, that cover at least LEAST_SHARE, near twins counted once; largest first. */
  readonly colours: readonly { readonly rgb: Rgb; readonly share: number }[];
}

/** The set that the figures are stated for: npm, MIT. */
export const STATED_SET = "@iconify-json/fluent-emoji-flat";
const LEAST_SHARE = 0.001;
const TWINS = 2;
const NOT_FLAT = /gradient|opacity|mask|clip|filter/i;

/** The first `most` icons, in key order, whose bodies use 3 to 8 flat fills and nothing that shades. */
export async function readFlatIcons(set: string, most: number): Promise<Icon[]> {
  const require = createRequire(import.meta.url);
  const { icons, width = 16, height = 16 } = JSON.parse(await readFile(require.resolve(`${set}/icons.json`), "utf8"));
  const flat: Icon[] = [];
  for (const name of Object.keys(icons).sort()) {
    const { body, width: w = width, height: h = height } = icons[name];
    const fills = new Set([...body.matchAll(/fill="(#[0-9a-f]+)"/gi)].map((match) => longHex(match[1])));
    if (NOT_FLAT.test(body) || fills.size < 3 || fills.size > 8) continue;
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${w} ${h}">${body}</svg>`;
    flat.push({ name, svg, colours: trueColours(svg, [...fills]) });
    if (flat.length === most) break;
  }
  return flat;
}

function longHex(hex: string): string {
  const digits = hex.slice(1).toLowerCase();
  return `#${digits.length === 3 ? [...digits].map((d) => d + d).join("") : digits.slice(0, 6)}`;
}

/** Renders on white, `side` pixels wide. */
export function renderIcon(svg: string, side: number): Raster {
  const image = new Resvg(svg, { background: "#ffffff", fitTo: { mode: "width", value: side } }).render();
  return { width: image.width, height: image.height, data: new Uint8ClampedArray(image.pixels) };
}

/** The picture after a round through JPEG, as libvips writes and reads it. */
export async function throughJpeg({ width, height, data }: Raster, quality: number): Promise<Raster> {
  const jpeg = await sharp(data, { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality })
    .toBuffer();
  const raw = await sharp(jpeg).ensureAlpha().raw().toBuffer();
  return { width, height, data: new Uint8ClampedArray(raw.buffer, raw.byteOffset, raw.length) };
}

function trueColours(svg: string, fills: readonly string[]): Icon["colours"] {
  const crisp = svg.replace("<svg ", '<svg shape-rendering="crispEdges" ');
  const { width, height, data } = renderIcon(crisp, 1024);
  const counts = new Map<number, number>();
  for (let i = 0; i < data.length; i += 4) {
    const key = (data[i] << 16) | (data[i + 1] << 8) | data[i + 2];
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  const colours = [...new Set([...fills, "#ffffff"])]
    .map((hex) => ({
      rgb: parseHex(hex),
      share: (counts.get(Number.parseInt(hex.slice(1), 16)) ?? 0) / (width * height),
    }))
    .filter(({ share }) => share > 0)
    .sort((a, b) => b.share - a.share);
  const merged: { rgb: Rgb; share: number }[] = [];
  for (const colour of colours) {
    const twin = merged.find(({ rgb }) => ciede2000(rgbToLab(rgb), rgbToLab(colour.rgb)) < TWINS);
    if (twin) twin.share += colour.share;
    else merged.push({ ...colour });
  }
  return merged.filter(({ share }) => share >= LEAST_SHARE);
}
