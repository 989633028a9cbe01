// The drawing: the art's planar map and what lies under it, each a planar map of the same picture.
import { type MapEdge, type MapFace, type PlanarMap, ringPath } from "./planar-map.ts";

/** The art, with the layers below it, the lowest first. Their shapes may lie over each other; those of the art never do. */
export interface Drawing extends PlanarMap {
  readonly below: readonly PlanarMap[];
}

/** All layers, the lowest first, the art among them. */
export function layersOf(drawing: Drawing): readonly PlanarMap[] {
  return [...drawing.below, drawing];
}

/** A planar map and where its top-left corner lies in the picture. */
interface PlacedMap {
  readonly map: PlanarMap;
  readonly x: number;
  readonly y: number;
}

/** Several maps as one layer of a picture of this size, each where it lies. */
export function joinMaps(width: number, height: number, placed: readonly PlacedMap[]): PlanarMap {
  const vertices: number[] = [];
  const edges: MapEdge[] = [];
  const faces: MapFace[] = [];
  for (const { map, x, y } of placed) {
    const shift = [x, y];
    const shifted = (numbers: Float64Array) => numbers.map((v, i) => v + shift[i % 2]);
    const [vertex, firstEdge, face] = [vertices.length / 2, edges.length, faces.length];
    const moved = (number: number, by: number) => (number < 0 ? number : number + by);
    vertices.push(...shifted(map.vertices));
    for (const edge of map.edges)
      edges.push({
        ...edge,
        start: moved(edge.start, vertex),
        end: moved(edge.end, vertex),
        left: moved(edge.left, face),
        right: moved(edge.right, face),
        path: shifted(edge.path),
        read: shifted(edge.read),
      });
    for (const { spotId, areaPx, rings } of map.faces) {
      const joined = rings.map((ring) => ring.map((half) => half + 2 * firstEdge));
      faces.push({ spotId, areaPx, rings: joined, paths: joined.map((ring) => ringPath({ edges }, ring)) });
    }
  }
  return { width, height, vertices: Float64Array.from(vertices), edges, faces };
}
