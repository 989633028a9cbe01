// Flat pixels by their colour, counted in bins, become groups: those are the picture's flat colours.
import { ciede2000, type Lab, type Rgb, rgbToLab } from "../colour/index.ts";
import { MAX_FOUND } from "./palette.ts";

/** Groups, accidental ones included, above which the art shades everywhere and is grouped coarser. */
const MOST_GROUPS = 400;

/** Counted bins of colour, to be grouped. `weight` is in pixels; channel sums are weighted. */
export interface ColourBin {
  readonly key: number;
  readonly weight: number;
  readonly rgb: Rgb;
}

/** A group of bins: its mean colour, its weight and the keys of its bins. */
export interface ColourGroup {
  readonly rgb: Rgb;
  readonly weight: number;
  readonly keys: readonly number[];
}

/**
 * Groups bins, heaviest first: a bin joins the first group whose seed is within `reach` (CIEDE2000), else seeds its own.
 * Null as soon as there are more than `most` groups: art that shades everywhere would make every bin a group.
 */
export function groupBins(bins: readonly ColourBin[], reach: number, most: number): ColourGroup[] | null {
  const sorted = [...bins].sort((a, b) => b.weight - a.weight || a.key - b.key);
  const groups: { lab: Lab; sum: [number, number, number]; weight: number; keys: number[] }[] = [];
  for (const { key, weight, rgb } of sorted) {
    const lab = rgbToLab(rgb);
    let home = groups.find(
      (group) => Math.abs(group.lab[0] - lab[0]) < reach * 2.5 && ciede2000(group.lab, lab) < reach,
    );
    if (!home) {
      if (groups.length === most) return null;
      home = { lab, sum: [0, 0, 0], weight: 0, keys: [] };
      groups.push(home);
    }
    home.weight += weight;
    home.keys.push(key);
    for (let c = 0; c < 3; c++) home.sum[c] += rgb[c] * weight;
  }
  return groups.map(({ sum, weight, keys }) => ({
    rgb: [sum[0] / weight, sum[1] / weight, sum[2] / weight],
    weight,
    keys,
  }));
}

/** Groups of flat pixels that are colours; coarser and coarser until they fit beside room for `mostThin` others. */
export function groupFlat(
  bins: readonly ColourBin[],
  sameColour: number,
  minArea: number,
  mostThin: number,
): ColourGroup[] {
  // Flat pixels are the inside of an area: a quarter of the area's minimum is enough of them.
  const enough = Math.max(2, minArea / 4);
  for (let reach = sameColour; ; reach *= 1.3) {
    const groups = groupBins(bins, reach, MOST_GROUPS)?.filter((group) => group.weight >= enough);
    if (groups && groups.length <= MAX_FOUND - mostThin) return groups;
  }
}
