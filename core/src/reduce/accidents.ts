// Colours that nobody drew: patches and rims that compression makes, and mixes of two neighbours. They are taken back.
import { ciede2000, rgbToLab } from "../colour/index.ts";
import type { Raster } from "../raster/index.ts";
import { decideMixes, type MatchReach, shareExplainedAsMix } from "./assign.ts";
import { countLabels, type Labelling, loosen, samplePixels } from "./labelling.ts";
import { type Palette, paletteColours, removeColour } from "./palette.ts";
import { findPatches } from "./patches.ts";

/**
 * A rim's largest share of the picture, its largest CIEDE2000 to the colour it is a variant of, and the share of its pixels
 * that are inside it at most: the fainter, the wider.
 */
const RIMS = [
  { share: 0.03, difference: 18, inside: 0.04 },
  { share: 0.1, difference: 12, inside: 0.04 },
  { share: 0.03, difference: 8, inside: 0.15 },
  { share: 0.03, difference: 5, inside: 0.3 },
] as const;
/** Share of pixels inside it up to which a colour can be what compression made of an edge: lightness of one side, hue of the other. */
const BLED_INSIDE = 0.1;
/** Share of the picture under which a colour can be an invented one; share of its pixels that say so; how many are asked. */
const MOST_INVENTED = 0.03;
const INVENTED_SHARE = 0.6;
const MOST_LOOKED_AT = 400;

/** A picture whose colours are being found. */
export interface Picture {
  readonly raster: Raster;
  readonly labelling: Labelling;
  readonly palette: Palette;
  readonly reach: MatchReach;
  /** What shares of the picture are shares of. */
  readonly wholePx: number;
  readonly noise: number;
}

/** Gives patches of a shade to the flat that compression made them of. */
export function joinPatches({ raster, labelling, palette }: Picture): void {
  const { labels } = labelling;
  const labs = paletteColours(palette).map((rgb) => rgbToLab(rgb));
  const joined = new Map<number, number>();
  const homeOf = (label: number): number => {
    const home = joined.get(label);
    return home === undefined ? label : homeOf(home);
  };
  for (const { patch, whole } of findPatches(labels, raster.width, raster.height, labs, countLabels(labelling))) {
    // Patches of patches end in one flat; one that lies between two flats goes to one of them.
    if (joined.has(patch)) continue;
    const into = homeOf(whole);
    joined.set(patch, into);
    for (const p of loosen(labelling, patch)) labels[p] = into;
    removeColour(palette, patch);
  }
}

/**
 * Takes back the variants of a colour that compression leaves as a rim along its edges: near another, larger colour, and
 * hardly anywhere wider than a rim.
 */
export function dropRims(picture: Picture): void {
  const { raster, labelling, palette, wholePx } = picture;
  const areas = countLabels(labelling);
  const inside = countInside(labelling.labels, raster.width, raster.height);
  const labs = paletteColours(palette).map((rgb) => rgbToLab(rgb));
  const smallestFirst = labs.map((_, i) => i).sort((a, b) => areas[a] - areas[b]);
  for (const label of smallestFirst) {
    const difference = Math.min(
      ...labs.map((lab, other) =>
        areas[other] > areas[label] ? ciede2000(lab, labs[label]) : Number.POSITIVE_INFINITY,
      ),
    );
    const share = areas[label] / wholePx;
    const insideShare = inside[label] / areas[label];
    const isRim = RIMS.some((rim) => share < rim.share && difference < rim.difference && insideShare < rim.inside);
    if (isRim) takeBack(picture, label);
  }
}

/** For every label: its pixels with nothing else two pixels away in eight directions. */
function countInside(labels: Uint8Array, width: number, height: number): Uint32Array {
  const inside = new Uint32Array(256);
  const two = 2 * width;
  for (let y = 2; y < height - 2; y++)
    for (let p = y * width + 2, end = (y + 1) * width - 2; p < end; p++) {
      const own = labels[p];
      if (labels[p - 2] !== own || labels[p + 2] !== own) continue;
      if (labels[p - two] !== own || labels[p - two - 2] !== own || labels[p - two + 2] !== own) continue;
      if (labels[p + two] === own && labels[p + two - 2] === own && labels[p + two + 2] === own) inside[own]++;
    }
  return inside;
}

/** Gives the pixels of a colour anew, without it. */
function takeBack({ raster, labelling, palette, reach }: Picture, label: number): void {
  const open = loosen(labelling, label);
  removeColour(palette, label);
  const { labels } = labelling;
  const decided = decideMixes({ raster, labels, palette, reach }, open);
  for (let k = 0; k < open.length; k++) labels[open[k]] = decided[k];
}

/**
 * Takes back colours that are smaller than `leastAreas` or only mixes of their neighbours, smallest first, and gives their
 * pixels anew.
 */
export function dropInvented(picture: Picture, leastAreas: Float64Array): void {
  const { raster, labelling, palette, reach, wholePx, noise } = picture;
  const areas = countLabels(labelling);
  const smallestFirst = Array.from({ length: palette.size }, (_, i) => i).sort((a, b) => areas[a] - areas[b]);
  const inside = noise > 0 ? countInside(labelling.labels, raster.width, raster.height) : null;
  const samples = samplePixels(labelling, areas, MOST_LOOKED_AT);
  let dropped = 0;
  for (const label of smallestFirst) {
    if (dropped === palette.size - 1) break;
    const isTiny = areas[label] < leastAreas[label];
    if (!isTiny) {
      if (areas[label] >= wholePx * MOST_INVENTED) continue;
      const isBled = inside !== null && inside[label] < areas[label] * BLED_INSIDE;
      const share = shareExplainedAsMix(raster, labelling.labels, palette, label, samples[label], reach, isBled);
      if (share <= INVENTED_SHARE) continue;
    }
    dropped++;
    takeBack(picture, label);
  }
}
