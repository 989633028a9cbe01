// Areas of a label map: what hangs together round a pixel, found in spans, at the cost of the area itself.
import { fillSpans, type LabelMap } from "../raster/index.ts";

/** Which pixels an area has, and how much of its outline there is. */
export interface Area {
  /** Indices in order. */
  readonly pixels: Int32Array;
  /** Pixel sides along its outline. */
  readonly outline: number;
  readonly touchesEdge: boolean;
}

/**
 * The connected pixels of one label around `start`. `isTaken` has a byte for every pixel of the map, 0 at the beginning and
 * again when this returns: one array serves many areas.
 */
export function floodArea({ width, height, data }: LabelMap, start: number, isTaken: Uint8Array): Area {
  const label = data[start];
  const starts: number[] = [];
  const ends: number[] = [];
  const isOurs = (value: number) => value === label;
  fillSpans({ values: data, width }, isTaken, start, isOurs, (from, to) => {
    starts.push(from);
    ends.push(to);
  });
  // Spans do not overlap: their starts in order and their ends in order belong together.
  const spans = { from: Int32Array.from(starts).sort(), to: Int32Array.from(ends).sort() };
  const { from, to } = spans;
  let size = 0;
  let touchesEdge = from[0] < width || to[to.length - 1] > width * (height - 1);
  for (let i = 0; i < from.length; i++) {
    size += to[i] - from[i];
    if (from[i] % width === 0 || to[i] % width === 0) touchesEdge = true;
  }
  const pixels = new Int32Array(size);
  let k = 0;
  for (let i = 0; i < from.length; i++) {
    for (let p = from[i]; p < to[i]; p++) pixels[k++] = p;
    isTaken.fill(0, from[i], to[i]);
  }
  return { pixels, outline: outlineOf(spans, width), touchesEdge };
}

/** Pixel sides along the outline of spans in order: two at the ends of each, and above and below what no other meets. */
function outlineOf({ from, to }: { readonly from: Int32Array; readonly to: Int32Array }, width: number): number {
  let outline = 0;
  let above = 0;
  for (let i = 0; i < from.length; i++) {
    outline += 2 + 2 * (to[i] - from[i]);
    while (to[above] + width <= from[i]) above++;
    for (let j = above; j < i && from[j] + width < to[i]; j++)
      outline -= 2 * (Math.min(to[i], to[j] + width) - Math.max(from[i], from[j] + width));
  }
  return outline;
}

/** An area with so long an outline for its size (as a multiple of a disc's, squared) is a line or a net of lines. */
const LINE_LIKE = 15;
/** An area is wider than any line from this on, px: twice its size by its outline. */
const WIDEST_LINE_PX = 40;

/** Whether an area is drawn lines rather than what they enclose. */
export function isLineLike({ pixels, outline }: Area): boolean {
  return outline * outline > LINE_LIKE * 4 * Math.PI * pixels.length && (2 * pixels.length) / outline < WIDEST_LINE_PX;
}
