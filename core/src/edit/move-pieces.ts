// Pieces: shapes with what they enclose, taken away, recoloured, or laid down elsewhere.
import { boundsOfAll, type CubicPath, mapPath, reversePath } from "../geometry/index.ts";
import { layOutlines } from "../lay/index.ts";
import type { PlanarMap } from "../trace/index.ts";
import { type Edit, LOST, type PiecePlace, type ShapePick, TANGLED } from "./edits.ts";
import { findFace, spotAround, withEnclosed } from "./find-face.ts";

export type PiecesEdit = Extract<Edit, { kind: "pieces" }>;

/** The map with the pieces where they were put; or why not. */
export function movePieces<M extends PlanarMap>(map: M, { picks, stays, placed, over }: PiecesEdit): M | string {
  const faces = findFaces(map, picks);
  const gone = findPieces(map, over);
  if (!faces || !gone) return LOST;
  const pieces = withEnclosed(map, faces);
  if (stays === "away") for (const face of pieces) gone.add(face);
  const around = spotsAround(map, gone);
  const copies = placed.flatMap((place) => placePieces(map, pieces, place));
  const laid = layOutlines(map, {
    laid: copies,
    decide: ({ face, spotId, windings }) => {
      const on = copies.findLastIndex((_, k) => windings[k] !== 0);
      if (on >= 0) return copies[on].spotId;
      const surrounding = around.get(face);
      if (surrounding !== undefined) return surrounding;
      return typeof stays === "object" && faces.includes(face) ? stays.spotId : spotId;
    },
  });
  return laid ?? TANGLED;
}

function findFaces(map: PlanarMap, picks: readonly ShapePick[]): number[] | null {
  const faces = picks.map((pick) => findFace(map, pick));
  return faces.includes(-1) ? null : faces;
}

/** The faces of picked shapes with all that they enclose; null where one is not there. */
export function findPieces(map: PlanarMap, picks: readonly ShapePick[]): Set<number> | null {
  const faces = findFaces(map, picks);
  return faces && withEnclosed(map, faces);
}

/** What takes the place of faces that go, group by group of those that lie beside each other. */
export function spotsAround(map: PlanarMap, gone: ReadonlySet<number>): Map<number, string | null> {
  const around = new Map<number, string | null>();
  for (const first of gone) {
    if (around.has(first)) continue;
    const group = new Set([first]);
    for (const face of group)
      for (const { left, right } of map.edges) {
        if (left === face && gone.has(right)) group.add(right);
        if (right === face && gone.has(left)) group.add(left);
      }
    const spotId = spotAround(map, group);
    for (const face of group) around.set(face, spotId);
  }
  return around;
}

/** Copies of pieces at a place, an outline for each spot. */
function placePieces(map: PlanarMap, pieces: ReadonlySet<number>, place: PiecePlace) {
  const all = [...pieces].map((face) => map.faces[face]);
  const { left, top, right, bottom } = boundsOfAll(all.flatMap(({ paths }) => paths));
  const [cx, cy] = [(left + right) / 2, (top + bottom) / 2];
  const {
    dx,
    dy,
    matrix: [a, b, c, d],
  } = place;
  const isTurnedOver = a * d - b * c < 0;
  const move = (path: CubicPath) => {
    const moved = mapPath(path, (px, py) => {
      const [x, y] = [px - cx, py - cy];
      return [cx + dx + a * x + b * y, cy + dy + c * x + d * y];
    });
    return isTurnedOver ? reversePath(moved) : moved;
  };
  return [...new Set(all.map(({ spotId }) => spotId))].map((spotId) => ({
    spotId,
    paths: all.filter((face) => face.spotId === spotId).flatMap(({ paths }) => paths.map(move)),
  }));
}
