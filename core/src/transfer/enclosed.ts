// What of later layers lies inside a layer.
import { faceBeyond, outerRing, type PlanarMap } from "../trace/index.ts";

/**
 * Faces of later layers that lie wholly inside those of layer `own`; not what lies beyond open garment in there. `rank` is the
 * place of each face's layer in the press order.
 */
export function enclosedBy(map: PlanarMap, rank: readonly number[], own: number): Set<number> {
  const enclosed = new Set<number>();
  const isSeen = new Uint8Array(map.faces.length);
  map.faces.forEach((face, around) => {
    if (rank[around] !== own) return;
    const inside: number[] = [];
    const stepOver = (half: number) => {
      const beyond = faceBeyond(map, half);
      if (beyond < 0 || beyond === around || isSeen[beyond] === 1) return;
      isSeen[beyond] = 1;
      inside.push(beyond);
      if (rank[beyond] > own) enclosed.add(beyond);
    };
    const outer = outerRing(face);
    face.rings.forEach((ring, i) => {
      if (i !== outer) ring.forEach(stepOver);
    });
    for (let k = 0; k < inside.length; k++) for (const ring of map.faces[inside[k]].rings) ring.forEach(stepOver);
  });
  return enclosed;
}
