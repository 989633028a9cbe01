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

/** Gives spots of a colour that the colours around them explain to those. For noisy pictures. Linear in loose pixels. */
export function returnStrays(picture: Picture): void {
  const { labels } = picture.labelling;
  const shades = shadesOf(picture.palette);
  if (shades.some((ofOne) => ofOne.length > 1))
    for (const letter of findSmall(picture, LETTER_PX, (a, b) => shades[a].includes(b)))
      joinShades(picture, letter, shades[labels[letter[0]]]);
  const spots = findSmall(picture, MOST_PX, (a, b) => a === b).filter((spot) => isHardlyPlain(picture, spot));
  const own = spots.map(([p]) => labels[p]);
  // No spot explains another.
  for (const spot of spots) for (const p of spot) labels[p] = UNKNOWN;
  const explain = makeExplainer(picture);
  const given = spots.map((spot, s) => spot.map((p) => explain(p, own[s])));
  for (const [s, spot] of spots.entries()) {
    const explained = given[s].filter(({ away }) => away < picture.reach.mix).length;
    const isStray = explained >= spot.length * EXPLAINED_SHARE;
    for (const [k, p] of spot.entries()) labels[p] = isStray ? given[s][k].label : own[s];
  }
  loosenChanged(picture.labelling, LETTER_PX);
}

/** For every colour of a palette, those that are shades of it, itself among them. */
function shadesOf(palette: Palette): number[][] {
  const all = Array.from({ length: palette.size }, (_, i) => i);
  const inReach = all.filter((i) => isInReach(palette, i));
  return all.map((i) => inReach.filter((j) => palette.apart2[i * MAX_FOUND + j] <= SHADE * SHADE));
}

/** The pixels, each time, of what hangs together of like labels, has at most so many, and one that is not flat. */
function findSmall(
  { raster, labelling }: Picture,
  most: number,
  isLike: (a: number, b: number) => boolean,
): number[][] {
  const { labels, loose, spans, spanLabels } = labelling;
  const { width } = raster;
  const state = new Uint8Array(labels.length);
  for (let s = 0; s < spanLabels.length; s++) {
    const [from, to] = [spans.starts[s], spans.ends[s]];
    if (to - from > most && labels[from] === spanLabels[s]) state.fill(LARGE, from, to);
  }
  const around = [-1, 1, -width, width, -width - 1, -width + 1, width - 1, width + 1];
  const small: number[][] = [];
  const pixels = new Int32Array(most + around.length);
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
        // A step over the picture's side leads to a pixel far away: rare, and then only more hangs together.
        if (q < 0 || q >= labels.length || state[q] === SEEN || !isLike(label, labels[q])) continue;
        if (state[q] === LARGE) isLarge = true;
        else {
          state[q] = SEEN;
          pixels[count++] = q;
        }
      }
      if (count > most) isLarge = true;
    }
    if (isLarge) for (let k = 0; k < count; k++) state[pixels[k]] = LARGE;
    else small.push([...pixels.subarray(0, count)]);
  }
  return small;
}

/** Whether few of some pixels are plainly of their colours. */
function isHardlyPlain({ raster, labelling, palette, reach }: Picture, pixels: readonly number[]): boolean {
  const { data } = raster;
  let plain = 0;
  for (const p of pixels)
    if (distance2(palette, labelling.labels[p], data[p * 4], data[p * 4 + 1], data[p * 4 + 2]) <= reach.pure ** 2)
      plain++;
  return plain <= pixels.length * PLAIN_SHARE;
}

/**
 * Gives a letter in shades of one colour to the shade that is as light as its middle, unless another is plainly there:
 * lightness is kept at full resolution.
 */
function joinShades(picture: Picture, letter: readonly number[], shades: readonly number[]): void {
  const { raster, labelling, palette } = picture;
  const { labels } = labelling;
  if (shades.length === 1) return;
  const { width, data } = raster;
  const all = new Set(letter);
  const inner = letter.filter((p) => [p - 1, p + 1, p - width, p + width].every((q) => all.has(q)));
  const middle = inner.length > 0 ? inner : letter;
  const light = middle.reduce((sum, p) => sum + luma(data[p * 4], data[p * 4 + 1], data[p * 4 + 2]), 0) / middle.length;
  const away = (i: number) => Math.abs(luma(palette.r[i], palette.g[i], palette.b[i]) - light);
  const main = shades.reduce((best, shade) => (away(shade) < away(best) ? shade : best));
  const others = letter.filter((p) => labels[p] !== main);
  if (isHardlyPlain(picture, others)) for (const p of others) labels[p] = main;
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
