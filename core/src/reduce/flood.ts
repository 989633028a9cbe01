// Areas of a label map: what hangs together round a pixel, found in spans, at the cost of the area itself.
import type { LabelMap } from "../raster/index.ts";

/** Which pixels an area has, and how much of its outline there is. */
export interface Area {
  /** Indices in order. */
  readonly pixels: Uint32Array;
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
  const stack = [start];
  const spans: number[] = [];
  let size = 0;
  let outline = 0;
  let touchesEdge = false;
  for (let seed = stack.pop(); seed !== undefined; seed = stack.pop()) {
    if (isTaken[seed] === 1) continue;
    const rowStart = seed - (seed % width);
    let from = seed;
    let to = seed + 1;
    while (from > rowStart && data[from - 1] === label) from--;
    while (to < rowStart + width && data[to] === label) to++;
    isTaken.fill(1, from, to);
    spans.push(from, to);
    size += to - from;
    outline += 2;
    if (from === rowStart || to === rowStart + width) touchesEdge = true;
    for (const beside of [-width, width]) {
      if (from + beside < 0 || from + beside >= width * height) {
        touchesEdge = true;
        outline += to - from;
        continue;
      }
      for (let q = from + beside, isRun = false; q < to + beside; q++) {
        if (data[q] !== label) outline++;
        const isOpen = data[q] === label && isTaken[q] === 0;
        if (isOpen && !isRun) stack.push(q);
        isRun = isOpen;
      }
    }
  }
  const order = Array.from({ length: spans.length / 2 }, (_, i) => i).sort((a, b) => spans[a * 2] - spans[b * 2]);
  const pixels = new Uint32Array(size);
  let k = 0;
  for (const i of order) {
    for (let p = spans[i * 2]; p < spans[i * 2 + 1]; p++) pixels[k++] = p;
    isTaken.fill(0, spans[i * 2], spans[i * 2 + 1]);
  }
  return { pixels, outline, touchesEdge };
}

/** An area with so long an outline for its size (as a multiple of a disc's, squared) is a line or a net of lines. */
const LINE_LIKE = 15;
/** An area is wider than any line from this on, px: twice its size by its outline. */
const WIDEST_LINE_PX = 40;

/** Whether an area is drawn lines rather than what they enclose. */
export function isLineLike({ pixels, outline }: Area): boolean {
  return outline * outline > LINE_LIKE * 4 * Math.PI * pixels.length && (2 * pixels.length) / outline < WIDEST_LINE_PX;
}
