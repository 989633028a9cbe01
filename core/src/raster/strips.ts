// A picture's rows laid into the memory of the compiled loops, so many at a time that they stay near the processor.
import { bytesAt, makeRoom, type Place } from "../kernel/index.ts";
import type { Raster } from "./raster.ts";

/** Pixels of a strip, at least a row. */
const STRIP_PX = 1 << 16;

/** Rows of a picture in the loops' memory; it holds until the next is made. */
export interface Strip {
  /** Where its pixels lie, and what is made of them. */
  readonly pixels: Place;
  readonly made: Place;
  /** Rows that are laid there, and which of them it is about, from the first up to the end; the others are their neighbours. */
  readonly rows: number;
  readonly first: number;
  readonly end: number;
  /** The picture's pixel that the first row of those it is about begins with. */
  readonly start: number;
}

/**
 * The rows of a picture from `top` up to `bottom` strip by strip, each with `margin` more above and below where the picture
 * has them, and with room for `madePerPixel` bytes of what is made of each of its pixels. A first block of `kept` bytes that the
 * caller made room for stays as it is.
 */
export function* stripsOf(
  { width, height, data }: Raster,
  margin: number,
  [top, bottom]: readonly [number, number],
  madePerPixel: number,
  kept = 0,
): Generator<Strip> {
  const step = Math.max(1, Math.floor(STRIP_PX / width));
  const most = (Math.min(step, bottom - top) + 2 * margin) * width;
  for (let y = top; y < bottom; y += step) {
    const [, pixels, made] = makeRoom(kept, most * 4, most * madePerPixel);
    const from = Math.max(0, y - margin);
    const until = Math.min(bottom, y + step);
    const to = Math.min(height, until + margin);
    bytesAt(pixels, (to - from) * width * 4).set(data.subarray(from * width * 4, to * width * 4));
    yield { pixels, made, rows: to - from, first: y - from, end: until - from, start: y * width };
  }
}
