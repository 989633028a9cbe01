// The planar map: every boundary exists once, with the face on either side, so neighbours can neither gap nor overlap.
import {
  type Bounds,
  boundsOfAll,
  type CubicPath,
  flattenPath,
  isInLine,
  joinPaths,
  pathArea,
  reversePath,
  segmentCount,
} from "../../geometry/index.ts";
import { FINE_ACROSS_PX } from "../read/index.ts";

/** One boundary. `path` runs from vertex `start` to vertex `end`, or is closed with both -1. */
export interface MapEdge {
  readonly start: number;
  readonly end: number;
  /** Face on the left and right of the path (y down, looking along it), or BARE. */
  readonly left: number;
  readonly right: number;
  path: CubicPath;
  /** The points that the path was fitted to, x, y pairs; empty where it is exact, or was drawn by hand. */
  readonly read: Float64Array;
  /** Kept to the last digit by all that simplifies: the picture's own edge, and shapes that have a measure. */
  readonly isHeld: boolean;
  /** Parts two faces though they are of one spot: someone cut there. */
  readonly isCut: boolean;
}

/** One connected region of a spot. Rings list half-edges (2 * edge, + 1 if travelled backwards) with the face on their left. */
export interface MapFace {
  readonly spotId: string;
  readonly areaPx: number;
  readonly rings: readonly Int32Array[];
  /** The rings as closed paths, outer one and holes, joined once for all who look; even-odd and non-zero fill agree on them. */
  readonly paths: readonly CubicPath[];
}

/** A traced picture, in source pixels. */
export interface PlanarMap {
  readonly width: number;
  readonly height: number;
  /** Junction positions, x, y pairs. */
  readonly vertices: Float64Array;
  readonly edges: readonly MapEdge[];
  readonly faces: readonly MapFace[];
}

/** One closed ring of a face as a path; consecutive edges join exactly because they share their vertices' numbers. */
export function ringPath(map: Pick<PlanarMap, "edges">, ring: Int32Array): CubicPath {
  return joinPaths(Array.from(ring, (half) => halfEdgePath(map, half)));
}

/** The path of a half-edge, in its own direction. */
export function halfEdgePath(map: Pick<PlanarMap, "edges">, half: number): CubicPath {
  const { path } = map.edges[half >> 1];
  return (half & 1) === 0 ? path : reversePath(path);
}

/** The face at a place, source pixels; -1 where there is none. */
export function faceAt(map: PlanarMap, { x, y }: { readonly x: number; readonly y: number }): number {
  return map.faces.findIndex(({ paths }) => {
    const outline = outlineOf(paths);
    const { left, top, right, bottom } = outline.bounds;
    if (x < left || x > right || y < top || y > bottom) return false;
    outline.lines ??= paths.map((path) => flattenPath(path, 0.05));
    return outline.lines.filter((line) => isInLine(line, x, y)).length % 2 === 1;
  });
}

/** Boxes of faces, and flattened outlines of those that were looked into: a face never changes, another takes its place. */
const outlines = new WeakMap<readonly CubicPath[], { readonly bounds: Bounds; lines: number[][] | null }>();

function outlineOf(paths: readonly CubicPath[]) {
  const known = outlines.get(paths) ?? { bounds: boundsOfAll(paths), lines: null };
  outlines.set(paths, known);
  return known;
}

/** The spot of a face; null for the garment, where there is none. */
export function spotOf({ faces }: Pick<PlanarMap, "faces">, face: number): string | null {
  return face < 0 ? null : faces[face].spotId;
}

/** Traced area of a face in square pixels. */
export function faceArea({ paths }: MapFace): number {
  return Math.abs(paths.reduce((sum, path) => sum + pathArea(path), 0));
}

/** Which of a face's rings goes round all the others. */
export function outerRing({ paths }: MapFace): number {
  const areas = paths.map((path) => Math.abs(pathArea(path)));
  return areas.indexOf(Math.max(...areas));
}

/** Counts that tell a person whether a trace is sane: closed shapes, and nodes with each shared boundary counted once. */
export function countShapes(map: PlanarMap): { shapes: number; nodes: number } {
  let nodes = map.vertices.length / 2;
  // A boundary of n segments between two vertices has n - 1 nodes of its own; a closed one has n.
  for (const edge of map.edges) nodes += segmentCount(edge.path) - (edge.start >= 0 ? 1 : 0);
  return { shapes: map.faces.length, nodes };
}

/** Number of shapes of at most FINE_ACROSS_PX: small lettering and other fine detail. */
export function countFineShapes(map: PlanarMap): number {
  return map.faces.filter((face) => {
    let [left, top, right, bottom] = [map.width, map.height, 0, 0];
    for (const path of face.paths)
      for (let i = 0; i < path.length; i += 6) {
        left = Math.min(left, path[i]);
        right = Math.max(right, path[i]);
        top = Math.min(top, path[i + 1]);
        bottom = Math.max(bottom, path[i + 1]);
      }
    return Math.max(right - left, bottom - top) <= FINE_ACROSS_PX;
  }).length;
}

/** Share (0..1) of the art's rectangle that each spot covers as traced, by spot id. */
export function spotCoverage(map: PlanarMap): Map<string, number> {
  const coverage = new Map<string, number>();
  for (const face of map.faces)
    coverage.set(face.spotId, (coverage.get(face.spotId) ?? 0) + faceArea(face) / (map.width * map.height));
  return coverage;
}
