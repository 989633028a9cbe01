// Paper or a box that came with the picture: an ink that lies all round the art would print as a plate over the sheet.
import { isLine, lengthOf, segmentCount } from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import { BARE, faceArea, type MapEdge, type PlanarMap } from "../trace/index.ts";

/** An ink along at least this share of the picture's edge is its background, not the design (our own). */
const ALL_ROUND = 0.8;
/** What covers less of the picture than this is a frame. */
const LEAST_SHARE = 0.2;

/** An ink that is the picture's background. */
export interface BackgroundPlate {
  readonly spotId: string;
  /** Share (0..1) of the picture that it covers where it reaches the edge. */
  readonly share: number;
}

/** The ink that lies all round the art, or null. Cost follows the length of boundaries. */
export function findBackgroundPlate(map: PlanarMap, spots: readonly Spot[]): BackgroundPlate | null {
  const { width, height, edges, faces } = map;
  const along = new Map<number, number>();
  for (const edge of edges) {
    const face = edge.left === BARE ? edge.right : edge.left;
    if (face === BARE || (edge.left !== BARE && edge.right !== BARE)) continue;
    along.set(face, (along.get(face) ?? 0) + lengthOnEdge(edge, width, height));
  }
  for (const spot of spots) {
    if (spot.role !== "ink") continue;
    const touching = [...along].filter(([face, length]) => length > 0 && faces[face].spotId === spot.id);
    const length = touching.reduce((sum, [, part]) => sum + part, 0);
    if (length < ALL_ROUND * 2 * (width + height)) continue;
    const share = touching.reduce((sum, [face]) => sum + faceArea(faces[face]), 0) / (width * height);
    if (share >= LEAST_SHARE) return { spotId: spot.id, share };
  }
  return null;
}

/** How much of a boundary is the picture's own edge. */
function lengthOnEdge({ path }: MapEdge, width: number, height: number): number {
  let sum = 0;
  for (let s = 0; s < segmentCount(path); s++) {
    if (!isLine(path, s)) continue;
    const [x0, y0] = [path[s * 6], path[s * 6 + 1]];
    const [x1, y1] = [path[s * 6 + 6], path[s * 6 + 7]];
    const isOn = (a: number, b: number, end: number) => a === b && (a === 0 || a === end);
    if (isOn(x0, x1, width) || isOn(y0, y1, height)) sum += lengthOf(x1 - x0, y1 - y0);
  }
  return sum;
}
