// The pixels of an artwork as they travel and are kept: packed, since flat art packs to a hundredth.
import { promisify } from "node:util";
import { constants, gunzip, gzip } from "node:zlib";
import { makeRaster, type Raster } from "@plain-palette/core/raster";

export interface PackedPixels {
  readonly width: number;
  readonly height: number;
  /** What was left out of the file, in words. */
  readonly notes: readonly string[];
  /** RGBA, straight alpha, row by row, as gzip (RFC 1952). */
  readonly packed: Uint8Array;
}

export async function packPixels({ width, height, data }: Raster, notes: readonly string[]): Promise<PackedPixels> {
  const packed = await promisify(gzip)(new Uint8Array(data.buffer, data.byteOffset, data.length), {
    level: constants.Z_BEST_SPEED,
  });
  return { width, height, notes, packed };
}

export async function unpackPixels({ width, height, packed }: PackedPixels): Promise<Raster> {
  const data = await promisify(gunzip)(packed);
  return makeRaster(width, height, new Uint8ClampedArray(data.buffer, data.byteOffset, data.length));
}
