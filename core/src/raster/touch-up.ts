// Strokes, moved pieces and the silhouette.
import type { Rgb } from "../colour/index.ts";
import type { Cover } from "./cover.ts";
import { makeRaster, type Raster } from "./raster.ts";

/** The picture with the covered part rubbed out. */
export function eraseCover(raster: Raster, { box, data }: Cover): Raster {
  const out = new Uint8ClampedArray(raster.data);
  forEachCovered(raster, { box, data }, (i, share) => {
    out[i + 3] = out[i + 3] * (1 - share);
    if (out[i + 3] === 0) out.fill(0, i, i + 3);
  });
  return makeRaster(raster.width, raster.height, out);
}

/** The picture with the covered part as it is in `original`, which has the same size. */
export function restoreCover(raster: Raster, original: Raster, cover: Cover): Raster {
  const out = new Uint8ClampedArray(raster.data);
  forEachCovered(raster, cover, (i, share) => mixPixels(out, i, original.data, i, share));
  return makeRaster(raster.width, raster.height, out);
}

/** The picture with the covered part painted over. */
export function paintCover(raster: Raster, rgb: Rgb, cover: Cover): Raster {
  const out = new Uint8ClampedArray(raster.data);
  const paint = Uint8ClampedArray.of(...rgb, 255);
  forEachCovered(raster, cover, (i, share) => mixPixels(out, i, paint, 0, share));
  return makeRaster(raster.width, raster.height, out);
}

/** The picture with the covered piece lifted off and laid down `dx`, `dy` whole pixels away, over what is there. */
export function moveCover(raster: Raster, cover: Cover, dx: number, dy: number): Raster {
  const { width, height } = raster;
  const out = new Uint8ClampedArray(eraseCover(raster, cover).data);
  const piece = new Uint8ClampedArray(4);
  forEachCovered(raster, cover, (i, share) => {
    const p = i / 4;
    const x = (p % width) + dx;
    const y = Math.floor(p / width) + dy;
    const alpha = raster.data[i + 3] * share;
    if (x < 0 || y < 0 || x >= width || y >= height || alpha < 0.5) return;
    piece.set(raster.data.subarray(i, i + 3));
    piece[3] = 255;
    mixPixels(out, (y * width + x) * 4, piece, 0, alpha / 255);
  });
  return makeRaster(width, height, out);
}

/** The whole design in one flat colour; how far each pixel is covered stays. */
export function fillSilhouette({ width, height, data }: Raster, [r, g, b]: Rgb): Raster {
  const out = new Uint8ClampedArray(data.length);
  for (let i = 0; i < data.length; i += 4) {
    if (data[i + 3] === 0) continue;
    out[i] = r;
    out[i + 1] = g;
    out[i + 2] = b;
    out[i + 3] = data[i + 3];
  }
  return makeRaster(width, height, out);
}

function forEachCovered({ width }: Raster, { box, data }: Cover, visit: (index: number, share: number) => void): void {
  for (let y = 0, o = 0; y < box.height; y++)
    for (let x = 0; x < box.width; x++, o++)
      if (data[o] > 0) visit(((box.y + y) * width + box.x + x) * 4, data[o] / 255);
}

/** A share of `from`'s pixel into `to`'s, colours weighted by how far they are there. */
function mixPixels(to: Uint8ClampedArray, i: number, from: Uint8ClampedArray, j: number, share: number): void {
  const stays = (to[i + 3] * (1 - share)) / 255;
  const comes = (from[j + 3] * share) / 255;
  const alpha = stays + comes;
  for (let c = 0; c < 3; c++) to[i + c] = alpha === 0 ? 0 : (to[i + c] * stays + from[j + c] * comes) / alpha;
  to[i + 3] = alpha * 255;
}
