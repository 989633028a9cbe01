// BMP to pixels through ImageMagick compiled to WebAssembly: the image library that decodes all else does not read it.
import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { ImageMagick, initializeImageMagick, MagickFormat } from "@imagemagick/magick-wasm";
import { makeRaster, type Raster } from "@plain-palette/core/raster";

let isReady: Promise<void> | null = null;

/** 250 ms and some megabytes, spent when the first BMP arrives, or before a process gives up its right to read files. */
export function prepareBmp(): Promise<void> {
  isReady ??= readFile(createRequire(import.meta.url).resolve("@imagemagick/magick-wasm/magick.wasm")).then((wasm) =>
    initializeImageMagick(wasm),
  );
  return isReady;
}

/**
 * Width and height of a BMP as its header says them (BITMAPCOREHEADER: 16 bits each; BITMAPINFOHEADER and later: 32 bits,
 * a negative height meaning top-down), or null if the header is cut off.
 */
export function readBmpSize(bytes: Uint8Array): { width: number; height: number } | null {
  if (bytes.length < 26) return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return view.getUint32(14, true) === 12
    ? { width: view.getUint16(18, true), height: view.getUint16(20, true) }
    : { width: Math.abs(view.getInt32(18, true)), height: Math.abs(view.getInt32(22, true)) };
}

/** Decodes a BMP of any depth, plain or run-length coded. Throws if it is damaged. */
export async function decodeBmp(bytes: Uint8Array): Promise<Raster> {
  await prepareBmp();
  return ImageMagick.read(bytes, MagickFormat.Bmp, (image) => {
    image.depth = 8;
    const { width, height } = image;
    return image.write(MagickFormat.Rgba, (pixels) => makeRaster(width, height, new Uint8ClampedArray(pixels)));
  });
}
