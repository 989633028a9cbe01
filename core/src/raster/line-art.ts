// Drawings to clean black: a cut-off that keeps the soft edge, so that tracing finds the line between the pixels.
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
  const thresholds =
    settings.method === "local"
      ? sauvolaThresholds(grey, width, height, settings.windowPx, settings.k)
      : new Float32Array(1).fill(level * 255);
  let coverage = coverByThreshold(grey, width, height, thresholds);
  if (settings.weightPx !== 0) coverage = shiftEdges(coverage, width, height, settings.weightPx / 2);
  const data = new Uint8ClampedArray(grey.length * 4);
  if (settings.paper === "clear") for (let p = 0; p < grey.length; p++) data[p * 4 + 3] = coverage[p];
  else {
    const pixels = new Uint32Array(data.buffer);
    // Little-endian RGBA of a grey; every machine that runs a browser is.
    for (let p = 0; p < grey.length; p++) pixels[p] = 0xff000000 | ((255 - coverage[p]) * 0x010101);
  }
  return makeRaster(width, height, data);
}

/**
 * How far each pixel is on the dark side of its threshold, 0..255, half at the threshold itself. Only a pixel whose 3 x 3
 * neighbourhood lies on both sides keeps a share in between, measured against the darkest and lightest there: flat greys go
 * wholly to one side, edges stay as soft as they were. `thresholds` has one value for all pixels or one each. Our own.
 */
function coverByThreshold(grey: Uint8Array, width: number, height: number, thresholds: Float32Array): Uint8Array {
  const out = new Uint8Array(grey.length);
  const isLocal = thresholds.length > 1;
  for (let y = 0; y < height; y++) {
    const up = y > 0 ? -width : 0;
    const down = y < height - 1 ? width : 0;
    for (let x = 0, p = y * width; x < width; x++, p++) {
      const threshold = thresholds[isLocal ? p : 0];
      const left = x > 0 ? -1 : 0;
      const right = x < width - 1 ? 1 : 0;
      const value = grey[p];
      let darkest = value;
      let lightest = value;
      for (let row = up; ; row = row === up && up !== 0 ? 0 : down) {
        for (let o = p + row + left; o <= p + row + right; o++) {
          if (grey[o] < darkest) darkest = grey[o];
          if (grey[o] > lightest) lightest = grey[o];
        }
        if (row === down) break;
      }
      if (lightest <= threshold) out[p] = 255;
      else if (darkest > threshold) out[p] = 0;
      else if (value <= threshold)
        out[p] = Math.round(127.5 + (127.5 * (threshold - value)) / Math.max(1e-6, threshold - darkest));
      else out[p] = Math.round(127.5 - (127.5 * (value - threshold)) / Math.max(1e-6, lightest - threshold));
    }
  }
  return out;
}
