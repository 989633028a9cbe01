// The shape that an edit means: by its place, and by its spot as long as there is one.
import { type Bounds, boundsOf, flattenPath, isInLine, lengthAlong, nearestOnPath } from "../geometry/index.ts";
import { faceAt, faceBeyond, outerRing, type PlanarMap, spotOf } from "../trace/index.ts";
import type { ShapePick } from "./edits.ts";

/** How far from its place a shape is looked for, px: more than any tolerance moves a boundary. */
const REACH_PX = 3;

/** The face meant; -1 where there is none. A spot that is gone from the map was merged: then the place alone tells. */
export function findFace(map: PlanarMap, { at, spotId }: ShapePick): number {
  const there = faceAt(map, at);
  if (there >= 0 && (map.faces[there].spotId === spotId || !hasSpot(map, spotId))) return there;
  let best = -1;
  let least = REACH_PX;
  map.faces.forEach((face, f) => {
    if (face.spotId !== spotId) return;
    for (const path of face.paths) {
      const nearest = nearestOnPath(path, at.x, at.y, least);
      if (nearest && nearest.distance < least) [best, least] = [f, nearest.distance];
    }
  });
  return best;
}

export function hasSpot(map: PlanarMap, spotId: string): boolean {
  return map.faces.some((face) => face.spotId === spotId);
}

/** Faces with all that they enclose. */
export function withEnclosed(map: PlanarMap, faces: readonly number[]): Set<number> {
  const all = new Set(faces);
  const boxes = map.faces.map((face) => boundsOf(face.paths[outerRing(face)]));
  for (const face of faces) {
    const { rings, paths } = map.faces[face];
    const outer = outerRing(map.faces[face]);
    rings.forEach((ring, r) => {
      if (r === outer) return;
      const box = boundsOf(paths[r]);
      const beside = new Set([...ring].map((half) => faceBeyond(map, half)));
      const line = flattenPath(paths[r], 0.05);
      boxes.forEach((own, f) => {
        const [x, y] = map.faces[f].paths[0];
        if (f !== face && isWithin(own, box) && (beside.has(f) || isInLine(line, x, y))) all.add(f);
      });
    });
  }
  return all;
}

function isWithin(inner: Bounds, outer: Bounds): boolean {
  return (
    inner.left >= outer.left && inner.right <= outer.right && inner.top >= outer.top && inner.bottom <= outer.bottom
  );
}

/** The spot with which faces share most of their outer boundary; null where that is the garment. */
export function spotAround(map: PlanarMap, faces: ReadonlySet<number>): string | null {
  const shared = new Map<string | null, number>();
  for (const { left, right, path } of map.edges) {
    if (faces.has(left) === faces.has(right)) continue;
    const other = faces.has(left) ? right : left;
    const spotId = spotOf(map, other);
    shared.set(spotId, (shared.get(spotId) ?? 0) + lengthAlong(path.filter((_, i) => i % 6 < 2)));
  }
  return [...shared].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}
