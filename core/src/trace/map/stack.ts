// Stacked shapes: every colour solid under the colours that are laid on it later. Made from the map's own boundaries, by
// leaving out those that a later colour covers, so that what shows has exactly the curves of the abutting shapes.
import type { CubicPath } from "../../geometry/index.ts";
import { faceBeyond, joinOutline, nextHalfEdges } from "./outline.ts";
import type { PlanarMap } from "./planar-map.ts";

/**
 * Shapes of every spot, each as closed paths, for colours laid down in the order of `order` (spot ids; faces of others do
 * not exist). A shape is a face, or faces, of its spot with every later face that is reached from it without crossing
 * anything earlier or bare.
 */
export function stackShapes(map: PlanarMap, order: readonly string[]): Map<string, CubicPath[][]> {
  const rank = map.faces.map((face) => order.indexOf(face.spotId));
  const next = nextHalfEdges(map);
  const halfEdgesOf = map.faces.map((face) => face.rings.flatMap((ring) => [...ring]));
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
          const beyond = faceBeyond(map, half);
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
        const isOurs = (face: number) => isInside(face, id);
        const outline = faces.flatMap((face) => halfEdgesOf[face].filter((half) => !isOurs(faceBeyond(map, half))));
        return joinOutline(map, next, outline, isOurs);
      }),
    );
  });
  return shapes;
}
