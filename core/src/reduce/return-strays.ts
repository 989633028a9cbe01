// Compression mixes what lies side by side, the more so in small lettering: pixels come out near a colour that is not there
// at all, in spots of a few. Such a spot goes back to the colours around it, if they explain it. Our own method.
import type { Picture } from "./accidents.ts";
import { UNKNOWN } from "./flat.ts";
import { bleedDistance, isMixOfThree, mixDistance2, mixShare } from "./mixes.ts";
import { gatherNearby, makeNearby } from "./nearby.ts";
import { distance2, isInReach, MAX_FOUND } from "./palette.ts";

/** A spot has fewer pixels than a block (8 x 8, ITU-T T.81). */
const BLOCK_PX = 64;
/** Share of a spot's pixels that may plainly be of its colour, as happens on the way from one colour to another. */
const PLAIN_SHARE = 0.5;
/** Share of a spot's pixels that have to be explained. */
const EXPLAINED_SHARE = 0.8;
/** How far around a pixel colours are looked for: a line of two pixels, and chroma kept for two more (ITU-T T.871). */
const NEAR_PX = 6;
/** Where renderers lay edge upon edge a third colour shines through: so much of it at most, and how far such a mix may be. */
const SEAM_THIRD = 0.6;
const SEAM_REACH = 10;

/** What a pixel is while spots are looked for. */
const FLAT = 0;
const OPEN = 1;
const SEEN = 2;

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
    const explained = given[s].filter((one) => one !== UNKNOWN).length;
    const isStray = explained >= pixels.length * EXPLAINED_SHARE;
    for (const [k, p] of pixels.entries()) labels[p] = isStray && given[s][k] !== UNKNOWN ? given[s][k] : label;
  }
}

/** What hangs together of loose pixels, touches no flat of its label, is small and hardly anywhere plainly of its colour. */
function findSpots({ raster, labelling, palette, reach }: Picture): Spot[] {
  const { labels, loose } = labelling;
  const { width, data } = raster;
  const state = new Uint8Array(labels.length);
  for (let k = 0; k < loose.length; k++) state[loose[k]] = OPEN;
  const around = [-1, 1, -width, width, -width - 1, -width + 1, width - 1, width + 1];
  const stack = new Int32Array(loose.length);
  const spots: Spot[] = [];
  for (const start of loose) {
    if (state[start] !== OPEN) continue;
    const label = labels[start];
    let count = 1;
    let plain = 0;
    let isOfFlat = false;
    stack[0] = start;
    state[start] = SEEN;
    for (let k = 0; k < count; k++) {
      const p = stack[k];
      if (distance2(palette, label, data[p * 4], data[p * 4 + 1], data[p * 4 + 2]) <= reach.pure * reach.pure) plain++;
      for (const step of around) {
        const q = p + step;
        // A step over the picture's side leads to a pixel far away: rare, and then only a larger spot.
        if (q < 0 || q >= labels.length || labels[q] !== label) continue;
        if (state[q] === FLAT) isOfFlat = true;
        if (state[q] !== OPEN) continue;
        state[q] = SEEN;
        stack[count++] = q;
      }
    }
    if (!isOfFlat && count < BLOCK_PX && plain <= count * PLAIN_SHARE)
      spots.push({ label, pixels: [...stack.subarray(0, count)] });
  }
  return spots;
}

/** Says which colour near a pixel, not of a spot, has most of it; UNKNOWN where they do not explain it. */
function makeExplainer({ raster, labelling, palette, reach }: Picture): (p: number, own: number) => number {
  const { width, height, data } = raster;
  const nearby = makeNearby();
  return (p, own) => {
    const [r, g, b] = [data[p * 4], data[p * 4 + 1], data[p * 4 + 2]];
    gatherNearby(nearby, labelling.labels, width, height, p, NEAR_PX);
    let best = UNKNOWN;
    let least = reach.mix;
    for (let k = 0; k < nearby.count; k++)
      for (let m = k; m < nearby.count; m++) {
        const [i, j] = [nearby.list[k], nearby.list[m]];
        const [i2, j2] = [distance2(palette, i, r, g, b), distance2(palette, j, r, g, b)];
        const apart2 = palette.apart2[i * MAX_FOUND + j];
        let away = Math.min(Math.sqrt(mixDistance2(i2, j2, apart2)), bleedDistance(palette, i, j, r, g, b));
        for (let third = 0; third < palette.size && away > SEAM_REACH; third++)
          if (third !== own && isInReach(palette, third) && isMixOfThree(palette, i, j, third, r, g, b, SEAM_THIRD, SEAM_REACH))
            away = SEAM_REACH;
        if (away >= least) continue;
        least = away;
        best = mixShare(i2, j2, apart2) >= 0.5 ? i : j;
      }
    return best;
  };
}
