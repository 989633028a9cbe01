// A round shape, or hole, becomes a true circle of a given diameter.
import { boundsOf, type CubicPath, flattenPath, isInLine, pathArea } from "../geometry/index.ts";
import { layOutlines } from "../lay/index.ts";
import type { Point } from "../raster/index.ts";
import { BARE, circlePath, faceAt, outerRing, type PlanarMap } from "../trace/index.ts";
import { type Edit, LOST, type ShapePick, TANGLED } from "./edits.ts";
import { findFace, spotAround, withEnclosed } from "./find-face.ts";

/** The map with the circle, held; or why not. */
export function makeRound<M extends PlanarMap>(
  map: M,
  { at, spotId, diameterPx }: Extract<Edit, { kind: "round" }>,
): M | string {
  const round = spotId === null ? holeAt(map, at) : shapeAt(map, { at, spotId });
  if (!round) return LOST;
  const { outline, face, around } = round;
  const [x, y] = middleOf(outline);
  const laid = layOutlines(map, {
    laid: [{ paths: [outline] }, { paths: [circlePath(x, y, diameterPx / 2, false)], isHeld: true }],
    decide: (cell) => {
      const [wasIn, isIn] = [cell.windings[0] !== 0, cell.windings[1] !== 0];
      // What the shape encloses stays in it.
      const isEnclosed = wasIn && cell.face >= 0 && cell.face !== face;
      if (isIn) return isEnclosed ? cell.spotId : spotId;
      return wasIn && cell.face === face ? around : cell.spotId;
    },
  });
  return laid ?? TANGLED;
}

/** What is made round: its outline, its face or BARE, and the spot that takes its place where it becomes narrower. */
interface Round {
  readonly outline: CubicPath;
  readonly face: number;
  readonly around: string | null;
}

function shapeAt(map: PlanarMap, pick: ShapePick): Round | null {
  const face = findFace(map, pick);
  if (face < 0) return null;
  const outline = map.faces[face].paths[outerRing(map.faces[face])];
  return { outline, face, around: spotAround(map, withEnclosed(map, [face])) };
}

/** The hole to the garment at a place: the smallest ring of a face's that goes round it; null where something is there. */
function holeAt(map: PlanarMap, { x, y }: Point): Round | null {
  if (faceAt(map, { x, y }) >= 0) return null;
  const rings = map.faces.flatMap(({ paths, spotId }) =>
    paths.flatMap((outline) => {
      const { left, top, right, bottom } = boundsOf(outline);
      const isNear = pathArea(outline) > 0 && x >= left && x <= right && y >= top && y <= bottom;
      return isNear && isInLine(flattenPath(outline, 0.05), x, y) ? [{ outline, face: BARE, around: spotId }] : [];
    }),
  );
  return rings.sort((a, b) => pathArea(a.outline) - pathArea(b.outline))[0] ?? null;
}

/** Centre of the area inside a closed path (first moments of its fine polygon). */
function middleOf(path: CubicPath): readonly [number, number] {
  const line = flattenPath(path, 0.01);
  let twice = 0;
  let mx = 0;
  let my = 0;
  const [ox, oy] = [line[0], line[1]];
  for (let i = 0; i + 3 < line.length; i += 2) {
    const [ax, ay, bx, by] = [line[i] - ox, line[i + 1] - oy, line[i + 2] - ox, line[i + 3] - oy];
    const cross = ax * by - bx * ay;
    twice += cross;
    mx += (ax + bx) * cross;
    my += (ay + by) * cross;
  }
  return [ox + mx / (3 * twice), oy + my / (3 * twice)];
}
