// Finding the artist's colours: flat pixels decide, thin lines are what remains, mixes are never colours.
import { formatHex, type Rgb } from "../colour/index.ts";
import { type LabelMap, measureNoise, NONE, type Raster, softenHardLines } from "../raster/index.ts";
import { doAlone, type Sharing } from "../share/index.ts";
import { dropInvented, dropRims, joinPatches, type Picture } from "./accidents.ts";
import type { MatchReach, PixelWork } from "./assign.ts";
import { joinCorners } from "./bridge-lines.ts";
import { BINS, UNKNOWN } from "./flat.ts";
import { groupFlat } from "./group-bins.ts";
import { findFlatInParts, isPictureShared, labelPixels, shareRaster, smoothInParts } from "./in-parts.ts";
import { countLabels, labelFlatPixels, renumberLabels } from "./labelling.ts";
import { addColour, MAX_FOUND, makePalette, meanColour, paletteColours } from "./palette.ts";
import { returnStrays } from "./return-strays.ts";
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
/** Share of flat pixels under which they say nothing about the whole. */
const LEAST_FLAT_SHARE = 0.02;
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
  return doAlone(findColoursTogether(source, noise));
}

/** The same with whoever helps. */
export function* findColoursTogether(source: Raster, noise = measureNoise(source)): Sharing<Findings> {
  const isShared = yield* isPictureShared(source);
  const clean = noise > 0 ? null : softenHardLines(source);
  const given = isShared ? shareRaster(clean ?? source) : (clean ?? source);
  const raster = clean
    ? given
    : yield* smoothInParts(yield* smoothInParts(given, noise * 4, isShared), noise * 3, isShared);
  const reach: MatchReach = noise === 0 ? { pure: 8, mix: 10 } : { pure: 14 + 2 * noise, mix: 22 + 3 * noise };
  let flat = yield* findFlatInParts(raster, noise === 0 ? 3 : Math.min(12, 4 + noise), isShared);
  // A photograph or a fine texture has hardly a flat pixel: then every pixel has a say.
  if (flat.flatPx < flat.opaquePx * LEAST_FLAT_SHARE) flat = yield* findFlatInParts(raster, 255, isShared);
  const { opaquePx } = flat;
  // Compression's accidents do not become fewer with a background taken away: they stay as small a share of the whole.
  const wholePx = noise === 0 ? opaquePx : raster.width * raster.height;
  const minArea = Math.max(MIN_AREA_PX, Math.round(wholePx * MIN_AREA_SHARE));

  const groups = groupFlat(flat.bins, SAME_COLOUR + Math.min(3, 0.5 * Math.max(0, noise - 2)), minArea, MOST_THIN);
  const palette = makePalette(groups.map((group) => group.rgb));
  const labelOfBin = new Uint8Array(BINS).fill(UNKNOWN);
  groups.forEach((group, index) => {
    for (const key of group.keys) labelOfBin[key] = index;
  });
  const labelling = labelFlatPixels(flat, labelOfBin);
  const { labels, loose } = labelling;
  const minPeaks = Math.max(3, Math.round(minArea / (noise === 0 ? 4 : 1)));
  const work: PixelWork = { raster, labels, palette, reach };
  let search = startThinSearch(raster, yield* labelPixels(work, "pure", loose, isShared), palette);
  for (let round = 0; round < MOST_THIN && palette.size < MAX_FOUND; round++) {
    if (search.unexplained.length < minPeaks) break;
    const thin = findThinColour(raster, labels, search, palette, minPeaks);
    if (!thin) break;
    const label = addColour(palette, thin);
    search = narrowThinSearch(raster, labels, search, palette, label, reach);
  }
  if (palette.size === 0 && opaquePx > 0) addColour(palette, meanColour(raster, loose));
  const mixed = loose.filter((p) => labels[p] === UNKNOWN);
  yield* labelPixels(work, "mix", mixed, isShared);
  if (noise === 0) {
    yield* labelPixels(work, "line", loose, isShared);
    joinCorners(work, loose);
  }
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
  if (noise > 0) returnStrays(picture);
  const { found, labels: ofFound } = collect(picture);
  return {
    found,
    // What is kept, or goes to the page, is memory of the usual kind.
    labels: isShared ? { ...ofFound, data: ofFound.data.slice() } : ofFound,
    opaquePx,
    noise,
    raster: clean ?? (isShared ? { ...raster, data: raster.data.slice() } : raster),
  };
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
