// Bytes to pixels, with every limit checked before anything is decoded. Runs off the request thread.
import { makeRaster, type Raster } from "@plain-palette/core/raster";
import { FULL_FRONT_IN, GOOD_DPI } from "@plain-palette/core/trade";
import sharp, { type Metadata, type Sharp, type SharpOptions } from "sharp";
import { decodeBmp, readBmpSize } from "./bmp.ts";
import { checkSvg } from "./check-svg.ts";
import { IntakeError } from "./intake-error.ts";
import { drawPdfPage, readPdfPage } from "./pdf.ts";
import { type ArtworkKind, recogniseKind } from "./recognise.ts";

/** Largest file and picture that are taken in. */
export const MAX_BYTES = 64 * 1024 * 1024;
export const MAX_PIXELS = 60_000_000;
/** Longest side, px: three times what a full back has at 600 dpi. */
const MAX_SIDE = 30_000;
/** Most memory that the groups of an SVG may take while it is drawn, bytes. */
const MAX_LAYER_BYTES = 1.6e9;

/** Longest side an SVG is drawn at, px: enough for a full front at 200 dpi, and tracing scales from there. */
const SVG_LONG_SIDE = 2400;
/** How wide a PDF page is drawn, px: a full front. */
const PDF_WIDTH = FULL_FRONT_IN * GOOD_DPI;

/** Facts of a client's file, as stated on the ticket. */
export interface ArtworkFacts {
  readonly kind: ArtworkKind;
  readonly bytes: number;
  readonly width: number;
  readonly height: number;
  readonly hasAlpha: boolean;
  /** dpi written in the file, or null. */
  readonly dpi: number | null;
  readonly pages: number;
  /** What the file is made of: pixels, shapes, or a page of both. */
  readonly content: "pixels" | "shapes" | "mixed";
}

/** Which page of a file, and how wide its shapes are drawn (null: as fits). */
export interface ArtworkView {
  readonly page: number;
  readonly drawnWidthPx: number | null;
}

const FIRST_PAGE: ArtworkView = { page: 1, drawnWidthPx: null };

interface Decoded {
  readonly raster: Raster;
  readonly facts: ArtworkFacts;
  /** What was left out of the file, in words. */
  readonly notes: readonly string[];
}

/** Decodes a file to sRGB pixels, upright, and its facts. Throws an IntakeError for anything that is no good picture. */
export async function decodeArtwork(bytes: Uint8Array, view: ArtworkView = FIRST_PAGE): Promise<Decoded> {
  if (bytes.length > MAX_BYTES)
    throw new IntakeError(
      `The file has ${Math.ceil(bytes.length / 1048576)} MB; at most 64 MB are taken in. Save it smaller.`,
      413,
    );
  const kind = recogniseKind(bytes);
  switch (kind) {
    case "pdf":
      return decodePdf(bytes, view);
    case "bmp":
      return decodeWholeBmp(bytes);
    case "svg":
      return decodeSvg(bytes, view);
    default:
      return decodePixels(bytes, kind, kind === "tiff" ? view.page : 1);
  }
}

const STRICT = { failOn: "truncated", unlimited: false } as const;

async function decodePixels(bytes: Uint8Array, kind: ArtworkKind, page: number): Promise<Decoded> {
  // A PNG says its size in its first chunk (ISO/IEC 15948, 11.2.2); a bomb is refused before any library sees it.
  if (kind === "png" && bytes.length >= 24) {
    const header = new DataView(bytes.buffer, bytes.byteOffset, 24);
    checkPixels(header.getUint32(16), header.getUint32(20));
  }
  const metadata = await readMetadata(sharp(bytes, { ...STRICT, limitInputPixels: false }), kind);
  const pages = kind === "tiff" ? (metadata.pages ?? 1) : 1;
  if (page > pages)
    throw new IntakeError(`The file has ${pages} ${pages === 1 ? "page" : "pages"}; there is no page ${page}.`);
  const options = { ...STRICT, limitInputPixels: MAX_PIXELS, ...(page > 1 ? { page: page - 1 } : {}) };
  const { width, height } =
    page === 1 ? metadata.autoOrient : await readMetadata(sharp(bytes, { ...options, limitInputPixels: false }), kind);
  checkPixels(width, height);
  const raster = await toRaster(sharp(bytes, options).autoOrient(), kind);
  const frames = kind === "tiff" ? 1 : (metadata.pages ?? 1);
  const notes =
    frames > 1 ? [`The ${kind.toUpperCase()} is an animation of ${frames} frames: the first one was taken.`] : [];
  return { raster, facts: factsOf(bytes, kind, raster, { metadata, pages, content: "pixels" }), notes };
}

async function decodeSvg(bytes: Uint8Array, { drawnWidthPx }: ArtworkView): Promise<Decoded> {
  const { layersDeep } = checkSvg(bytes);
  const metadata = await readMetadata(sharp(bytes, { ...STRICT, limitInputPixels: false }), "svg");
  const longSide =
    drawnWidthPx === null
      ? SVG_LONG_SIDE
      : Math.round(drawnWidthPx * Math.max(1, metadata.height / Math.max(1, metadata.width)));
  const { density, width, height } = await sizeSvg(bytes, metadata, longSide);
  checkPixels(width, height);
  if (layersDeep * width * height * 4 > MAX_LAYER_BYTES)
    throw new IntakeError(
      `The SVG nests ${layersDeep} half-transparent or masked groups: too much to draw at ${width} x ${height} pixels. Export it flattened, or as a PNG.`,
      413,
    );
  const options: SharpOptions = { ...STRICT, limitInputPixels: MAX_PIXELS, density };
  const raster = await toRaster(sharp(bytes, options), "svg");
  return { raster, facts: factsOf(bytes, "svg", raster, { metadata, pages: 1, content: "shapes" }), notes: [] };
}

async function decodePdf(bytes: Uint8Array, { page, drawnWidthPx }: ArtworkView): Promise<Decoded> {
  const { pages, widthPt, heightPt, content } = await readPdfPage(bytes, page);
  const width = drawnWidthPx ?? PDF_WIDTH;
  const height = Math.max(1, Math.round((width * heightPt) / widthPt));
  checkPixels(width, height);
  const png = await drawPdfPage(bytes, page, width, height);
  const metadata = await readMetadata(sharp(png, { ...STRICT, limitInputPixels: MAX_PIXELS }), "pdf");
  const raster = await toRaster(sharp(png, { ...STRICT, limitInputPixels: MAX_PIXELS }), "pdf");
  return { raster, facts: factsOf(bytes, "pdf", raster, { metadata, pages, content }), notes: [] };
}

async function decodeWholeBmp(bytes: Uint8Array): Promise<Decoded> {
  const size = readBmpSize(bytes);
  if (!size) throw broken("bmp");
  checkPixels(size.width, size.height);
  try {
    const raster = await decodeBmp(bytes);
    return { raster, facts: factsOf(bytes, "bmp", raster, { metadata: null, pages: 1, content: "pixels" }), notes: [] };
  } catch {
    throw broken("bmp");
  }
}

function factsOf(
  bytes: Uint8Array,
  kind: ArtworkKind,
  { width, height, data }: Raster,
  { metadata, pages, content }: { metadata: Metadata | null; pages: number; content: ArtworkFacts["content"] },
): ArtworkFacts {
  const isDrawn = content !== "pixels";
  return {
    kind,
    bytes: bytes.length,
    width,
    height,
    hasAlpha: metadata?.hasAlpha ?? hasClearPixels(data),
    dpi: isDrawn || metadata?.density === undefined ? null : metadata.density,
    pages,
    content,
  };
}

function hasClearPixels(data: Uint8ClampedArray): boolean {
  for (let i = 3; i < data.length; i += 4) if ((data[i] ?? 255) < 255) return true;
  return false;
}

/**
 * The density at which an SVG is `longSide` pixels long, and its size then. Sizes in physical units grow with the square
 * of the density (the renderer takes it both as dots to the inch and as a scale), plain ones with the density itself:
 * which of the two it is, the renderer's own answer tells.
 */
async function sizeSvg(
  bytes: Uint8Array,
  natural: Metadata,
  longSide: number,
): Promise<{ density: number; width: number; height: number }> {
  const scale = longSide / Math.max(natural.width, natural.height);
  for (const growth of [scale, Math.sqrt(scale)]) {
    const density = Math.min(100_000, Math.max(1, 72 * growth));
    const { width, height } = await readMetadata(sharp(bytes, { limitInputPixels: false, density }), "svg");
    if (Math.max(width, height) <= longSide * 1.05) return { density, width, height };
  }
  return { density: 72, width: natural.width, height: natural.height };
}

function checkPixels(width: number, height: number): void {
  if (width * height > MAX_PIXELS)
    throw new IntakeError(
      `The picture is ${width} x ${height} pixels (${Math.round((width * height) / 1e6)} million); at most 60 million are taken in. Scale it down.`,
      413,
    );
  if (Math.max(width, height) > MAX_SIDE)
    throw new IntakeError(
      `The picture is ${width} x ${height} pixels; at most ${MAX_SIDE} along a side are taken in. Cut it up, or scale it down.`,
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

/** Pixels in sRGB: an embedded profile is followed, CMYK and greys are converted. */
async function toRaster(image: Sharp, kind: ArtworkKind): Promise<Raster> {
  try {
    const { data, info } = await image
      .toColourspace("srgb")
      .ensureAlpha()
      .raw({ depth: "uchar" })
      .toBuffer({ resolveWithObject: true });
    return makeRaster(info.width, info.height, new Uint8ClampedArray(data.buffer, data.byteOffset, data.length));
  } catch {
    throw broken(kind);
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
