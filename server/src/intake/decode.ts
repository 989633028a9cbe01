// Bytes to pixels, with every limit checked before anything is decoded. Runs off the request thread.
import { makeRaster, type Raster } from "@plain-palette/core/raster";
import sharp, { type Metadata, type Sharp } from "sharp";
import { checkSvg } from "./check-svg.ts";
import { IntakeError } from "./intake-error.ts";
import { type ArtworkKind, recogniseKind } from "./recognise.ts";

/** Largest file and picture that are taken in. */
export const MAX_BYTES = 64 * 1024 * 1024;
export const MAX_PIXELS = 60_000_000;

/** Longest side an SVG is drawn at, px: enough for a full front at 200 dpi, and tracing scales from there. */
const SVG_LONG_SIDE = 2400;

/** Facts of a client's file, as stated on the ticket. */
export interface ArtworkFacts {
  readonly kind: ArtworkKind;
  readonly bytes: number;
  readonly width: number;
  readonly height: number;
  readonly hasAlpha: boolean;
  /** dpi written in the file, or null. */
  readonly dpi: number | null;
}

/** A picture opened but not decoded. */
interface Opened {
  readonly image: Sharp;
  readonly facts: ArtworkFacts;
}

async function open(bytes: Uint8Array): Promise<Opened> {
  if (bytes.length > MAX_BYTES)
    throw new IntakeError(
      `The file has ${Math.ceil(bytes.length / 1048576)} MB; at most 64 MB are taken in. Save it smaller.`,
      413,
    );
  const kind = recogniseKind(bytes);
  if (kind === "svg") checkSvg(bytes);
  // A PNG says its size in its first chunk (ISO/IEC 15948, 11.2.2); a bomb is refused before any library sees it.
  if (kind === "png" && bytes.length >= 24) {
    const header = new DataView(bytes.buffer, bytes.byteOffset, 24);
    checkPixels(header.getUint32(16), header.getUint32(20));
  }
  const limits = { limitInputPixels: false as const, failOn: "truncated" as const, unlimited: false };
  const metadata = await readMetadata(sharp(bytes, limits), kind);
  const svg = kind === "svg" ? await sizeSvg(bytes, metadata) : null;
  const { width, height } = svg ?? metadata.autoOrient;
  checkPixels(width, height);
  return {
    image: sharp(bytes, { ...limits, limitInputPixels: MAX_PIXELS, density: svg?.density }).autoOrient(),
    facts: {
      kind,
      bytes: bytes.length,
      width,
      height,
      hasAlpha: metadata.hasAlpha ?? false,
      dpi: kind === "svg" || metadata.density === undefined ? null : metadata.density,
    },
  };
}

/**
 * The density at which an SVG is SVG_LONG_SIDE pixels long, and its size then. Sizes in physical units grow with the square
 * of the density (the renderer takes it both as dots to the inch and as a scale), plain ones with the density itself:
 * which of the two it is, the renderer's own answer tells.
 */
async function sizeSvg(
  bytes: Uint8Array,
  natural: Metadata,
): Promise<{ density: number; width: number; height: number }> {
  const scale = SVG_LONG_SIDE / Math.max(natural.width, natural.height);
  for (const growth of [scale, Math.sqrt(scale)]) {
    const density = Math.min(100_000, Math.max(1, 72 * growth));
    const { width, height } = await sharp(bytes, { limitInputPixels: false, density }).metadata();
    if (Math.max(width, height) <= SVG_LONG_SIDE * 1.05) return { density, width, height };
  }
  return { density: 72, width: natural.width, height: natural.height };
}

function checkPixels(width: number, height: number): void {
  if (width * height <= MAX_PIXELS) return;
  throw new IntakeError(
    `The picture is ${width} x ${height} pixels (${Math.round((width * height) / 1e6)} million); at most 60 million are taken in. Scale it down.`,
    413,
  );
}

async function readMetadata(image: Sharp, kind: ArtworkKind): Promise<Metadata> {
  try {
    return await image.metadata();
  } catch {
    throw broken(kind);
  }
}

function broken(kind: ArtworkKind): IntakeError {
  return new IntakeError(
    `The ${kind.toUpperCase()} is damaged or ends too early. Ask for it again; the copy may have been cut off.`,
  );
}

/** Decodes a file to sRGB pixels, upright, and its facts. Throws an IntakeError for anything that is no good picture. */
export async function decodeArtwork(bytes: Uint8Array): Promise<{ raster: Raster; facts: ArtworkFacts }> {
  const { image, facts } = await open(bytes);
  try {
    const { data, info } = await image
      .toColourspace("srgb")
      .ensureAlpha()
      .raw({ depth: "uchar" })
      .toBuffer({ resolveWithObject: true });
    const pixels = new Uint8ClampedArray(data.buffer, data.byteOffset, data.length);
    return {
      raster: makeRaster(info.width, info.height, pixels),
      facts: { ...facts, width: info.width, height: info.height },
    };
  } catch {
    throw broken(facts.kind);
  }
}

/** Longest side of a job card's picture, px. */
const THUMBNAIL_SIDE = 480;

/** A small WebP of already decoded pixels. */
export async function makeThumbnail({ width, height, data }: Raster): Promise<Uint8Array> {
  return sharp(data, { raw: { width, height, channels: 4 } })
    .resize(THUMBNAIL_SIDE, THUMBNAIL_SIDE, { fit: "inside", withoutEnlargement: true })
    .webp({ quality: 88 })
    .toBuffer();
}
