// Finding the artist's colours: flat pixels decide, thin lines are what remains, mixes are never colours.
import { ciede2000, formatHex, type Rgb, rgbToLab } from "../colour/index.ts";
import { type LabelMap, measureNoise, NONE, type Raster, smoothNoise, softenHardLines } from "../raster/index.ts";
import { labelMixedPixels, labelPurePixels, type MatchReach, shareExplainedAsMix } from "./assign.ts";
import { bridgeLines } from "./bridge-lines.ts";
import { BINS, findFlatPixels, UNKNOWN } from "./flat.ts";
import { countLabels, type Labelling, labelFlatPixels, loosen, renumberLabels, samplePixels } from "./labelling.ts";
import {
  addColour,
  type ColourBin,
  type ColourGroup,
  groupBins,
  MAX_FOUND,
  makePalette,
  meanColour,
  type Palette,
  paletteColours,
  removeColour,
} from "./palette.ts";
import { findPatches } from "./patches.ts";
import { settleEdges } from "./settle-edges.ts";
import { findThinColour, narrowThinSearch, startThinSearch } from "./thin.ts";

/** One colour that is really in the picture. The id follows from the colour, so it stays when others come and go. */
export interface FoundColour {
  readonly id: string;
  readonly rgb: Rgb;
  readonly areaPx: number;
}

/** What was found in a picture: its colours, largest first, and which pixel has which (an index into `found`). */
export interface Findings {
  readonly found: readonly FoundColour[];
  readonly labels: LabelMap;
  readonly opaquePx: number;
  /** How noisy the picture is; 0 is clean. */
  readonly noise: number;
  /** The picture that was looked at: the artwork itself, or what quieting its noise left. */
  readonly raster: Raster;
}

/** CIEDE2000 under which two flat colours are one. Two inks that near nobody mixes apart (common practice, no source). */
const SAME_COLOUR = 2;
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
/** Share of flat pixels under which they say nothing about the whole. */
const LEAST_FLAT_SHARE = 0.02;
/** Groups, accidental ones included, above which the art shades everywhere and is grouped coarser. */
const MOST_GROUPS = 400;
/** Thin colours looked for at most: each costs a pass over what is unexplained. */
const MOST_THIN = 12;
/** Share of the picture under which a colour is an accident, unless it is at least MIN_AREA_PX pixels of a tiny picture. */
const MIN_AREA_SHARE = 0.0001;
const MIN_AREA_PX = 4;
/** Times as much is asked of a colour without a flat pixel, and of any in a noisy picture: accidents are common there. */
const DOUBTFUL = 6;
/** Fewer pixels than a block's own edge has (8 x 8, ITU-T T.81) are compression's, in a noisy picture. */
const LEAST_NOISY_PX = 40;

/**
 * Finds the colours of a picture and gives every pixel one of them. Cost linear in pixels. A fully transparent picture has
 * none. `noise` is that of the picture it was made from, where that is known better.
 */
export function findColours(source: Raster, noise = measureNoise(source)): Findings {
  const raster = noise > 0 ? smoothNoise(smoothNoise(source, noise * 4), noise * 3) : softenHardLines(source);
  const reach: MatchReach = noise === 0 ? { pure: 8, mix: 10 } : { pure: 14 + 2 * noise, mix: 22 + 3 * noise };
  let flat = findFlatPixels(raster, noise === 0 ? 3 : Math.min(12, 4 + noise));
  // A photograph or a fine texture has hardly a flat pixel: then every pixel has a say.
  if (flat.flatPx < flat.opaquePx * LEAST_FLAT_SHARE) flat = findFlatPixels(raster, 255);
  const { opaquePx } = flat;
  // Compression's accidents do not become fewer with a background taken away: they stay as small a share of the whole.
  const wholePx = noise === 0 ? opaquePx : raster.width * raster.height;
  const minArea = Math.max(MIN_AREA_PX, Math.round(wholePx * MIN_AREA_SHARE));

  const groups = groupFlat(flat.bins, SAME_COLOUR + Math.min(3, 0.5 * Math.max(0, noise - 2)), minArea);
  const palette = makePalette(groups.map((group) => group.rgb));
  const labelOfBin = new Uint8Array(BINS).fill(UNKNOWN);
  groups.forEach((group, index) => {
    for (const key of group.keys) labelOfBin[key] = index;
  });
  const labelling = labelFlatPixels(flat, labelOfBin);
  const { labels, loose } = labelling;
  const minPeaks = Math.max(3, Math.round(minArea / (noise === 0 ? 4 : 1)));
  let search = startThinSearch(raster, labelPurePixels(raster, labels, palette, loose, reach), palette);
  for (let round = 0; round < MOST_THIN && palette.size < MAX_FOUND; round++) {
    if (search.unexplained.length < minPeaks) break;
    const thin = findThinColour(raster, labels, search, palette, minPeaks);
    if (!thin) break;
    const label = addColour(palette, thin);
    search = narrowThinSearch(raster, labels, search, palette, label, reach);
  }
  if (palette.size === 0 && opaquePx > 0) addColour(palette, meanColour(raster, loose));
  labelMixedPixels(raster, labels, palette, loose, reach);
  if (noise === 0) bridgeLines(raster, labels, palette, loose, reach);
  const leastAreas = Float64Array.from({ length: palette.size }, (_, i) =>
    i < groups.length && noise === 0 ? minArea : Math.max(minArea * DOUBTFUL, noise > 0 ? LEAST_NOISY_PX : 0),
  );
  const picture: Picture = { raster, labelling, palette, reach, wholePx, noise };
  const settle = () => settleEdges(raster, labels, palette, labelling.loose, reach, noise === 0);
  settle();
  if (noise > 0) {
    joinPatches(picture);
    dropRims(picture);
  }
  dropInvented(picture, leastAreas);
  settle();
  return { ...collect(picture), opaquePx, noise, raster };
}

/** A picture whose colours are being found. */
interface Picture {
  readonly raster: Raster;
  readonly labelling: Labelling;
  readonly palette: Palette;
  readonly reach: MatchReach;
  /** What shares of the picture are shares of. */
  readonly wholePx: number;
  readonly noise: number;
}

/** Groups of flat pixels that are colours; coarser and coarser until they fit beside room for thin ones. */
function groupFlat(bins: readonly ColourBin[], sameColour: number, minArea: number): ColourGroup[] {
  // Flat pixels are the inside of an area: a quarter of the area's minimum is enough of them.
  const enough = Math.max(2, minArea / 4);
  for (let reach = sameColour; ; reach *= 1.3) {
    const groups = groupBins(bins, reach, MOST_GROUPS)?.filter((group) => group.weight >= enough);
    if (groups && groups.length <= MAX_FOUND - MOST_THIN) return groups;
  }
}

/** Gives patches of a shade to the flat that compression made them of. */
function joinPatches({ raster, labelling, palette }: Picture): void {
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
function dropRims(picture: Picture): void {
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
  const steps = [-2, 2, -2 * width, 2 * width, -2 * width - 2, -2 * width + 2, 2 * width - 2, 2 * width + 2];
  for (let y = 2; y < height - 2; y++)
    for (let x = 2; x < width - 2; x++) {
      const p = y * width + x;
      let isInside = true;
      for (let k = 0; k < steps.length && isInside; k++) isInside = labels[p + steps[k]] === labels[p];
      if (isInside) inside[labels[p]]++;
    }
  return inside;
}

/** Gives the pixels of a colour anew, without it. */
function takeBack({ raster, labelling, palette, reach }: Picture, label: number): void {
  const open = loosen(labelling, label);
  removeColour(palette, label);
  labelMixedPixels(raster, labelling.labels, palette, open, reach);
}

/**
 * Takes back colours that are smaller than `leastAreas` or only mixes of their neighbours, smallest first, and gives their
 * pixels anew.
 */
function dropInvented(picture: Picture, leastAreas: Float64Array): void {
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

/** Sorts colours by area, renumbers the labels and leaves out what nothing uses. */
function collect({ labelling, palette, raster }: Picture): { found: FoundColour[]; labels: LabelMap } {
  const areas = countLabels(labelling);
  const colours = paletteColours(palette);
  const used = colours.map((_, i) => i).filter((i) => areas[i] > 0);
  used.sort((a, b) => areas[b] - areas[a] || a - b);
  const numbers = new Uint8Array(256).fill(NONE);
  const taken = new Set<string>();
  const found = used.map((old, index) => {
    numbers[old] = index;
    let id = formatHex(colours[old]).slice(1);
    while (taken.has(id)) id += "b";
    taken.add(id);
    return { id, rgb: colours[old], areaPx: areas[old] };
  });
  renumberLabels(labelling, numbers);
  return { found, labels: { width: raster.width, height: raster.height, data: labelling.labels } };
}
