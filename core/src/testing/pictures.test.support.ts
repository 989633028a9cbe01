// Pictures for tests: drawn pixel by pixel, or by an independent renderer (resvg) from SVG.
import { Resvg } from "@resvg/resvg-js";
import type { Rgb } from "../colour/index.ts";
import { makeRaster, type Raster } from "../raster/index.ts";
import { assignSpots, findColours, reduceColours, UNDECIDED } from "../reduce/index.ts";
import { type ShapeSettings, tracePicture } from "../trace/index.ts";

/** A picture whose colour at each pixel a function gives. */
export function paint(width: number, height: number, colourAt: (x: number, y: number) => Rgb): Raster {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data.set([...colourAt(x, y), 255], (y * width + x) * 4);
  return makeRaster(width, height, data);
}

/** A picture of SVG content in a viewBox of `size` units, drawn at `size` pixels on white. */
export function drawSvg(size: number, content: string, background = "#ffffff"): Raster {
  return renderSvg(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size} ${size}" width="${size}" height="${size}"><rect width="${size}" height="${size}" fill="${background}"/>${content}</svg>`,
  );
}

/** The same, with every pixel the mean of 8 x 8 that resvg draws: area coverage to a hundredth, thin lines included. */
export function drawExactly(size: number, content: string): Raster {
  const fine = 8;
  const large = renderSvg(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size} ${size}" width="${size}" height="${size}"><rect width="${size}" height="${size}" fill="#ffffff"/>${content}</svg>`,
    fine,
  );
  return paint(size, size, (x, y) => {
    const sum = [0, 0, 0];
    for (let v = 0; v < fine; v++)
      for (let u = 0; u < fine; u++)
        for (let c = 0; c < 3; c++) sum[c] += large.data[((y * fine + v) * large.width + x * fine + u) * 4 + c];
    return [sum[0] / fine ** 2, sum[1] / fine ** 2, sum[2] / fine ** 2].map(Math.round) as unknown as Rgb;
  });
}

/** Any SVG as resvg draws it, `zoom` pixels to the unit. */
export function renderSvg(svg: string, zoom = 1): Raster {
  const image = new Resvg(svg, { fitTo: { mode: "zoom", value: zoom } }).render();
  const data = new Uint8ClampedArray(image.pixels);
  // resvg multiplies alpha in; a Raster has it apart.
  for (let i = 0; i < data.length; i += 4)
    if (data[i + 3] > 0 && data[i + 3] < 255)
      for (let c = 0; c < 3; c++) data[i + c] = (data[i + c] * 255) / data[i + 3];
  return makeRaster(image.width, image.height, data);
}

/** Words in DejaVu Sans whose capitals are about so high, drawn by resvg on a background, aside of the grid by `shiftPx`. */
export function drawLettering(
  text: string,
  {
    heightPx,
    colour,
    background,
    isBold = true,
    shiftPx = 0,
  }: { heightPx: number; colour: string; background: string; isBold?: boolean; shiftPx?: number },
): Raster {
  // Capitals of DejaVu Sans are 0.729 of its size.
  const size = heightPx / 0.729;
  const [width, height] = [Math.round(size * text.length * 0.8), Math.round(size * 1.5)];
  const weight = isBold ? "bold" : "normal";
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="${width}" height="${height}" fill="${background}"/><text x="${size * 0.3 + shiftPx}" y="${size * 1.1 + shiftPx}" font-family="DejaVu Sans" font-weight="${weight}" font-size="${size}" fill="${colour}">${text}</text></svg>`;
  const file = `dejavu-fonts-ttf/ttf/DejaVuSans${isBold ? "-Bold" : ""}.ttf`;
  const font = decodeURIComponent(new URL(import.meta.resolve(file)).pathname);
  const image = new Resvg(svg, { font: { fontFiles: [font], loadSystemFonts: false } }).render();
  return makeRaster(image.width, image.height, new Uint8ClampedArray(image.pixels));
}

export const PLAIN_SHAPES: ShapeSettings = {
  tolerancePx: 0.2,
  cornerDeg: 28,
  specksPx: 2,
  thinnestPx: 0,
  keepsText: true,
};

/** Found, reduced and traced with the settings of a new job. */
export function traceRaster(raster: Raster, shapes = PLAIN_SHAPES) {
  const findings = findColours(raster);
  const reduction = reduceColours(findings, UNDECIDED);
  const assignment = assignSpots(findings, reduction, []);
  return { findings, reduction, map: tracePicture(findings, reduction, assignment, shapes) };
}
