// Giving every pixel that is not flat to one of the colours near it. An edge pixel goes to one of the two colours it
// lies between, never to a third that happens to look like their mix.
import { bytesAt, compiledLoops, type DecideLoop, doublesAt, makeRoom, type Place, wordsAt } from "../kernel/index.ts";
import type { Raster } from "../raster/index.ts";
import { bleedDistance, mixDistance2, mixShare } from "./mixes.ts";
import { gatherNearby, makeNearby } from "./nearby.ts";
import { distance2, MAX_FOUND, type Palette } from "./palette.ts";

/** How far, in encoded RGB, a pixel may be from a colour or a mix and still count as it. Grows with the picture's noise. */
export interface MatchReach {
  readonly pure: number;
  readonly mix: number;
}

/** How far around an edge pixel its two colours are looked for: an anti-aliased edge is at most 2 px wide. */
export const NEAR_PX = 2;

/** No nearby colour, no mix of two and no known colour explains the pixel. */
export const UNEXPLAINED = 255;

/** What pixels are decided from. */
export interface PixelWork {
  readonly raster: Raster;
  readonly labels: Uint8Array;
  readonly palette: Palette;
  readonly reach: MatchReach;
}

/** Says what each of some pixels is: a label, or UNKNOWN where that is not for it to say. It changes nothing. */
export type Decide = (work: PixelWork, open: Int32Array) => Uint8Array;

/**
 * First pass: the label of a pixel that plainly is one colour, as those of thin lines in a known colour are; UNKNOWN for a
 * mix; UNEXPLAINED.
 */
export const decidePure: Decide = (work, open) => decide(compiledLoops().decidePure, work, open);

/**
 * Second pass: the larger share of the best mix near a pixel; where the nearby colours do not explain it (a thin line never
 * shows its colour pure), of a nearby colour with any known one.
 */
export const decideMixes: Decide = (work, open) => decide(compiledLoops().decideMixes, work, open);

/** Labels that are laid into the loops' memory in one go, and how many rows more above and below: as far as a look goes. */
const WINDOW_PX = 1 << 17;
const MARGIN = 4;

/** A palette as the loops have it: red, green and blue, squared distances between colours, and of a pixel to each. */
const PALETTE_BYTES = (MAX_FOUND + 4) * MAX_FOUND * 8;

function layPalette({ r, g, b, apart2 }: Palette, place: Place): void {
  for (const [k, values] of [r, g, b, apart2].entries())
    doublesAt(place + k * MAX_FOUND * 8, values.length).set(values);
}

/** Asks a loop about pixels, those that lie together in one go: best in order. */
function decide(loop: DecideLoop, { raster, labels, palette, reach }: PixelWork, open: Int32Array): Uint8Array {
  const { width, height, data } = raster;
  const words = new Int32Array(data.buffer, data.byteOffset, width * height);
  const decided = new Uint8Array(open.length);
  const most = Math.max(1, Math.floor(WINDOW_PX / width));
  for (let k = 0; k < open.length; ) {
    const start = k;
    const row = Math.floor(open[k] / width);
    const [from, to] = [row * width, Math.min(height, row + most) * width];
    let last = 0;
    for (; k < open.length && open[k] >= from && open[k] < to; k++) last = Math.max(last, open[k]);
    const top = Math.max(0, row - MARGIN);
    const bottom = Math.min(height, Math.floor(last / width) + 1 + MARGIN);
    const [area, count] = [(bottom - top) * width, k - start];
    const [rows, colours, places, ofPlaces, out] = makeRoom(area, PALETTE_BYTES, count * 4, count * 4, count);
    bytesAt(rows, area).set(labels.subarray(top * width, bottom * width));
    layPalette(palette, colours);
    const [told, theirs] = [wordsAt(places, count), wordsAt(ofPlaces, count)];
    for (let n = 0; n < count; n++) {
      const p = open[start + n];
      told[n] = p - top * width;
      theirs[n] = words[p];
    }
    compiledLoops().decideFrom(rows, width, bottom - top, colours, palette.size, reach.pure, reach.mix);
    loop(places, ofPlaces, count, out);
    decided.set(bytesAt(out, count), start);
  }
  return decided;
}

/**
 * The share of some pixels of colour `label` that two other colours nearby explain as their mix. A colour that is mostly
 * such a mix was made by blur or compression (`isBled`), not by the artist.
 */
export function shareExplainedAsMix(
  raster: Raster,
  labels: Uint8Array,
  palette: Palette,
  label: number,
  pixels: readonly number[],
  reach: MatchReach,
  isBled: boolean,
): number {
  const { width, height, data } = raster;
  const nearby = makeNearby();
  const mix2 = reach.mix * reach.mix;
  let mixed = 0;
  for (const p of pixels) {
    gatherNearby(nearby, labels, width, height, p, NEAR_PX + 1);
    const r = data[p * 4];
    const g = data[p * 4 + 1];
    const b = data[p * 4 + 2];
    let isMix = false;
    for (let k = 0; k < nearby.count && !isMix; k++) {
      const i = nearby.list[k];
      if (i === label) continue;
      for (let m = k + 1; m < nearby.count && !isMix; m++) {
        const j = nearby.list[m];
        if (j === label) continue;
        if (isBled) isMix = bleedDistance(palette, i, j, r, g, b) <= reach.mix;
        if (isMix) break;
        const apart2 = palette.apart2[i * MAX_FOUND + j];
        const share = mixShare(palette.apart2[label * MAX_FOUND + i], palette.apart2[label * MAX_FOUND + j], apart2);
        if (share < 0.04 || share > 0.96) continue;
        isMix = mixDistance2(distance2(palette, i, r, g, b), distance2(palette, j, r, g, b), apart2) <= mix2;
      }
    }
    if (isMix) mixed++;
  }
  return pixels.length === 0 ? 0 : mixed / pixels.length;
}
