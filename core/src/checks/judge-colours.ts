// Colours that will not come out as meant: two inks nearly the same, and shading that flat spots do not carry.
import { ciede2000, rgbToLab } from "../colour/index.ts";
import { NONE } from "../raster/index.ts";
import type { Assignment, Findings, Reduction, Spot } from "../reduce/index.ts";

/** Two inks that a person hardly tells apart. */
export interface NearPair {
  readonly a: string;
  readonly b: string;
  readonly difference: number;
}

/** Inks nearer to each other than this are asked about: CIEDE2000 (common practice, no source). */
const NEARLY_SAME = 5;

/** Pairs of inks nearly the same as they will be printed, nearest first. */
export function findNearInks(spots: readonly Spot[]): NearPair[] {
  const inks = spots.filter(({ role }) => role === "ink").map(({ id, rgb }) => ({ id, lab: rgbToLab(rgb) }));
  const pairs = inks.flatMap((a, i) =>
    inks.slice(i + 1).map((b): NearPair => ({ a: a.id, b: b.id, difference: ciede2000(a.lab, b.lab) })),
  );
  return pairs.filter(({ difference }) => difference < NEARLY_SAME).sort((a, b) => a.difference - b.difference);
}

/**
 * A pixel this far (encoded RGB) from its spot, and farther in a noisy picture, with neighbours at most STEP from it, lies in
 * a shade, not on an edge.
 */
const OFF = 8;
const OFF_PER_NOISE = 4;
const STEP = 10;

/** Share (0..1) of the art that shades away from its flat spots; what was recoloured or poured by hand is as it was wanted. Linear in pixels. */
export function measureShading(
  { raster, labels, opaquePx, noise }: Findings,
  { spots, spotOfFound }: Reduction,
  { spotOfPixel: { width, height, data } }: Assignment,
): number {
  const pixels = raster.data;
  const words = new Uint32Array(pixels.buffer, pixels.byteOffset, data.length);
  // Clean art is for the most part exactly its spots: those pixels are passed over at once.
  const pure = new Uint32Array(256);
  spots.forEach(({ pictureRgb: [r, g, b] }, i) => {
    pure[i] = 0xff000000 | (b << 16) | (g << 8) | r;
  });
  const least2 = (OFF + noise * OFF_PER_NOISE) ** 2;
  let off = 0;
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const p = y * width + x;
      const spot = data[p];
      // Within one spot, so that an edge is not taken for a shade.
      if (spot === NONE || words[p] === pure[spot] || data[p - 1] !== spot || data[p + 1] !== spot) continue;
      if (data[p - width] !== spot || data[p + width] !== spot || spotOfFound[labels.data[p]] !== spot) continue;
      const [r, g, b] = spots[spot].pictureRgb;
      const i = p * 4;
      const d2 = (pixels[i] - r) ** 2 + (pixels[i + 1] - g) ** 2 + (pixels[i + 2] - b) ** 2;
      if (d2 < least2) continue;
      if (isSmooth(pixels, i, 4) && isSmooth(pixels, i, -4) && isSmooth(pixels, i, width * 4)) off++;
    }
  return opaquePx === 0 ? 0 : off / opaquePx;
}

function isSmooth(pixels: Uint8ClampedArray, i: number, to: number): boolean {
  const step = Math.max(
    Math.abs(pixels[i] - pixels[i + to]),
    Math.abs(pixels[i + 1] - pixels[i + to + 1]),
    Math.abs(pixels[i + 2] - pixels[i + to + 2]),
  );
  return step <= STEP;
}
