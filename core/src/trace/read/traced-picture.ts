// What the tracer reads of a reduced picture: its pixels, what they are, and how much of a colour is in one.
import type { Rgb } from "../../colour/index.ts";
import { type LabelMap, NONE, OPAQUE_ALPHA, type Raster } from "../../raster/index.ts";

/** What the tracer reads of a reduced picture. */
export interface TracedPicture {
  readonly raster: Raster;
  /** Index of each pixel's found colour. */
  readonly found: LabelMap;
  readonly foundColours: readonly Rgb[];
  /** Index of each pixel's spot, specks absorbed. */
  readonly spots: LabelMap;
  /** Index of each pixel's spot before specks were absorbed: those pixels keep the colour found in them. */
  readonly assigned: LabelMap;
  /** A colour of each spot, for pixels that were absorbed. */
  readonly spotColours: readonly Rgb[];
  readonly noise: number;
}

/** Share (0..1) of the colour of pixel `left` in pixel `p`, the rest being the colour of pixel `right`. */
export function leftShare(picture: TracedPicture, p: number, left: number, right: number): number {
  const { data } = picture.raster;
  const leftIsClear = data[left * 4 + 3] < OPAQUE_ALPHA;
  const rightIsClear = data[right * 4 + 3] < OPAQUE_ALPHA;
  if (leftIsClear !== rightIsClear) {
    const alpha = data[p * 4 + 3] / 255;
    return leftIsClear ? 1 - alpha : alpha;
  }
  const a = colourOf(picture, left);
  const b = colourOf(picture, right);
  const dr = a[0] - b[0];
  const dg = a[1] - b[1];
  const db = a[2] - b[2];
  const length2 = dr * dr + dg * dg + db * db;
  if (length2 === 0) return p === left ? 1 : 0;
  const share = ((data[p * 4] - b[0]) * dr + (data[p * 4 + 1] - b[1]) * dg + (data[p * 4 + 2] - b[2]) * db) / length2;
  return Math.min(1, Math.max(0, share));
}

function colourOf(picture: TracedPicture, p: number): Rgb {
  const found = picture.found.data[p];
  const spot = picture.spots.data[p];
  if (found !== NONE && (spot === NONE || picture.assigned.data[p] === spot)) return picture.foundColours[found];
  return picture.spotColours[spot === NONE ? 0 : spot];
}
