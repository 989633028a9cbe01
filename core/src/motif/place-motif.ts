// Placing a motif: its outlines where its copies go, in layers that are laid into the map.
import { type Bounds, boundsOfAll, type CubicPath, mapPath, reversePath } from "../geometry/index.ts";
import type { Motif } from "./motif.ts";

/** Where the middle of a copy goes and how: x' = a x + b y, y' = c x + d y of millimetres from it. */
export interface MotifPlace {
  readonly x: number;
  readonly y: number;
  readonly matrix: readonly [number, number, number, number];
}

/** Outlines of one spot, or holes to the garment (null). */
export interface MotifLayer {
  readonly spotId: string | null;
  readonly paths: readonly CubicPath[];
}

/**
 * Layers of all copies, those on top last: a later copy lies over an earlier one. `spots` says for each of the motif's spots
 * what it is here. Copies that do not meet share layers, so that their number costs nothing.
 */
export function layMotif(motif: Motif, spots: readonly (string | null)[], places: readonly MotifPlace[]): MotifLayer[] {
  const copies = places.map((place) => copyAt(motif, place));
  const boxes = copies.map((layers) => boundsOfAll(layers.flat()));
  const rounds: number[] = [];
  boxes.forEach((box, k) => {
    const under = boxes.slice(0, k).flatMap((other, i) => (meet(box, other) ? [rounds[i]] : []));
    rounds.push(Math.max(-1, ...under) + 1);
  });
  return Array.from({ length: Math.max(-1, ...rounds) + 1 }, (_, round) =>
    motif.spots.map((_spot, s) => ({
      spotId: spots[s] ?? null,
      paths: copies.flatMap((layers, k) => (rounds[k] === round ? layers[s] : [])),
    })),
  ).flat();
}

/** The outlines of every spot of a copy. */
function copyAt({ spots, widthMm, heightMm }: Motif, { x, y, matrix: [a, b, c, d] }: MotifPlace): CubicPath[][] {
  const isTurnedOver = a * d - b * c < 0;
  const place = (path: readonly number[]) => {
    const placed = mapPath(Float64Array.from(path), (px, py) => {
      const [mx, my] = [px - widthMm / 2, py - heightMm / 2];
      return [x + a * mx + b * my, y + c * mx + d * my];
    });
    return isTurnedOver ? reversePath(placed) : placed;
  };
  return spots.map(({ shapes }) => shapes.flatMap((paths) => paths.map(place)));
}

function meet(one: Bounds, other: Bounds): boolean {
  return one.left <= other.right && one.right >= other.left && one.top <= other.bottom && one.bottom >= other.top;
}
