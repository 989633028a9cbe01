// Old lettering whose typeface is known: words drawn by resvg from the outlines of another font engine (fontkit), straight,
// on an arc or slanted, as PNG or JPEG, and what the product traces of them.
import type { CubicPath } from "@plain-palette/core/geometry";
import type { Raster } from "@plain-palette/core/raster";
import { makeRecipe, makeResultCache, runPipeline } from "@plain-palette/core/recipe";
import { spotPaths } from "@plain-palette/core/trace";
import { readShippedFiles, shippedTypefaces } from "@plain-palette/server/shipped-typefaces";
import * as fontkit from "fontkit";
import sharp from "sharp";

/** Twenty families of every kind. */
export const SAMPLE_FACES = [
  ...["public-sans-700", "archivo-black-400", "anton-400", "oswald-600", "krona-one-400", "nunito-900"],
  ...["fredoka-600", "montserrat-800", "josefin-sans-600", "alfa-slab-one-400", "zilla-slab-600", "eb-garamond-800"],
  ...["playfair-display-700", "stardos-stencil-700", "graduate-400", "rye-400", "limelight-400", "lobster-400"],
  ...["caveat-700", "courier-prime-700"],
] as const;
export const SAMPLE_WAYS = ["straight", "arched", "slanted"] as const;
type Way = (typeof SAMPLE_WAYS)[number];

const WORDS = ["Hearth & Rye", "Tern Point", "Quay Lantern", "Saltmarsh", "Copper Kite", "Harbour Mews"];

export interface LetteringSample {
  readonly family: string;
  readonly way: Way;
  readonly text: string;
  readonly xHeightPx: number;
  readonly isJpeg: boolean;
  /** What is traced of it, and what was drawn, on one grid. */
  readonly traced: readonly CubicPath[];
  readonly drawnSvg: string;
  readonly width: number;
  readonly height: number;
}

/** All samples, one after the other; the same every time. */
export function* sampleNames(): Generator<{ face: string; way: Way; index: number }> {
  let index = 0;
  for (const face of SAMPLE_FACES) for (const way of SAMPLE_WAYS) yield { face, way, index: index++ };
}

/** Draws a sample and has it traced. */
export async function makeSample({
  face,
  way,
  index,
}: {
  face: string;
  way: Way;
  index: number;
}): Promise<LetteringSample> {
  const listed = shippedTypefaces().find(({ id }) => id === face);
  const [file] = (await readShippedFiles(face)) ?? [];
  if (!listed || !file) throw new Error(`${face} is not shipped`);
  const font = fontkit.create(Buffer.from(file));
  if (!("layout" in font)) throw new Error("a collection");
  const text = WORDS[index % WORDS.length] ?? "";
  const xHeightPx = 24 + ((index * 23) % 37);
  const scale = xHeightPx / xHeightOf(font);
  const drawn = letters(font, text, scale, way, index);
  const isJpeg = index % 2 === 1;
  const raster = await drawRaster(drawn, isJpeg);
  const results = runPipeline({ key: "sample", raster }, makeRecipe({ colours: { count: 2 } }), makeResultCache());
  const [ink] = [...results.reduction.spots].sort(
    (a, b) => a.rgb.reduce((s, v) => s + v, 0) - b.rgb.reduce((s, v) => s + v, 0),
  );
  return {
    ...{ family: listed.family, way, text, xHeightPx, isJpeg },
    ...drawn,
    traced: ink ? spotPaths(results.map, ink.id) : [],
  };
}

/** Of a flat letter: what a file says is not always so. */
function xHeightOf(font: fontkit.Font): number {
  return font.layout("x").glyphs[0]?.bbox.maxY ?? font.xHeight;
}

const MARGIN = 24;

function letters(font: fontkit.Font, text: string, scale: number, way: Way, index: number) {
  const { glyphs, positions } = font.layout(text);
  const whole = positions.reduce((sum, { xAdvance }) => sum + xAdvance * scale, 0);
  const radius = whole * (0.55 + ((index * 13) % 10) / 12);
  const lean = way === "slanted" ? 8 + ((index * 7) % 9) : 0;
  const turn = way === "straight" ? ((index * 5) % 9) - 4 : 0;
  let pen = 0;
  const places = glyphs.map((glyph, i) => {
    const { xAdvance = 0, xOffset = 0, yOffset = 0 } = positions[i] ?? {};
    const middle = pen + (xAdvance * scale) / 2;
    const own = `skewX(${-lean}) translate(${(-xAdvance / 2 + xOffset) * scale} ${-yOffset * scale}) scale(${scale} ${-scale})`;
    pen += xAdvance * scale;
    const deg = ((middle - whole / 2) / radius) * (180 / Math.PI);
    const stand = way === "arched" ? `rotate(${deg} 0 ${radius}) ${own}` : `translate(${middle - whole / 2} 0) ${own}`;
    return `<path transform="${stand}" d="${glyph.path.toSVG()}"/>`;
  });
  const size = 1.6 * (font.ascent - font.descent) * scale;
  const reach = way === "arched" ? radius * (1 - Math.cos(Math.min(Math.PI, whole / 2 / radius))) : 0;
  const width = Math.ceil(whole + size + 2 * MARGIN);
  const height = Math.ceil(size + reach + Math.abs(Math.sin((turn * Math.PI) / 180)) * whole + 2 * MARGIN);
  const x = width / 2 + ((index * 31) % 100) / 100;
  const y =
    size * 0.72 + MARGIN + ((index * 17) % 100) / 100 + (Math.abs(Math.sin((turn * Math.PI) / 180)) * whole) / 2;
  const drawnSvg = `<g transform="translate(${x} ${y}) rotate(${turn})">${places.join("")}</g>`;
  return { drawnSvg, width, height };
}

async function drawRaster(
  { drawnSvg, width, height }: Pick<LetteringSample, "drawnSvg" | "width" | "height">,
  isJpeg: boolean,
): Promise<Raster> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="100%" height="100%" fill="#f4ead2"/><g fill="#14304f">${drawnSvg}</g></svg>`;
  const picture = sharp(Buffer.from(svg)).flatten({ background: "#fff" });
  const file = await (isJpeg ? picture.jpeg({ quality: 75 }) : picture.png()).toBuffer();
  const { data, info } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
}
