// Outlines of faces taken together: along their rings, stepping over the boundaries between them.
import { type CubicPath, joinPaths } from "../../geometry/index.ts";
import { halfEdgePath, type PlanarMap } from "./planar-map.ts";

/** Closed paths around all that is of one spot; cuts within it part shapes, but no colour. */
export function spotPaths(map: PlanarMap, spotId: string): CubicPath[] {
  const isOwn = (face: number) => face >= 0 && map.faces[face].spotId === spotId;
  if (map.edges.some(({ isCut, left, right }) => isCut && isOwn(left) && isOwn(right))) return outlinePaths(map, isOwn);
  return map.faces.flatMap((face) => (face.spotId === spotId ? face.paths : []));
}

/** The face on the other side of a half-edge. */
export function faceBeyond({ edges }: Pick<PlanarMap, "edges">, half: number): number {
  const { left, right } = edges[half >> 1];
  return (half & 1) === 0 ? right : left;
}

/**
 * Closed paths around faces as one region, without the boundaries between them; they turn as those of faces do. Regions that
 * touch at a junction only have paths of their own.
 */
export function outlinePaths(map: PlanarMap, isInside: (face: number) => boolean): CubicPath[] {
  const outline = map.faces.flatMap(({ rings }, face) =>
    isInside(face) ? rings.flatMap((ring) => [...ring].filter((half) => !isInside(faceBeyond(map, half)))) : [],
  );
  return joinOutline(map, nextHalfEdges(map), outline, isInside);
}

/** The closed paths that half-edges make which have `isInside` faces on their own side only. */
export function joinOutline(
  map: PlanarMap,
  next: Int32Array,
  outline: readonly number[],
  isInside: (face: number) => boolean,
): CubicPath[] {
  return joinRings(map, outline, (half) => {
    let following = next[half];
    // A boundary that is covered is stepped over: round its end, on the other side.
    while (isInside(faceBeyond(map, following))) following = next[following ^ 1];
    return following;
  });
}

/** The half-edge that follows each one on its face's ring. */
export function nextHalfEdges(map: PlanarMap): Int32Array {
  const next = new Int32Array(map.edges.length * 2).fill(-1);
  for (const face of map.faces)
    for (const ring of face.rings) for (let i = 0; i < ring.length; i++) next[ring[i]] = ring[(i + 1) % ring.length];
  return next;
}

/** Closed paths along half-edges, each used once. */
function joinRings(map: PlanarMap, halves: readonly number[], follow: (half: number) => number): CubicPath[] {
  const seen = new Set<number>();
  const rings: CubicPath[] = [];
  for (const first of halves) {
    if (seen.has(first)) continue;
    const parts: CubicPath[] = [];
    let half = first;
    do {
      seen.add(half);
      parts.push(halfEdgePath(map, half));
      half = follow(half);
    } while (half !== first);
    rings.push(joinPaths(parts));
  }
  return rings;
}
