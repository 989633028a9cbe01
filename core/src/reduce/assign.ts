// Giving every pixel that is not flat to one of the colours near it. An edge pixel goes to one of the two colours it
// lies between, never to a third that happens to look like their mix.
import type { Raster } from "../raster/index.ts";
import { UNKNOWN } from "./flat.ts";
import { bleedDistance, mixDistance2, mixShare } from "./mixes.ts";
import { gatherNearby, makeNearby, type Nearby } from "./nearby.ts";
import { distance2, MAX_FOUND, nearestColour, type Palette } from "./palette.ts";

/** How far, in encoded RGB, a pixel may be from a colour or a mix and still count as it. Grows with the picture's noise. */
export interface MatchReach {
  readonly pure: number;
  readonly mix: number;
}

/** How far around an edge pixel its two colours are looked for: an anti-aliased edge is at most 2 px wide. */
export const NEAR_PX = 2;
/** Second look for blurred edges, where the flat colour begins farther away. */
const FAR_PX = 4;

/** How colours explain a pixel: by one of them (`first === second`) or a mix of two. */
interface Explanation {
  first: number;
  second: number;
  distance: number;
  /** Squared distances of the pixel to the palette's colours; only those looked at are of this pixel. */
  readonly to2: Float64Array;
}

function makeExplanation(): Explanation {
  return { first: 0, second: 0, distance: 0, to2: new Float64Array(MAX_FOUND) };
}

/** Explains a pixel by the nearby colours. */
function explain(into: Explanation, nearby: Nearby, palette: Palette, r: number, g: number, b: number): void {
  const { to2 } = into;
  into.distance = Number.POSITIVE_INFINITY;
  for (let k = 0; k < nearby.count; k++) {
    const i = nearby.list[k];
    to2[i] = distance2(palette, i, r, g, b);
    const alone = Math.sqrt(to2[i]);
    // One colour explains better than two at the same distance.
    if (alone <= into.distance + 1) {
      into.first = i;
      into.second = i;
      into.distance = alone;
    }
  }
  let most2 = lessByOne2(into.distance);
  for (let k = 0; k < nearby.count && most2 > 0; k++) {
    const i = nearby.list[k];
    for (let m = k + 1; m < nearby.count; m++) {
      const j = nearby.list[m];
      const d2 = mixDistance2(to2[i], to2[j], palette.apart2[i * MAX_FOUND + j]);
      if (d2 >= most2) continue;
      into.first = i;
      into.second = j;
      into.distance = Math.sqrt(d2);
      most2 = lessByOne2(into.distance);
    }
  }
}

/** The square of a distance that is shorter by one; 0 where there is none. */
function lessByOne2(distance: number): number {
  return distance > 1 ? (distance - 1) * (distance - 1) : 0;
}

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
export const decidePure: Decide = ({ raster, labels, palette, reach }, open) => {
  const { width, height, data } = raster;
  const nearby = makeNearby();
  const best = makeExplanation();
  const decided = new Uint8Array(open.length).fill(UNKNOWN);
  const pure2 = reach.pure * reach.pure;
  for (let k = 0; k < open.length; k++) {
    const p = open[k];
    const r = data[p * 4];
    const g = data[p * 4 + 1];
    const b = data[p * 4 + 2];
    gatherNearby(nearby, labels, width, height, p, NEAR_PX);
    explain(best, nearby, palette, r, g, b);
    if (best.distance <= reach.mix) {
      if (best.first === best.second && best.distance <= reach.pure) decided[k] = best.first;
      continue;
    }
    const nearest = nearestColour(palette, r, g, b);
    const isPure = nearest >= 0 && distance2(palette, nearest, r, g, b) <= pure2;
    decided[k] = isPure ? nearest : UNEXPLAINED;
  }
  return decided;
};

/**
 * Second pass: the larger share of the best mix near a pixel; where the nearby colours do not explain it (a thin line never
 * shows its colour pure), of a nearby colour with any known one.
 */
export const decideMixes: Decide = ({ raster, labels, palette, reach }, open) => {
  const { width, height, data } = raster;
  const nearby = makeNearby();
  const best = makeExplanation();
  const decided = new Uint8Array(open.length);
  for (let k = 0; k < open.length; k++) {
    const p = open[k];
    const r = data[p * 4];
    const g = data[p * 4 + 1];
    const b = data[p * 4 + 2];
    gatherNearby(nearby, labels, width, height, p, NEAR_PX);
    explain(best, nearby, palette, r, g, b);
    if (best.distance > reach.mix) {
      gatherNearby(nearby, labels, width, height, p, FAR_PX);
      explain(best, nearby, palette, r, g, b);
    }
    if (best.distance > reach.mix) explainWithKnown(best, nearby, palette, r, g, b);
    const { first, second, to2 } = best;
    const share = mixShare(to2[first], to2[second], palette.apart2[first * MAX_FOUND + second]);
    decided[k] = nearby.count === 0 ? nearestColour(palette, r, g, b) : share >= 0.5 ? first : second;
  }
  return decided;
};

/** Betters an explanation by mixes of a nearby colour with any colour of the palette. */
function explainWithKnown(into: Explanation, nearby: Nearby, palette: Palette, r: number, g: number, b: number): void {
  const { to2 } = into;
  for (let j = 0; j < palette.size; j++) to2[j] = distance2(palette, j, r, g, b);
  let least = into.distance * into.distance;
  for (let k = 0; k < nearby.count; k++) {
    const i = nearby.list[k];
    for (let j = 0; j < palette.size; j++) {
      const d2 = mixDistance2(to2[i], to2[j], palette.apart2[i * MAX_FOUND + j]);
      if (d2 >= least) continue;
      into.first = i;
      into.second = j;
      least = d2;
    }
  }
  into.distance = Math.sqrt(least);
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
