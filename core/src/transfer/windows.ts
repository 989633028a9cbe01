// What of later layers lies inside a layer: windows in it, if it were cut out there.
import { faceArea, faceBeyond, outerRing, type PlanarMap } from "../trace/index.ts";

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

/**
 * Faces of later layers in windows that only layer `own` goes round and that are narrower than `widthPx` on average.
 * `lengthsPx` are of the map's edges.
 */
export function narrowWindows(
  map: PlanarMap,
  rank: readonly number[],
  own: number,
  lengthsPx: ArrayLike<number>,
  widthPx: number,
): Set<number> {
  const narrow = new Set<number>();
  const isSeen = new Uint8Array(map.faces.length);
  map.faces.forEach((_, first) => {
    if (rank[first] <= own || isSeen[first] === 1) return;
    isSeen[first] = 1;
    const faces = [first];
    let areaPx = 0;
    let aroundPx = 0;
    let isOurs = true;
    for (let k = 0; k < faces.length; k++) {
      const face = map.faces[faces[k]];
      areaPx += faceArea(face);
      for (const ring of face.rings)
        for (const half of ring) {
          const beyond = faceBeyond(map, half);
          if (beyond < 0 || rank[beyond] < own) isOurs = false;
          else if (rank[beyond] === own) aroundPx += lengthsPx[half >> 1];
          else if (isSeen[beyond] === 0) {
            isSeen[beyond] = 1;
            faces.push(beyond);
          }
        }
    }
    if (isOurs && 2 * areaPx < widthPx * aroundPx) for (const face of faces) narrow.add(face);
  });
  return narrow;
}
