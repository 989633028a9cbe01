// Pictures of cut files, drawn by programs that are not ours, and how far they lie from each other.
import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";

/** Dots per inch at which a millimetre is twenty pixels. */
const DPI = "508";
export const PIXELS_PER_MM = 20;

export interface Black {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8Array;
}

/** A plot as hp2xx draws it, cut to its bounds; `turnDeg` turns it clockwise. */
export async function drawPlot(folder: string, plot: string, turnDeg = 0): Promise<Black> {
  const at = (name: string) => join(folder, name);
  writeFileSync(at("cut.plt"), plot);
  execFileSync("hp2xx", ["-q", "-t", "-m", "png", "-d", DPI, "-f", at("plot.png"), at("cut.plt")], { stdio: "ignore" });
  return blackOf(
    await sharp(readFileSync(at("plot.png")))
      .rotate(turnDeg)
      .png()
      .toBuffer(),
  );
}

/** An SVG as librsvg draws it, cut to its bounds. */
export async function drawLines(folder: string, svg: string): Promise<Black> {
  const at = (name: string) => join(folder, name);
  writeFileSync(at("cut.svg"), svg);
  execFileSync("rsvg-convert", ["-d", DPI, "-p", DPI, "-b", "white", "-o", at("drawn.png"), at("cut.svg")]);
  return blackOf(readFileSync(at("drawn.png")));
}

async function blackOf(picture: Buffer): Promise<Black> {
  const { data, info } = await sharp(picture, { limitInputPixels: false })
    .flatten({ background: "#ffffff" })
    .greyscale()
    .threshold(160)
    .trim({ background: "#ffffff", threshold: 10 })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const step = info.channels;
  return {
    width: info.width,
    height: info.height,
    data: Uint8Array.from({ length: info.width * info.height }, (_, p) => ((data[p * step] ?? 255) < 128 ? 1 : 0)),
  };
}

/** How many black pixels of one have none of the other within so many pixels. */
export function farFrom(one: Black, other: Black, reach: number): number {
  let far = 0;
  for (let y = 0; y < one.height; y++)
    for (let x = 0; x < one.width; x++) {
      if (one.data[y * one.width + x] === 0) continue;
      let isNear = false;
      for (let v = Math.max(0, y - reach); v <= Math.min(other.height - 1, y + reach); v++)
        for (let u = Math.max(0, x - reach); u <= Math.min(other.width - 1, x + reach); u++)
          if (other.data[v * other.width + u] === 1) isNear = true;
      if (!isNear) far++;
    }
  return far;
}
