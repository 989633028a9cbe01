// Connected regions of one label, held as runs: what works on them follows the regions' outlines, not the pixels.
import { grow } from "./growing.ts";
import type { LabelMap } from "./raster.ts";

/** Regions of a label map, connected through pixel sides. Every pixel has a region, transparent ones too. */
export interface Components {
  /** First pixel of every run of one region in a row, row by row, and the number of pixels at the end. */
  readonly pixelRuns: Int32Array;
  /** Region of every run. */
  readonly regionOfPixelRun: Int32Array;
  /** Label of every region. */
  readonly label: Uint8Array;
  readonly areaPx: Int32Array;
}

/**
 * Joins runs of equal labels row by row with union-find: linear in pixels.
 * Source: A. Rosenfeld & J. Pfaltz, "Sequential operations in digital picture processing" (J. ACM, 1966), on runs.
 */
export function findComponents({ width, height, data }: LabelMap): Components {
  let starts = new Int32Array(4096);
  let parent = new Int32Array(4096);
  let pixelRuns = 0;
  const root = (a: number): number => {
    let r = a;
    while (parent[r] !== r) {
      parent[r] = parent[parent[r]];
      r = parent[r];
    }
    return r;
  };
  // Four pixels at a time, where the memory allows it.
  const isAligned = data.byteOffset % 4 === 0;
  const words = isAligned ? new Uint32Array(data.buffer, data.byteOffset, data.length >> 2) : new Uint32Array(0);
  let previous = 0;
  for (let y = 0; y < height; y++) {
    const rowStart = y * width;
    const rowEnd = rowStart + width;
    const first = pixelRuns;
    let above = previous;
    for (let p = rowStart; p < rowEnd; ) {
      const label = data[p];
      const start = p;
      p = endOfRun(data, words, p, rowEnd);
      if (pixelRuns + 1 === starts.length) {
        starts = grow(starts);
        parent = grow(parent);
      }
      starts[pixelRuns] = start;
      parent[pixelRuns] = pixelRuns;
      if (y > 0) {
        // Runs of the row above that reach under this one; the last may reach under the next, too.
        while (above + 1 < first && starts[above + 1] + width <= start) above++;
        for (let other = above; other < first && starts[other] + width < p; other++) {
          if (data[starts[other]] !== label) continue;
          const a = root(other);
          const b = root(pixelRuns);
          if (a < b) parent[b] = a;
          else parent[a] = b;
        }
      }
      pixelRuns++;
    }
    previous = first;
  }
  starts[pixelRuns] = width * height;
  const regionOfPixelRun = new Int32Array(pixelRuns);
  const label: number[] = [];
  const areaPx: number[] = [];
  for (let run = 0; run < pixelRuns; run++) {
    const r = root(run);
    // A region's root is its first run, so it is numbered before any other run of it is met.
    if (r === run) {
      regionOfPixelRun[run] = label.length;
      label.push(data[starts[run]]);
      areaPx.push(0);
    } else regionOfPixelRun[run] = regionOfPixelRun[r];
    areaPx[regionOfPixelRun[run]] += starts[run + 1] - starts[run];
  }
  return {
    pixelRuns: starts.slice(0, pixelRuns + 1),
    regionOfPixelRun,
    label: Uint8Array.from(label),
    areaPx: Int32Array.from(areaPx),
  };
}

/** The pixel after the run of equal labels that starts at `p`; `words` are the same labels, four to a number. */
function endOfRun(data: Uint8Array, words: Uint32Array, p: number, rowEnd: number): number {
  const label = data[p];
  let end = p + 1;
  while (end < rowEnd && (end & 3) !== 0 && data[end] === label) end++;
  if ((end & 3) === 0 && words.length > 0) {
    const four = (label * 0x01010101) >>> 0;
    const last = rowEnd >> 2;
    let word = end >> 2;
    while (word < last && words[word] === four) word++;
    end = word << 2;
  }
  while (end < rowEnd && data[end] === label) end++;
  return end;
}

/** Region of one pixel; costs the logarithm of the number of runs. */
export function regionAt({ pixelRuns, regionOfPixelRun }: Components, pixel: number): number {
  let first = 0;
  let last = regionOfPixelRun.length - 1;
  while (first < last) {
    const middle = (first + last + 1) >> 1;
    if (pixelRuns[middle] <= pixel) first = middle;
    else last = middle - 1;
  }
  return regionOfPixelRun[first];
}

/** Region of every pixel. */
export function regionsOfPixels({ pixelRuns, regionOfPixelRun }: Components): Int32Array {
  const of = new Int32Array(pixelRuns[regionOfPixelRun.length]);
  for (let run = 0; run < regionOfPixelRun.length; run++)
    of.fill(regionOfPixelRun[run], pixelRuns[run], pixelRuns[run + 1]);
  return of;
}

/** Every length of boundary (in pixel sides) at which two regions touch: each once, a pair of regions many times. */
export function forEachContact(
  { pixelRuns, regionOfPixelRun }: Components,
  width: number,
  visit: (a: number, b: number, length: number) => void,
): void {
  // The run of the row above that reaches over the place.
  let above = -1;
  for (let run = 0; run < regionOfPixelRun.length; run++) {
    const own = regionOfPixelRun[run];
    if (pixelRuns[run] % width > 0) visit(regionOfPixelRun[run - 1], own, 1);
    if (pixelRuns[run] < width) continue;
    const start = pixelRuns[run] - width;
    const end = pixelRuns[run + 1] - width;
    if (above < 0) above = 0;
    while (pixelRuns[above + 1] <= start) above++;
    for (; ; above++) {
      const other = regionOfPixelRun[above];
      if (other !== own) visit(other, own, Math.min(end, pixelRuns[above + 1]) - Math.max(start, pixelRuns[above]));
      if (pixelRuns[above + 1] >= end) break;
    }
  }
}
