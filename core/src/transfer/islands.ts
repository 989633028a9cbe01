// Islands too small to be picked up go to the film beside them.
import { type Bounds, boundsOf } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";
import { faceBeyond, outerRing, type PlanarMap } from "../trace/index.ts";

/** What became of islands: the place of each face's layer in the press order, and where those are that changed it. */
export interface GivenIslands {
  readonly rank: readonly number[];
  readonly places: readonly Point[];
}

/**
 * Gives faces smaller across than `leastPx` both ways to the film with which they share the longest boundary; those in open
 * garment stay. `lengthsPx` are of the map's edges.
 */
export function giveIslands(
  map: PlanarMap,
  rank: readonly number[],
  lengthsPx: ArrayLike<number>,
  leastPx: number,
): GivenIslands {
  const given = [...rank];
  const places: Point[] = [];
  const isSmall = ({ left, top, right, bottom }: Bounds) => Math.max(right - left, bottom - top) < leastPx;
  map.faces.forEach((face, f) => {
    const bounds = boundsOf(face.paths[outerRing(face)]);
    if (rank[f] < 0 || !isSmall(bounds)) return;
    const shared = new Map<number, number>();
    for (const ring of face.rings)
      for (const half of ring) {
        const beyond = faceBeyond(map, half);
        const own = beyond < 0 ? -1 : rank[beyond];
        if (own >= 0) shared.set(own, (shared.get(own) ?? 0) + lengthsPx[half >> 1]);
      }
    const [nearest] = [...shared].sort(([, a], [, b]) => b - a);
    // One that touches its own layer is part of a larger piece.
    if (!nearest || shared.has(rank[f])) return;
    given[f] = nearest[0];
    places.push({ x: (bounds.left + bounds.right) / 2, y: (bounds.top + bounds.bottom) / 2 });
  });
  return { rank: given, places };
}
