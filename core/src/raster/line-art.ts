// Drawings to clean black: a cut-off that keeps the soft edge, so that tracing finds the line between the pixels.
import { findEdgePixels } from "./edge-pixels.ts";
import { greyOf } from "./grey.ts";
import { sauvolaThresholds } from "./local-threshold.ts";
import { makeRaster, type Raster } from "./raster.ts";
import { shiftEdges } from "./shift-edges.ts";

export interface LineArtSettings {
  /** One cut-off for all, or a threshold from each pixel's surroundings. */
  readonly method: "even" | "local";
  /** With `even`: greys darker than this share of white become the line, 0..1. */
  readonly cutOff: number;
  /** With `local`: how wide the surroundings are, px, and how far below their mean a line must lie (Sauvola's k). */
  readonly windowPx: number;
  readonly k: number;
  /** Light becomes the line instead of dark. */
  readonly isInverted: boolean;
  /** Lines grow by this much across, or thin if negative, px. */
  readonly weightPx: number;
  /** What the paper becomes. */
  readonly paper: "clear" | "white";
}

/** A drawing in black, on clear or white paper. Edge pixels keep the share by which they are covered. */
export function drawLineArt(raster: Raster, settings: LineArtSettings): Raster {
  const { width, height } = raster;
  const grey = greyOf(raster);
  if (settings.isInverted) for (let p = 0; p < grey.length; p++) grey[p] = 255 - grey[p];
  const level = settings.isInverted ? 1 - settings.cutOff : settings.cutOff;
  const threshold =
    settings.method === "local" ? sauvolaThresholds(grey, width, height, settings.windowPx, settings.k) : level * 255;
  const drawn = coverByThreshold(grey, width, height, threshold);
  const coverage = settings.weightPx === 0 ? drawn : shiftEdges(drawn, width, height, settings.weightPx / 2);
  const pixels = new Uint32Array(grey.length);
  // Little-endian RGBA: black with alpha, or an opaque grey.
  if (settings.paper === "clear") for (let p = 0; p < grey.length; p++) pixels[p] = coverage[p] << 24;
  else for (let p = 0; p < grey.length; p++) pixels[p] = 0xff000000 | ((255 - coverage[p]) * 0x010101);
  return makeRaster(width, height, new Uint8ClampedArray(pixels.buffer));
}

/**
 * How far each pixel is on the dark side of its threshold, 0..255, half at the threshold itself. Only a pixel whose 3 x 3
 * neighbourhood lies on both sides keeps a share in between, measured against the darkest and lightest there: flat greys go
 * wholly to one side, edges stay as soft as they were. `threshold` is one for all pixels or one each. Our own.
 */
function coverByThreshold(
  grey: Uint8Array,
  width: number,
  height: number,
  threshold: number | Float32Array,
): Uint8Array {
  const isDark = new Uint8Array(grey.length);
  if (typeof threshold === "number") for (let p = 0; p < grey.length; p++) isDark[p] = grey[p] <= threshold ? 1 : 0;
  else for (let p = 0; p < grey.length; p++) isDark[p] = grey[p] <= threshold[p] ? 1 : 0;
  const out = new Uint8Array(grey.length);
  for (let p = 0; p < out.length; p++) out[p] = -isDark[p];
  for (const p of findEdgePixels(isDark, width, height)) {
    const x = p % width;
    const y = (p - x) / width;
    const value = grey[p];
    let darkest = value;
    let lightest = value;
    for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++)
      for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
        const other = grey[v * width + u];
        if (other < darkest) darkest = other;
        if (other > lightest) lightest = other;
      }
    const level = typeof threshold === "number" ? threshold : threshold[p];
    const reach = value <= level ? level - darkest : lightest - level;
    out[p] = Math.round(127.5 + (127.5 * (level - value)) / Math.max(1e-6, reach));
  }
  return out;
}
