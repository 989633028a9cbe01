// How far curves are from the boundaries that were read in the picture: largest, on average, and where.
import { flattenPath } from "../../geometry/index.ts";
import { eachDistance } from "../read/index.ts";
import type { PlanarMap } from "./planar-map.ts";

/** Upper limits of the classes that a map of distances shows, px; the last class has none. */
export const DISTANCE_CLASSES_PX = [0.1, 0.25, 0.5] as const;

/** Distances of the curves from the source's boundaries, source pixels. */
export interface Deviation {
  readonly largestPx: number;
  readonly meanPx: number;
  /** Where the largest is; null for a picture without boundaries. */
  readonly worst: { readonly x: number; readonly y: number } | null;
  /** For every class the stretches of boundary that are in it, as polylines of x, y pairs. */
  readonly stretches: readonly (readonly number[])[][];
}

/** Measures all boundaries at the points that were read of them, a pixel apart. Cost follows their length. */
export function measureDeviation(map: PlanarMap): Deviation {
  let largestPx = 0;
  let sum = 0;
  let count = 0;
  let worst: Deviation["worst"] = null;
  const stretches: number[][][] = [...DISTANCE_CLASSES_PX, 0].map(() => []);
  for (const { path, read } of map.edges) {
    let last = -1;
    let stretch: number[] = [];
    eachDistance(read, flattenPath(path, 0.01), (distance, i) => {
      const [x, y] = [read[i * 2], read[i * 2 + 1]];
      sum += distance;
      count++;
      if (distance > largestPx || worst === null) {
        largestPx = distance;
        worst = { x, y };
      }
      const limit = DISTANCE_CLASSES_PX.findIndex((most) => distance <= most);
      const own = limit < 0 ? DISTANCE_CLASSES_PX.length : limit;
      if (own !== last) {
        stretch = i > 0 ? [read[i * 2 - 2], read[i * 2 - 1]] : [];
        stretches[own].push(stretch);
        last = own;
      }
      stretch.push(x, y);
    });
  }
  return { largestPx, meanPx: count === 0 ? 0 : sum / count, worst, stretches };
}
