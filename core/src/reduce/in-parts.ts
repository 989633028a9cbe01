// What of finding colours is done part by part, alone or by several: rows of the picture, pixels that are not flat. Who helps
// sees picture and labels in shared memory; where there is none, or nobody, it is one part.
import { type Raster, smoothNoise, smoothRows } from "../raster/index.ts";
import { canShareMemory, isHelped, type Sharing, sharedBytes, shareOut, type Task } from "../share/index.ts";
import { decideMixes, decidePure, type PixelWork, UNEXPLAINED } from "./assign.ts";
import { decideLines } from "./bridge-lines.ts";
import { type FlatPixels, type FlatRows, findFlatPixels, findFlatRows, joinRows, UNKNOWN } from "./flat.ts";

/** Pictures of fewer pixels are found through before they are shared. */
const LEAST_PX = 250_000;
/** Parts that rows are cut into: each counts its colours for itself, which costs a megabyte. */
const ROW_PARTS = 12;
/** Loose pixels that are decided in one go: a part of shared work costs a message. */
const PART_PIXELS = 8192;

/** Whether a picture is worth sharing, and there is with whom. */
export function* isPictureShared({ width, height }: Raster): Sharing<boolean> {
  return canShareMemory && width * height >= LEAST_PX && (yield* isHelped());
}

/** A copy of a picture in shared memory. */
export function shareRaster(raster: Raster): Raster {
  const copy = sharedRaster(raster);
  copy.data.set(raster.data);
  return copy;
}

function sharedRaster({ width, height }: Raster): Raster {
  return { width, height, data: new Uint8ClampedArray(sharedBytes(width * height * 4).buffer) };
}

type Rows = readonly [number, number];

function inRows(height: number): Rows[] {
  return Array.from({ length: ROW_PARTS }, (_, k) => [
    Math.round((k * height) / ROW_PARTS),
    Math.round(((k + 1) * height) / ROW_PARTS),
  ]);
}

interface SmoothWork {
  readonly raster: Raster;
  readonly into: Raster;
  readonly reach: number;
}

/** Rows smoothed, into a picture in shared memory. */
export const smoothTask: Task<SmoothWork, Rows, null> = {
  name: "smooth rows",
  begin:
    ({ raster, into, reach }) =>
    ([top, bottom]) => {
      smoothRows(raster, into, reach, top, bottom);
      return null;
    },
};

/** `smoothNoise` with whoever helps. */
export function* smoothInParts(raster: Raster, reach: number, isShared: boolean): Sharing<Raster> {
  if (!isShared) return smoothNoise(raster, reach);
  const into = sharedRaster(raster);
  yield* shareOut(smoothTask, { raster, into, reach }, inRows(raster.height));
  return into;
}

interface FlatWork {
  readonly raster: Raster;
  readonly labels: Uint8Array;
  readonly reach: number;
}

/** What is flat of rows; what is transparent is labelled so in shared memory. */
export const flatTask: Task<FlatWork, Rows, FlatRows> = {
  name: "find flat rows",
  begin:
    ({ raster, labels, reach }) =>
    ([top, bottom]) =>
      findFlatRows(raster, labels, reach, top, bottom),
};

/** `findFlatPixels` with whoever helps. */
export function* findFlatInParts(raster: Raster, reach: number, isShared: boolean): Sharing<FlatPixels> {
  if (!isShared) return findFlatPixels(raster, reach);
  const labels = sharedBytes(raster.width * raster.height).fill(UNKNOWN);
  return joinRows(labels, yield* shareOut(flatTask, { raster, labels, reach }, inRows(raster.height)));
}

const DECISIONS = { pure: decidePure, mix: decideMixes, line: decideLines } as const;

/** What is decided of pixels. */
type Question = keyof typeof DECISIONS;

/** Pixels, by index, as what was decided of each. */
export const decideTask: Task<PixelWork & { readonly question: Question }, Int32Array, Uint8Array> = {
  name: "decide pixels",
  begin: (work) => (open) => DECISIONS[work.question](work, open),
};

/**
 * Labels those of the `open` pixels of which something is decided, with whoever helps; returns those that nothing explains.
 * Written when all is decided, so that the outcome does not depend on the order of pixels.
 */
export function* labelPixels(
  work: PixelWork,
  question: Question,
  open: Int32Array,
  isShared: boolean,
): Sharing<Int32Array> {
  // So many at a time alone, too: engines compile what is called often, and one long loop late.
  const parts = Array.from({ length: Math.ceil(open.length / PART_PIXELS) }, (_, k) =>
    open.slice(k * PART_PIXELS, (k + 1) * PART_PIXELS),
  );
  const decided = isShared
    ? yield* shareOut(decideTask, { ...work, question }, parts)
    : parts.map((part) => DECISIONS[question](work, part));
  const unexplained = new Int32Array(open.length);
  let n = 0;
  for (const [k, part] of parts.entries())
    for (let i = 0; i < part.length; i++) {
      const label = decided[k][i];
      if (label === UNEXPLAINED) unexplained[n++] = part[i];
      else if (label !== UNKNOWN) work.labels[part[i]] = label;
    }
  return unexplained.slice(0, n);
}
