// Giving every pixel that is not flat to one of the colours near it. An edge pixel goes to one of the two colours it
// lies between, never to a third that happens to look like their mix.
import type { Raster } from "../raster/index.ts";
import { UNKNOWN } from "./flat.ts";
import { gatherNearby, makeNearby, type Nearby } from "./nearby.ts";
import { bleedDistance, distanceTo, mixDistance, nearestColour, type Palette, unmix } from "./palette.ts";

/** How far, in encoded RGB, a pixel may be from a colour or a mix and still count as it. Grows with the picture's noise. */
export interface MatchReach {
  readonly pure: number;
  readonly mix: number;
}

/** How far around an edge pixel its two colours are looked for: an anti-aliased edge is at most 2 px wide. */
const NEAR_PX = 2;
/** Second look for blurred edges, where the flat colour begins farther away. */
const FAR_PX = 4;

/** How the nearby colours explain a pixel: by one of them (`first === second`) or a mix of two. */
interface Explanation {
  first: number;
  second: number;
  distance: number;
}

function explain(into: Explanation, nearby: Nearby, palette: Palette, r: number, g: number, b: number): void {
  into.distance = Number.POSITIVE_INFINITY;
  for (let k = 0; k < nearby.count; k++) {
    const i = nearby.list[k];
    const alone = distanceTo(palette, i, r, g, b);
    // One colour explains better than two at the same distance.
    if (alone <= into.distance + 1) {
      into.first = i;
      into.second = i;
      into.distance = alone;
    }
  }
  for (let k = 0; k < nearby.count; k++) {
    for (let m = k + 1; m < nearby.count; m++) {
      const distance = mixDistance(palette, nearby.list[k], nearby.list[m], r, g, b);
      if (distance + 1 >= into.distance) continue;
      into.first = nearby.list[k];
      into.second = nearby.list[m];
      into.distance = distance;
    }
  }
}

/**
 * First pass over the `open` pixels (indices of UNKNOWN ones): labels those that plainly are one colour, thin lines in a
 * known colour among them; returns the indices of those that no nearby colour, mix of two, or known colour explains.
 */
export function labelPurePixels(
  raster: Raster,
  labels: Uint8Array,
  palette: Palette,
  open: Uint32Array,
  reach: MatchReach,
): Uint32Array {
  const { width, height, data } = raster;
  const nearby = makeNearby();
  const best: Explanation = { first: 0, second: 0, distance: 0 };
  const decided = new Uint8Array(open.length).fill(UNKNOWN);
  const unexplained = new Uint32Array(open.length);
  let count = 0;
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
    if (nearest >= 0 && distanceTo(palette, nearest, r, g, b) <= reach.pure) decided[k] = nearest;
    else unexplained[count++] = p;
  }
  // Written only now, so that the outcome does not depend on the order of pixels.
  for (let k = 0; k < open.length; k++) if (decided[k] !== UNKNOWN) labels[open[k]] = decided[k];
  return unexplained.slice(0, count);
}

/**
 * Second pass: every still UNKNOWN pixel of `open` goes to the larger share of the best mix near it; where the nearby
 * colours do not explain it (a thin line never shows its colour pure), of a nearby colour with any known one.
 */
export function labelMixedPixels(
  raster: Raster,
  labels: Uint8Array,
  palette: Palette,
  open: Uint32Array,
  reach: MatchReach,
): void {
  const { width, height, data } = raster;
  const nearby = makeNearby();
  const best: Explanation = { first: 0, second: 0, distance: 0 };
  const decided = new Uint8Array(open.length).fill(UNKNOWN);
  for (let k = 0; k < open.length; k++) {
    const p = open[k];
    if (labels[p] !== UNKNOWN) continue;
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
    if (nearby.count === 0) decided[k] = nearestColour(palette, r, g, b);
    else decided[k] = unmix(palette, best.first, best.second, r, g, b) >= 0.5 ? best.first : best.second;
  }
  for (let k = 0; k < open.length; k++) if (decided[k] !== UNKNOWN) labels[open[k]] = decided[k];
}

/** Betters an explanation by mixes of a nearby colour with any colour of the palette. */
function explainWithKnown(into: Explanation, nearby: Nearby, palette: Palette, r: number, g: number, b: number): void {
  for (let k = 0; k < nearby.count; k++) {
    for (let j = 0; j < palette.size; j++) {
      const distance = mixDistance(palette, nearby.list[k], j, r, g, b);
      if (distance >= into.distance) continue;
      into.first = nearby.list[k];
      into.second = j;
      into.distance = distance;
    }
  }
}

/**
 * The share of the pixels of colour `label` (at most 400 of them are looked at) that two other colours nearby explain as
 * their mix. A colour that is mostly such a mix was made by blur or compression, not by the artist.
 */
export function shareExplainedAsMix(
  raster: Raster,
  labels: Uint8Array,
  palette: Palette,
  label: number,
  areaPx: number,
  reach: MatchReach,
  isBled: boolean,
): number {
  const { width, height, data } = raster;
  const nearby = makeNearby();
  const stride = Math.max(1, Math.floor(areaPx / 400));
  let met = 0;
  let looked = 0;
  let mixed = 0;
  for (let p = 0; p < labels.length; p++) {
    if (labels[p] !== label || met++ % stride !== 0) continue;
    looked++;
    gatherNearby(nearby, labels, width, height, p, NEAR_PX + 1);
    let isMix = false;
    for (let k = 0; k < nearby.count && !isMix; k++) {
      const i = nearby.list[k];
      if (i === label) continue;
      for (let m = k + 1; m < nearby.count && !isMix; m++) {
        const j = nearby.list[m];
        if (j === label) continue;
        const r = data[p * 4];
        const g = data[p * 4 + 1];
        const b = data[p * 4 + 2];
        if (isBled) isMix = bleedDistance(palette, i, j, r, g, b) <= reach.mix;
        if (isMix) break;
        const share = unmix(palette, i, j, palette.r[label], palette.g[label], palette.b[label]);
        if (share < 0.04 || share > 0.96) continue;
        isMix = mixDistance(palette, i, j, r, g, b) <= reach.mix;
      }
    }
    if (isMix) mixed++;
  }
  return looked === 0 ? 0 : mixed / looked;
}
