// Stacked shapes: every colour solid under the colours that are laid on it later. Made from the map's own boundaries, by
// leaving out those that a later colour covers, so that what shows has exactly the curves of the abutting shapes.
import { type CubicPath, joinPaths } from "../../geometry/index.ts";
import { halfEdgePath, type PlanarMap } from "./planar-map.ts";

/**
 * Shapes of every spot, each as closed paths, for colours laid down in the order of `order` (spot ids; faces of others do
 * not exist). A shape is a face, or faces, of its spot with every later face that is reached from it without crossing
 * anything earlier or bare.
 */
export function stackShapes(map: PlanarMap, order: readonly string[]): Map<string, CubicPath[][]> {
  const rank = map.faces.map((face) => order.indexOf(face.spotId));
  const next = nextHalfEdges(map);
  const halfEdgesOf = map.faces.map((face) => face.rings.flatMap((ring) => [...ring]));
  const faceBeyond = (half: number) => ((half & 1) === 0 ? map.edges[half >> 1].right : map.edges[half >> 1].left);
  const shapes = new Map<string, CubicPath[][]>();
  order.forEach((spotId, own) => {
    const group = new Int32Array(map.faces.length).fill(-1);
    const members: number[][] = [];
    rank.forEach((r, first) => {
      if (r !== own || group[first] >= 0) return;
      const id = members.length;
      const faces = [first];
      group[first] = id;
      for (let k = 0; k < faces.length; k++)
        for (const half of halfEdgesOf[faces[k]]) {
          const beyond = faceBeyond(half);
          if (beyond < 0 || rank[beyond] < own || group[beyond] >= 0) continue;
          group[beyond] = id;
          faces.push(beyond);
        }
      members.push(faces);
    });
    const isInside = (face: number, id: number) => face >= 0 && group[face] === id;
    shapes.set(
      spotId,
      members.map((faces, id) => {
        const outline = faces.flatMap((face) => halfEdgesOf[face].filter((half) => !isInside(faceBeyond(half), id)));
        return joinRings(map, outline, (half) => {
          let following = next[half];
          // A boundary that is covered is stepped over: round its end, on the other side.
          while (isInside(faceBeyond(following), id)) following = next[following ^ 1];
          return following;
        });
      }),
    );
  });
  return shapes;
}

/** The half-edge that follows each one on its face's ring. */
function nextHalfEdges(map: PlanarMap): Int32Array {
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
