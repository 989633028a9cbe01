// A round shape, or hole, becomes a true circle of a given diameter.
import { boundsOf, type CubicPath, flattenPath, isInLine, pathArea } from "../geometry/index.ts";
import { layOutlines } from "../lay/index.ts";
import { circlePath, outerRing, type PlanarMap } from "../trace/index.ts";
import { type Edit, LOST, TANGLED } from "./edits.ts";
import { findFace, spotAround, withEnclosed } from "./find-face.ts";

/** The map with the circle, held; or why not. */
export function makeRound<M extends PlanarMap>(
  map: M,
  { at, spotId, diameterPx }: Extract<Edit, { kind: "round" }>,
): M | string {
  const face = spotId === null ? -1 : findFace(map, { at, spotId });
  const outline =
    spotId === null ? holeAround(map, at.x, at.y) : face < 0 ? null : map.faces[face].paths[outerRing(map.faces[face])];
  if (!outline) return LOST;
  const [x, y] = middleOf(outline);
  const inside = face < 0 ? new Set<number>() : new Set([face]);
  const around = face < 0 ? spotAtHole(map, at.x, at.y) : spotAround(map, withEnclosed(map, [face]));
  const laid = layOutlines(map, {
    laid: [{ paths: [outline] }, { paths: [circlePath(x, y, diameterPx / 2, false)], isHeld: true }],
    decide: (cell) => {
      if (cell.windings[1] !== 0) {
        // What the shape encloses stays in it.
        const isOther = cell.face >= 0 && face >= 0 && cell.face !== face && cell.windings[0] !== 0;
        return isOther ? cell.spotId : spotId;
      }
      const wasIts = face < 0 ? cell.face < 0 && cell.windings[0] !== 0 : inside.has(cell.face);
      return wasIts ? around : cell.spotId;
    },
  });
  return laid ?? TANGLED;
}

/** The smallest ring of a face's that goes round a place where nothing is. */
function holeAround(map: PlanarMap, x: number, y: number): CubicPath | null {
  let best: CubicPath | null = null;
  for (const { paths } of map.faces)
    for (const path of paths) {
      if (pathArea(path) <= 0) continue;
      const { left, top, right, bottom } = boundsOf(path);
      if (x < left || x > right || y < top || y > bottom || !isInLine(flattenPath(path, 0.05), x, y)) continue;
      if (!best || pathArea(path) < pathArea(best)) best = path;
    }
  return best;
}

function spotAtHole(map: PlanarMap, x: number, y: number): string | null {
  const hole = holeAround(map, x, y);
  return map.faces.find(({ paths }) => hole && paths.includes(hole))?.spotId ?? null;
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
