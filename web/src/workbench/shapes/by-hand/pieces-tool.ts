// The hand on shapes with what they enclose: picks and moves them; arrow keys nudge.
import type { ShapePick } from "@plain-palette/core/edit";
import { boundsOf, boundsOfAll, type CubicPath, flattenPath, isInLine } from "@plain-palette/core/geometry";
import type { Point } from "@plain-palette/core/raster";
import type { HandView } from "../../../compute/messages.ts";
import type { TableTool } from "../../../light-table/tool.ts";
import type { HandDesk } from "./hand-desk.ts";
import { ARROWS, NUDGE_MM } from "./lines-tool.ts";

type Face = HandView["faces"][number];

const STILL_PX = 3;

/** The shape at a place; -1 where there is none. */
export function shapeAt(faces: readonly Face[], { x, y }: Point): number {
  return faces.findIndex(({ paths }) => {
    const { left, top, right, bottom } = boundsOfAll(paths);
    if (x < left || x > right || y < top || y > bottom) return false;
    return paths.filter((path) => isInLine(flattenPath(path, 0.1), x, y)).length % 2 === 1;
  });
}

/** The picked shapes as the map has them. */
export function pickedFaces({ faces, shapes }: Pick<HandDesk, "faces" | "shapes">): number[] {
  return shapes.flatMap(({ at, spotId }) => {
    const face = shapeAt(faces, at);
    return face >= 0 && faces[face]?.spotId === spotId ? [face] : [];
  });
}

/** Outlines of shapes and of all that lies in them. */
export function outlinesOf(faces: readonly Face[], picked: readonly number[]): CubicPath[] {
  const own = picked.flatMap((face) => faces[face]?.paths ?? []);
  const boxes = picked.map((face) => boundsOfAll(faces[face]?.paths ?? []));
  const inside = faces.flatMap(({ paths }) =>
    paths.filter((path) => {
      const box = boundsOf(path);
      return boxes.some(
        (outer) => box.left > outer.left && box.right < outer.right && box.top > outer.top && box.bottom < outer.bottom,
      );
    }),
  );
  const outer = picked.flatMap((face) => (faces[face]?.paths ?? []).map((path) => flattenPath(path, 0.1)));
  return [
    ...own,
    ...inside.filter((path) => !own.includes(path) && outer.some((line) => isInLine(line, path[0] ?? 0, path[1] ?? 0))),
  ];
}

/** A copy, or the pieces themselves, moved by a way. */
export function movedBy(desk: HandDesk, dx: number, dy: number, isCopy = false): void {
  const { shapes, entries, entryId, toSource } = desk;
  const [from, to] = [toSource({ x: 0, y: 0 }), toSource({ x: dx, y: dy })];
  const [sx, sy] = [to.x - from.x, to.y - from.y];
  const moved = shapes.map(({ at, spotId }) => ({ at: { x: at.x + dx, y: at.y + dy }, spotId }));
  const last = entries.at(-1);
  // Moved once more: the same entry.
  if (!isCopy && last?.kind === "pieces" && last.id === entryId && last.placed.length === 1) {
    const placed = last.placed.map((one) => ({ ...one, dx: one.dx + sx, dy: one.dy + sy }));
    desk.setEntries([...entries.slice(0, -1), { ...last, placed }]);
    desk.change({ drag: null, shapes: moved });
    return;
  }
  const picks = shapes.map(({ at, spotId }) => ({ at: toSource(at), spotId }));
  desk.take(
    { kind: "pieces", picks, stays: isCopy ? "kept" : "away", placed: [{ dx: sx, dy: sy }] },
    { shapes: moved },
  );
}

/** The picked shape, in the size of the one it is put in place of. */
function putInPlace(desk: HandDesk, over: ShapePick, target: number): void {
  const { faces, shapes, toSource } = desk;
  const picked = pickedFaces(desk);
  const [own, other] = [
    boundsOfAll(picked.flatMap((face) => faces[face]?.paths ?? [])),
    boundsOfAll(faces[target]?.paths ?? []),
  ];
  const middle = (box: typeof own) => ({ x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 });
  const [from, to] = [toSource(middle(own)), toSource(middle(other))];
  const scaleX = (other.right - other.left) / (own.right - own.left);
  const scaleY = (other.bottom - other.top) / (own.bottom - own.top);
  desk.take(
    {
      kind: "pieces",
      picks: shapes.map(({ at, spotId }) => ({ at: toSource(at), spotId })),
      stays: "kept",
      placed: [{ dx: to.x - from.x, dy: to.y - from.y, scaleX, scaleY }],
      over: [{ at: toSource(over.at), spotId: over.spotId }],
    },
    { seeksPlace: false },
  );
}

export function piecesTool(desk: HandDesk): TableTool {
  const { faces, shapes, drag, mmPerPx, change, seeksPlace } = desk;
  return {
    hint: seeksPlace
      ? "Click the shape in whose place the picked one is put."
      : "Click a shape to pick it with what it encloses, drag it to move; Shift adds. Arrow keys nudge.",
    cursor: seeksPlace ? "crosshair" : "default",
    onPress: (event) => {
      const at = { x: event.x, y: event.y };
      const face = shapeAt(faces, at);
      const found = faces[face];
      if (!found) {
        change({ shapes: [], entryId: null, seeksPlace: false });
        return;
      }
      const pick = { at, spotId: found.spotId };
      if (seeksPlace) {
        putInPlace(desk, pick, face);
        return;
      }
      const isPicked = pickedFaces(desk).includes(face);
      if (!isPicked) change({ shapes: event.isStraight ? [...shapes, pick] : [pick], entryId: null });
      change({ drag: { from: at, to: at, holds: { kind: "pieces" } } });
    },
    onDrag: ({ x, y }) => drag && change({ drag: { ...drag, to: { x, y } } }),
    onRelease: (event) => {
      if (!drag) return;
      const [dx, dy] = [event.x - drag.from.x, event.y - drag.from.y];
      if (Math.hypot(dx, dy) < STILL_PX * event.unitsPerPx) change({ drag: null });
      else movedBy(desk, dx, dy, event.isFree);
    },
    onKey: (key, isLarge) => {
      const arrow = ARROWS[key];
      if (shapes.length === 0) return false;
      if (arrow) {
        const by = (isLarge ? NUDGE_MM.large : NUDGE_MM.plain) / mmPerPx;
        movedBy(desk, arrow[0] * by, arrow[1] * by);
        return true;
      }
      if (key !== "Delete" && key !== "Backspace") return false;
      takeAway(desk);
      return true;
    },
  };
}

export function takeAway(desk: HandDesk): void {
  const picks = desk.shapes.map(({ at, spotId }) => ({ at: desk.toSource(at), spotId }));
  desk.take({ kind: "pieces", picks, stays: "away" }, { shapes: [] });
}
