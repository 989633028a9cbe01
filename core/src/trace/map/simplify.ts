// Simplifying: fewer nodes within a tolerance of the curves as they are. What has a measure is kept to the last digit: full
// circles and ellipses, straight lengths, sharp corners, and where boundaries meet.
import {
  asCircle,
  type CubicPath,
  cosineBetween,
  flattenPath,
  isClosed,
  isLine,
  lengthOf,
  pathArea,
  pointOn,
  segmentCount,
} from "../../geometry/index.ts";
import type { Point } from "../../raster/index.ts";
import { fitStretch, type Tangent, untangle } from "../fit/index.ts";
import { distanceBetween } from "../read/index.ts";
import { faceAt, type MapEdge, type MapFace, type PlanarMap, ringPath } from "./planar-map.ts";

/** What is to be simplified, and how far a boundary may move, source pixels. */
export interface Simplification {
  readonly tolerancePx: number;
  readonly scope:
    | { readonly kind: "all" }
    | { readonly kind: "spot"; readonly spotId: string }
    | { readonly kind: "shape"; readonly at: Point };
}

/** A straight part of at least this length, and this many tolerances, is a measure of the drawing, px. */
const LEAST_LENGTH_PX = 6;
const LEAST_LENGTHS = 4;
/** A turn whose tip stands out by less than this share of the tolerance is a lump, not a corner. */
const LUMP_SHARE = 0.8;
/** How far on either side of it, in tolerances, that is seen. */
const LUMP_REACH = 2.5;
/** Turns under 28 degrees join smoothly; so do joints that were fitted with a common direction. */
const SMOOTH_COSINE = 0.883;
const TANGENT_COSINE = 0.9998;
/** Points of the old curve per pixel that the new one is fitted to, and measured at. */
const SAMPLE_PX = 0.5;
/** Share of what a ring encloses that has to be left of it. */
const LEAST_LEFT = 0.2;
/** How often boundaries that cross are put back: each time a neighbour may cross what was put back. */
const TIMES = 20;
/** Share of the tolerance that fitting may use: between the sampled points a curve strays a little farther. */
const FIT_SHARE = 0.85;

/**
 * The map with its boundaries simplified; each moves by at most the largest tolerance that was asked for it. Boundaries that
 * would cross stay as they were.
 */
export function simplifyMap<M extends PlanarMap>(map: M, simplifications: readonly Simplification[]): M {
  if (simplifications.length === 0) return map;
  const tolerance = tolerances(map, simplifications);
  const edges = map.edges.map((edge, e) =>
    tolerance[e] > 0 && !edge.isHeld ? { ...edge, path: simplifyPath(edge.path, tolerance[e]) } : edge,
  );
  const putBack = (numbers: Iterable<number>): number[] => {
    const back = [...numbers].filter((e) => edges[e].path !== map.edges[e].path);
    for (const e of back) edges[e] = map.edges[e];
    return back;
  };
  do untangle(edges, TIMES, (crossing) => putBack(crossing.keys()));
  while (putBack(edgesOfTurnedRings(map, edges)).length > 0);
  const faces = map.faces.map((face): MapFace => {
    const isSame = face.rings.every((ring) => ring.every((half) => edges[half >> 1] === map.edges[half >> 1]));
    return isSame ? face : { ...face, paths: face.rings.map((ring) => ringPath({ edges }, ring)) };
  });
  return { ...map, edges, faces };
}

/** Edges of rings that were flattened to nothing or turned inside out: a face or a hole would be lost. */
function edgesOfTurnedRings(map: PlanarMap, edges: readonly MapEdge[]): Set<number> {
  const turned = new Set<number>();
  for (const { rings } of map.faces)
    for (const ring of rings) {
      if (ring.every((half) => edges[half >> 1].path === map.edges[half >> 1].path)) continue;
      const before = pathArea(ringPath(map, ring));
      if (pathArea(ringPath({ edges }, ring)) / before < LEAST_LEFT) for (const half of ring) turned.add(half >> 1);
    }
  return turned;
}

/** The tolerance asked for each edge; 0 for none. */
function tolerances(map: PlanarMap, simplifications: readonly Simplification[]): Float64Array {
  const out = new Float64Array(map.edges.length);
  for (const { tolerancePx, scope } of simplifications) {
    const face = scope.kind === "shape" ? faceAt(map, scope.at) : -1;
    const isMeant = (f: number) =>
      f >= 0 && (scope.kind === "all" || (scope.kind === "spot" ? map.faces[f].spotId === scope.spotId : f === face));
    map.edges.forEach(({ left, right }, e) => {
      if (isMeant(left) || isMeant(right)) out[e] = Math.max(out[e], tolerancePx);
    });
  }
  return out;
}

/** One boundary with as few segments as stay within `tolerance` of it; the path itself where there are no fewer. */
export function simplifyPath(path: CubicPath, tolerance: number): CubicPath {
  const segments = segmentCount(path);
  if (segments < 2 || asCircle(path)) return path;
  const out: number[] = [path[0], path[1]];
  const breaks = findBreaks(path, tolerance);
  for (let k = 1; k < breaks.length; k++) {
    const [from, to] = [breaks[k - 1], breaks[k]];
    const old = path.subarray(from * 6, to * 6 + 2);
    const fewer = to - from > 1 ? refit(path, from, to, tolerance) : null;
    for (const value of (fewer ?? old).subarray(2)) out.push(value);
  }
  const simple = Float64Array.from(out);
  return simple.length === path.length || (isClosed(path) && segmentCount(simple) < 2) ? path : simple;
}

/** Nodes at which the path is not fitted through: its ends, both ends of straight lengths, and corners. */
function findBreaks(path: CubicPath, tolerance: number): number[] {
  const segments = segmentCount(path);
  const least = Math.max(LEAST_LENGTH_PX, LEAST_LENGTHS * tolerance);
  const isMeasure = (s: number) => {
    const o = s * 6;
    return isLine(path, s) && lengthOf(path[o + 6] - path[o], path[o + 7] - path[o + 1]) >= least;
  };
  const breaks = [0];
  for (let k = 1; k < segments; k++)
    if (isMeasure(k - 1) || isMeasure(k) || isCorner(path, k, tolerance)) breaks.push(k);
  breaks.push(segments);
  return breaks;
}

function isCorner(path: CubicPath, k: number, tolerance: number): boolean {
  const [ax, ay] = directionInto(path, k);
  const [bx, by] = directionFrom(path, k);
  if (cosineBetween(ax, ay, bx, by) > SMOOTH_COSINE) return false;
  const [px, py] = placeAlong(path, k, -LUMP_REACH * tolerance);
  const [qx, qy] = placeAlong(path, k, LUMP_REACH * tolerance);
  const [dx, dy] = [qx - px, qy - py];
  const [ux, uy] = [path[k * 6] - px, path[k * 6 + 1] - py];
  const length = lengthOf(dx, dy);
  const height = length === 0 ? lengthOf(ux, uy) : Math.abs(ux * dy - uy * dx) / length;
  return height > LUMP_SHARE * tolerance;
}

/** The place that lies `way` px along the path from node `k`, forwards or backwards, or the end of the path. */
function placeAlong(path: CubicPath, k: number, way: number): readonly [number, number] {
  const segments = segmentCount(path);
  const sign = Math.sign(way);
  let left = Math.abs(way);
  let [x, y] = [path[k * 6], path[k * 6 + 1]];
  for (let s = sign > 0 ? k : k - 1; s >= 0 && s < segments; s += sign)
    for (let step = 1; step <= 8; step++) {
      const [nx, ny] = pointOn(path, s, sign > 0 ? step / 8 : 1 - step / 8);
      left -= lengthOf(nx - x, ny - y);
      [x, y] = [nx, ny];
      if (left <= 0) return [x, y];
    }
  return [x, y];
}

/** Direction of travel where segment k - 1 ends; from farther handles where the nearest has no length. */
function directionInto(path: CubicPath, k: number): readonly [number, number] {
  const o = k * 6;
  for (const back of [2, 4, 6]) {
    const [dx, dy] = [path[o] - path[o - back], path[o + 1] - path[o - back + 1]];
    if (dx !== 0 || dy !== 0) return [dx, dy];
  }
  return [0, 0];
}

/** Direction of travel where segment k begins. */
function directionFrom(path: CubicPath, k: number): readonly [number, number] {
  const o = k * 6;
  for (const on of [2, 4, 6]) {
    const [dx, dy] = [path[o + on] - path[o], path[o + on + 1] - path[o + 1]];
    if (dx !== 0 || dy !== 0) return [dx, dy];
  }
  return [0, 0];
}

/** Segments `from` up to `to` again with fewer, or null. Where the path went on smoothly at either end, it still does. */
function refit(path: CubicPath, from: number, to: number, tolerance: number): CubicPath | null {
  const old = path.subarray(from * 6, to * 6 + 2);
  const points = sample(old);
  const n = points.length / 2;
  const fitted = fitStretch(
    points,
    0,
    n - 1,
    tolerance * FIT_SHARE,
    jointTangent(path, from, 1),
    jointTangent(path, to, -1),
  );
  if (fitted.length >= old.length - 2) return null;
  const out = Float64Array.from([old[0], old[1], ...fitted]);
  return isWithin(old, out, tolerance) ? out : null;
}

/** The direction into the run at one of its ends, if the path is smooth there. */
function jointTangent(path: CubicPath, k: number, sign: 1 | -1): Tangent {
  const segments = segmentCount(path);
  const isSeam = k === 0 || k === segments;
  if (isSeam && !isClosed(path)) return null;
  const into = directionInto(path, k === 0 ? segments : k);
  const onwards = directionFrom(path, k === segments ? 0 : k);
  if (cosineBetween(into[0], into[1], onwards[0], onwards[1]) < TANGENT_COSINE) return null;
  const [dx, dy] = sign > 0 ? onwards : into;
  const length = lengthOf(dx, dy) * sign;
  return [dx / length, dy / length];
}

/** Points along a path, about SAMPLE_PX apart, ends and nodes included. */
function sample(path: CubicPath): Float64Array {
  const out: number[] = [path[0], path[1]];
  for (let s = 0; s < segmentCount(path); s++) {
    const o = s * 6;
    const length =
      lengthOf(path[o + 2] - path[o], path[o + 3] - path[o + 1]) +
      lengthOf(path[o + 4] - path[o + 2], path[o + 5] - path[o + 3]) +
      lengthOf(path[o + 6] - path[o + 4], path[o + 7] - path[o + 5]);
    const steps = Math.max(2, Math.ceil(length / SAMPLE_PX));
    for (let k = 1; k < steps; k++) out.push(...pointOn(path, s, k / steps));
    out.push(path[o + 6], path[o + 7]);
  }
  return Float64Array.from(out);
}

/** Whether neither line strays farther than `tolerance` from the other. */
function isWithin(a: CubicPath, b: CubicPath, tolerance: number): boolean {
  const [pa, pb] = [flattenPath(a, tolerance / 50), flattenPath(b, tolerance / 50)];
  return distanceBetween(pa, pb) <= tolerance && distanceBetween(pb, pa) <= tolerance;
}
