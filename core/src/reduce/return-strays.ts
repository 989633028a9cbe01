// Compression mixes what lies side by side, the more so in small lettering: pixels come out near a colour that is not there
// at all, in spots of a few. Such a spot goes back to the colours around it, if they explain it. Our own method.
import type { Picture } from "./accidents.ts";
import { UNKNOWN } from "./flat.ts";
import { loosenChanged } from "./labelling.ts";
import { bleedDistance, isMixOfThree, luma, mixDistance2, mixShare } from "./mixes.ts";
import { gatherNearby, makeNearby } from "./nearby.ts";
import { distance2, isInReach, MAX_FOUND, type Palette } from "./palette.ts";

/** Pixels of a spot at most: a block has so many (8 x 8, ITU-T T.81). Small letters have more. */
const MOST_PX = 64;
/** Pixels of a small letter at most: so many lie under a block of chroma, which has half the resolution. */
const LETTER_PX = 256;
/** Up to this distance (encoded RGB) two colours are shades of one, as paper and cream are. */
const SHADE = 40;
/** Share of a spot's pixels that may plainly be of its colour, as happens on the way from one colour to another. */
const PLAIN_SHARE = 0.5;
/** Share of a spot's pixels that have to be explained. */
const EXPLAINED_SHARE = 0.6;
/** How far around a pixel colours are looked for: from the counter of a small letter to what lies outside it. */
const NEAR_PX = 6;
/** Among more colours than so many everything is a mix of some. */
const MOST_NEARBY = 6;
/** Where renderers lay edge upon edge a third colour shines through: so much of it at most, and how far such a mix may be. */
const SEAM_THIRD = 0.6;
const SEAM_REACH = 14;

/** What a pixel is while spots are looked for. */
const OPEN = 0;
const SEEN = 1;
const LARGE = 2;

/** Pixels of one label that hang together. */
interface Spot {
  readonly label: number;
  readonly pixels: number[];
}

/** Gives spots of a colour that the colours around them explain to those. For noisy pictures. Linear in loose pixels. */
export function returnStrays(picture: Picture): void {
  const { labels } = picture.labelling;
  const spots = findSpots(picture);
  // No spot explains another.
  for (const { pixels } of spots) for (const p of pixels) labels[p] = UNKNOWN;
  const explain = makeExplainer(picture);
  const given = spots.map(({ label, pixels }) => pixels.map((p) => explain(p, label)));
  for (const [s, { label, pixels }] of spots.entries()) {
    const explained = given[s].filter(({ away }) => away < picture.reach.mix).length;
    const isStray = explained >= pixels.length * EXPLAINED_SHARE;
    for (const [k, p] of pixels.entries()) labels[p] = isStray ? given[s][k].label : label;
  }
  loosenChanged(picture.labelling, LETTER_PX);
}

/**
 * What hangs together and is small, has a pixel that is not flat and is hardly anywhere plainly of its colour. Shades of one
 * colour hang together, too: a letter in two of them becomes one of most of its pixels.
 */
function findSpots(picture: Picture): Spot[] {
  const { raster, labelling, palette, reach } = picture;
  const { labels, loose } = labelling;
  const { width, data } = raster;
  const state = new Uint8Array(labels.length);
  const around = [-1, 1, -width, width, -width - 1, -width + 1, width - 1, width + 1];
  const spots: Spot[] = [];
  const pixels = new Int32Array(LETTER_PX + around.length);
  const isPlain = (p: number) =>
    distance2(palette, labels[p], data[p * 4], data[p * 4 + 1], data[p * 4 + 2]) <= reach.pure * reach.pure;
  for (const start of loose) {
    if (state[start] !== OPEN) continue;
    const label = labels[start];
    let count = 1;
    let isLarge = false;
    pixels[0] = start;
    state[start] = SEEN;
    for (let k = 0; k < count && !isLarge; k++) {
      for (const step of around) {
        const q = pixels[k] + step;
        // A step over the picture's side leads to a pixel far away: rare, and then only a larger spot.
        if (q < 0 || q >= labels.length || state[q] === SEEN || !isShade(palette, label, labels[q])) continue;
        if (state[q] === LARGE) isLarge = true;
        else {
          state[q] = SEEN;
          pixels[count++] = q;
        }
      }
      if (count > LETTER_PX) isLarge = true;
    }
    if (isLarge) {
      for (let k = 0; k < count; k++) state[pixels[k]] = LARGE;
      continue;
    }
    const all = [...pixels.subarray(0, count)];
    const main = joinShades(picture, all, isPlain);
    if (main !== UNKNOWN && count <= MOST_PX && all.filter(isPlain).length <= count * PLAIN_SHARE)
      spots.push({ label: main, pixels: all });
  }
  return spots;
}

function isShade(palette: Palette, label: number, other: number): boolean {
  if (label === other) return true;
  return label < MAX_FOUND && other < MAX_FOUND && palette.apart2[label * MAX_FOUND + other] <= SHADE * SHADE;
}

/**
 * Gives pixels of shades of one colour to the shade that is as light as their middle: lightness is kept at full resolution.
 * Tells which; UNKNOWN where they stay apart, since another is plainly there.
 */
function joinShades(
  { raster, labelling, palette }: Picture,
  pixels: readonly number[],
  isPlain: (p: number) => boolean,
) {
  const { labels } = labelling;
  const own = labels[pixels[0]];
  const shades = Array.from({ length: palette.size }, (_, i) => i).filter((i) => isShade(palette, own, i));
  if (shades.length === 1) return own;
  const { width, data } = raster;
  const all = new Set(pixels);
  const inner = pixels.filter((p) => [p - 1, p + 1, p - width, p + width].every((q) => all.has(q)));
  const middle = inner.length > 0 ? inner : pixels;
  const light = middle.reduce((sum, p) => sum + luma(data[p * 4], data[p * 4 + 1], data[p * 4 + 2]), 0) / middle.length;
  const away = (i: number) => Math.abs(luma(palette.r[i], palette.g[i], palette.b[i]) - light);
  const main = shades.reduce((best, shade) => (away(shade) < away(best) ? shade : best));
  const others = pixels.filter((p) => labels[p] !== main);
  if (others.filter(isPlain).length > others.length * PLAIN_SHARE) return UNKNOWN;
  for (const p of others) labels[p] = main;
  return main;
}

/** What a pixel is of: mostly of a colour, and how far from the nearest mix of two near it (encoded RGB). */
interface Explanation {
  readonly label: number;
  readonly away: number;
}

/** Explains pixels by colours near them that are not of a spot; what no two explain, by two and a third shining through. */
function makeExplainer({ raster, labelling, palette, reach }: Picture): (p: number, own: number) => Explanation {
  const { width, height, data } = raster;
  const nearby = makeNearby();
  return (p, own) => {
    const [r, g, b] = [data[p * 4], data[p * 4 + 1], data[p * 4 + 2]];
    gatherNearby(nearby, labelling.labels, width, height, p, NEAR_PX);
    let best: Explanation = { label: own, away: Number.POSITIVE_INFINITY };
    if (nearby.count > MOST_NEARBY) return best;
    for (const isSeam of [false, true]) {
      if (best.away < reach.mix) break;
      for (let k = 0; k < nearby.count; k++)
        for (let m = k; m < nearby.count; m++) {
          const [i, j] = [nearby.list[k], nearby.list[m]];
          const [i2, j2] = [distance2(palette, i, r, g, b), distance2(palette, j, r, g, b)];
          const apart2 = palette.apart2[i * MAX_FOUND + j];
          const away = isSeam
            ? awayFromSeam(palette, i, j, own, r, g, b)
            : Math.min(Math.sqrt(mixDistance2(i2, j2, apart2)), bleedDistance(palette, i, j, r, g, b));
          if (away < best.away) best = { label: mixShare(i2, j2, apart2) >= 0.5 ? i : j, away };
        }
    }
    return best;
  };
}

/** SEAM_REACH where one colour, or two, and some of another that is not the pixel's own explain it. */
function awayFromSeam(palette: Palette, i: number, j: number, own: number, r: number, g: number, b: number): number {
  const i2 = distance2(palette, i, r, g, b);
  for (let third = 0; third < palette.size; third++) {
    if (third === own || !isInReach(palette, third)) continue;
    if (i === j) {
      const third2 = distance2(palette, third, r, g, b);
      const apart2 = palette.apart2[i * MAX_FOUND + third];
      if (mixShare(third2, i2, apart2) > SEAM_THIRD) continue;
      if (mixDistance2(i2, third2, apart2) <= SEAM_REACH * SEAM_REACH) return SEAM_REACH;
    } else if (isMixOfThree(palette, i, j, third, r, g, b, SEAM_THIRD, SEAM_REACH)) return SEAM_REACH;
  }
  return Number.POSITIVE_INFINITY;
}
