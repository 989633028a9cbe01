// Boundaries where curves would cross: there they run through the middles of their cracks. That is rough, but no two
// boundaries that run so can cross, whatever the picture.
import { type CubicPath, joinPaths, lengthOf, polygonPath } from "../../geometry/index.ts";
import { type Chain, placesOfEnds, type ReadyLine, scatterTolerance, sharpenCorners } from "../read/index.ts";
import { fitBetween, SHORT_PX } from "./fit-line.ts";

/** Fewer cracks between two rough places are rough, too. */
const LEAST_SMOOTH = 6;

/** Rough paths kept of each boundary: one for each reach that is tried. */
const KEPT_PATHS = 12;

/**
 * A boundary with all cracks within `reachPx` of `places` (x, y pairs), and those by its ends, rough; what lies between is
 * fitted closely to the points of its line. `cornerCosine`: that of the smallest turn that is a corner.
 */
export function roughPath(
  chain: Chain,
  { points, made }: ReadyLine,
  vertices: Float64Array,
  places: readonly number[],
  reachPx: number,
  cornerCosine: number,
): CubicPath {
  const key = `${cornerCosine} ${reachPx} ${placesOfEnds(chain, vertices)} ${places.join(" ")}`;
  const last = made.rough.get(key);
  if (last) return last.slice();
  const path = makeRough(chain, points, vertices, places, reachPx, cornerCosine);
  if (made.rough.size >= KEPT_PATHS) made.rough.clear();
  made.rough.set(key, path);
  return path.slice();
}

function makeRough(
  chain: Chain,
  read: Float64Array,
  vertices: Float64Array,
  places: readonly number[],
  reachPx: number,
  cornerCosine: number,
): CubicPath {
  const points = middlesOf(chain, vertices, places);
  const along = chain.start >= 0 ? read : fromNearest(read, points);
  const count = points.length / 2;
  const tolerance = Math.max(SHORT_PX, scatterTolerance(read));
  const isRough = (k: number): boolean => {
    if (k <= 1 || k >= count - 2) return true;
    for (let i = 0; i < places.length; i += 2)
      if (lengthOf(points[k * 2] - places[i], points[k * 2 + 1] - places[i + 1]) < reachPx) return true;
    return false;
  };
  const parts: CubicPath[] = [];
  let at = 0;
  let from = 0;
  while (at < count - 1) {
    let next = at + 1;
    while (next < count - 1 && !isRough(next)) next++;
    if (next - at >= LEAST_SMOOTH) {
      const between = readBetween(along, from, points, at, next);
      parts.push(fitClosely(between.points, tolerance, cornerCosine));
      from = between.end;
    } else parts.push(openPath(points.slice(at * 2, next * 2 + 2)));
    at = next;
  }
  return joinPaths(parts);
}

/** Middles of a chain's cracks with its vertices; a loop starts, and ends, near the first of the places. */
function middlesOf({ corners, start, end }: Chain, vertices: Float64Array, places: readonly number[]): number[] {
  const points: number[] = [];
  if (start >= 0) points.push(vertices[start * 2], vertices[start * 2 + 1]);
  for (let i = 0; i + 3 < corners.length; i += 2)
    points.push((corners[i] + corners[i + 2]) / 2, (corners[i + 1] + corners[i + 3]) / 2);
  if (start >= 0) {
    points.push(vertices[end * 2], vertices[end * 2 + 1]);
    return points;
  }
  const turned = places.length > 0 ? fromNearest(points, places) : points;
  return [...turned, turned[0], turned[1]];
}

/** The points of a loop, beginning with the one nearest to the first of `places`. */
function fromNearest(points: ArrayLike<number>, places: ArrayLike<number>): Float64Array {
  let best = 0;
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < points.length; i += 2) {
    const distance = lengthOf(points[i] - places[0], points[i + 1] - places[1]);
    if (distance < least) {
      least = distance;
      best = i;
    }
  }
  return Float64Array.from({ length: points.length }, (_, i) => points[(best + i) % points.length]);
}

/** Straight lines through points. */
function openPath(points: readonly number[]): CubicPath {
  // Without the side that would close it.
  return polygonPath(points).slice(0, -6);
}

/** The points read between two points of the rough line, those two at the ends; `from`: where to look on. */
function readBetween(
  read: Float64Array,
  from: number,
  points: readonly number[],
  a: number,
  b: number,
): { points: Float64Array; end: number } {
  const nearest = (k: number, first: number) => {
    let best = first;
    let least = Number.POSITIVE_INFINITY;
    for (let i = first; i < read.length; i += 2) {
      const distance = lengthOf(read[i] - points[k * 2], read[i + 1] - points[k * 2 + 1]);
      if (distance < least) {
        least = distance;
        best = i;
      }
    }
    return best;
  };
  const first = nearest(a, from);
  const last = nearest(b, first);
  return {
    points: Float64Array.from([
      points[a * 2],
      points[a * 2 + 1],
      ...read.subarray(first + 2, Math.max(first + 2, last)),
      points[b * 2],
      points[b * 2 + 1],
    ]),
    end: last,
  };
}

function fitClosely(points: Float64Array, tolerance: number, cornerCosine: number): CubicPath {
  const { points: line, corners } = sharpenCorners(points, false, cornerCosine);
  const last = line.length / 2 - 1;
  return fitBetween(line, [0, ...corners.filter((c) => c > 0 && c < last), last], tolerance);
}
