// Which spot an id of the recipe means on this picture: the spot itself, the one that gathers it, or, where a better file has
// shifted its colours a little, the nearest.
import { ciede2000, parseHex, rgbToLab } from "../colour/index.ts";
import type { Spot } from "./reduce.ts";

/** A colour that another file or compression has moved by up to this much, CIEDE2000, is still the same (our own). */
const SHIFTED = 6;
/** Ids of found colours begin with their hex digits. */
const HEX_ID = /^[0-9a-f]{6}b*$/;

/** Index of the spot that `id` means; -1 if there is none. */
export function spotOfId(spots: readonly Spot[], id: string): number {
  const exact = spots.findIndex((spot) => spot.id === id || spot.members.includes(id));
  if (exact >= 0 || !HEX_ID.test(id)) return exact;
  const lab = rgbToLab(parseHex(id.slice(0, 6)));
  let best = -1;
  let least = SHIFTED;
  spots.forEach(({ pictureRgb, members }, i) => {
    const difference = members.length > 0 ? ciede2000(lab, rgbToLab(pictureRgb)) : Number.POSITIVE_INFINITY;
    if (difference > least) return;
    least = difference;
    best = i;
  });
  return best;
}
