// The hand on shapes with what they enclose: picks and moves them; arrow keys nudge.
import { placeInside } from "@plain-palette/core/area";
import type { ShapePick } from "@plain-palette/core/edit";
import {
  type Bounds,
  boundsOf,
  boundsOfAll,
  type CubicPath,
  flattenPath,
  isInLine,
  pathArea,
} from "@plain-palette/core/geometry";
import type { Point } from "@plain-palette/core/raster";
import type { HandView } from "../../../compute/messages.ts";
import type { TableTool } from "../../../light-table/tool.ts";
import { type Drag, type HandDesk, scaledBy, sourceScale } from "./hand-desk.ts";
import { ARROWS, NUDGE_MM } from "./lines-tool.ts";

type Face = HandView["faces"][number];

/** A press that goes no farther is a click; how near to a grip a press has to be; screen px. */
const STILL_PX = 3;
const NEAR_PX = 9;
/** Pieces have grips from so many times that size on. */
const LEAST_GRIPS = 4;

/** The shape at a place; -1 where there is none. */
export function shapeAt(faces: readonly Face[], { x, y }: Point): number {
  return faces.findIndex(({ paths }) => {
    const { left, top, right, bottom } = boundsOfAll(paths);
    if (x < left || x > right || y < top || y > bottom) return false;
    return paths.filter((path) => isInLine(flattenPath(path, 0.1), x, y)).length % 2 === 1;
  });
}

/** The outline of the hole to the garment at a place, the smallest ring round it; null where there is none. */
export function holeAt(faces: readonly Face[], { x, y }: Point): CubicPath | null {
  const around = faces.flatMap(({ paths }) =>
    // Holes turn the other way than outlines.
    paths.filter((path) => pathArea(path) > 0 && isInLine(flattenPath(path, 0.1), x, y)),
  );
  return around.sort((a, b) => pathArea(a) - pathArea(b))[0] ?? null;
}

/** The picked shapes as the map has them. */
export function pickedFaces({ faces, shapes }: Pick<HandDesk, "faces" | "shapes">): number[] {
  return shapes.flatMap(({ at, spotId }) => {
    const face = shapeAt(faces, at);
    return face >= 0 && faces[face]?.spotId === spotId ? [face] : [];
  });
}

/** A place well inside a shape. */
export function placeIn({ paths }: Pick<Face, "paths">): Point {
  return placeInside(paths.map((path) => Float64Array.from(flattenPath(path, 0.1))));
}

/** The picked shapes and those that lie in them. */
export function pickedPieces(faces: readonly Face[], picks: readonly ShapePick[]): Face[] {
  const own = pickedFaces({ faces, shapes: picks });
  const outer = own.map((face) => outerLine(faces[face]?.paths ?? []));
  return faces.filter((face, f) => {
    if (own.includes(f)) return true;
    const box = boundsOfAll(face.paths);
    const [x = 0, y = 0] = face.paths[0] ?? [];
    return outer.some((one) => isWithin(box, one.box) && isInLine(one.line, x, y));
  });
}

/** The largest of a shape's rings, flattened. */
function outerLine(paths: readonly CubicPath[]) {
  const [outer = new Float64Array(2)] = paths.toSorted((a, b) => Math.abs(pathArea(b)) - Math.abs(pathArea(a)));
  return { box: boundsOf(outer), line: flattenPath(outer, 0.1) };
}

export function isWithin(one: Bounds, box: Bounds): boolean {
  return one.left > box.left && one.right < box.right && one.top > box.top && one.bottom < box.bottom;
}

/** Outlines of shapes and of all that lies in them. */
export function outlinesOf(faces: readonly Face[], picked: readonly number[]): CubicPath[] {
  const own = picked.flatMap((face) => faces[face]?.paths ?? []);
  const boxes = picked.map((face) => boundsOfAll(faces[face]?.paths ?? []));
  const inside = faces.flatMap(({ paths }) =>
    paths.filter((path) => boxes.some((outer) => isWithin(boundsOf(path), outer))),
  );
  const outer = picked.flatMap((face) => (faces[face]?.paths ?? []).map((path) => flattenPath(path, 0.1)));
  return [
    ...own,
    ...inside.filter((path) => !own.includes(path) && outer.some((line) => isInLine(line, path[0] ?? 0, path[1] ?? 0))),
  ];
}

/** How pieces are placed anew: a way, px, a factor and a turn. */
interface Step {
  readonly dx: number;
  readonly dy: number;
  readonly factor: number;
  readonly turnDeg: number;
}

const STILL: Step = { dx: 0, dy: 0, factor: 1, turnDeg: 0 };

/** A copy, or the pieces themselves, placed anew: with the entry in hand, if they are its own. */
export function placeAnew(desk: HandDesk, part: Partial<Step>, isCopy = false): void {
  const { dx, dy, factor, turnDeg } = { ...STILL, ...part };
  const { shapes, inHand, toSource } = desk;
  const [from, to] = [toSource({ x: 0, y: 0 }), toSource({ x: dx, y: dy })];
  const [sx, sy] = [to.x - from.x, to.y - from.y];
  const place = wayOf(desk, { dx, dy, factor, turnDeg });
  const moved = shapes.map(({ at, spotId }) => {
    const [x, y] = place(at.x, at.y);
    return { at: { x, y }, spotId };
  });
  const drawn = isCopy ? null : drawnFigure(desk);
  if (drawn) {
    const { entry, figure } = drawn;
    const at = { x: figure.at.x + sx, y: figure.at.y + sy };
    const grown = { ...figure, ...scaledBy(figure, factor), at, angleDeg: turned(figure.angleDeg, turnDeg) };
    const heldMm = entry.heldMm === null ? null : entry.heldMm * factor;
    desk.changeInHand({ ...entry, figure: grown, heldMm }, { shapes: moved, entryId: entry.id });
    return;
  }
  const [before] = inHand?.kind === "pieces" && inHand.placed.length === 1 ? inHand.placed : [];
  if (!isCopy && before && inHand?.kind === "pieces") {
    const { angleDeg, scaleX, scaleY } = before;
    const placed = {
      ...{ dx: before.dx + sx, dy: before.dy + sy },
      angleDeg: turned(angleDeg, turnDeg),
      ...{ scaleX: scaleX * factor, scaleY: scaleY * factor },
    };
    desk.changeInHand({ ...inHand, placed: [placed] }, { shapes: moved });
    return;
  }
  // What was picked may have been taken back since.
  if (pickedFaces(desk).length === 0) {
    desk.change({ drag: null, shapes: [] });
    return;
  }
  const picks = shapes.map(({ at, spotId }) => ({ at: toSource(at), spotId }));
  const placed = [{ dx: sx, dy: sy, angleDeg: Number(turnDeg.toFixed(3)), scaleX: factor, scaleY: factor }];
  desk.take({ kind: "pieces", picks, stays: isCopy ? "kept" : "away", placed }, { shapes: moved });
}

const turned = (angleDeg: number, by: number) => Number(((angleDeg + by) % 360).toFixed(3));

/** How far the middle of a drawn figure may be from that of the shape that it is, px, and its width from the shape's. */
const SAME_MIDDLE_PX = 0.5;
const SAME_WIDTH = { least: 0.5, most: 1.5 } as const;

/** The entry that drew the picked shape, where it is a figure of its own still: then the figure is moved, and what was under it is back. */
function drawnFigure(desk: HandDesk) {
  const { entries, shapes, inHand, toPrepared } = desk;
  const [face, ...others] = pickedFaces(desk);
  const [pick] = shapes;
  // Moved just now: the map may not be made again yet.
  if (pick && inHand?.kind === "draw" && "at" in inHand.figure) return { entry: inHand, figure: inHand.figure };
  if (face === undefined || others.length > 0 || !pick) return null;
  const box = boundsOfAll(desk.faces[face]?.paths ?? []);
  const middle = middleOf(box);
  for (const entry of entries.toReversed()) {
    if (entry.kind !== "draw" || !entry.isOn || entry.act !== "draw" || entry.spotId !== pick.spotId) continue;
    const { figure } = entry;
    if (!("at" in figure)) continue;
    const at = toPrepared(figure.at);
    const width = entry.heldMm === null ? figure.width / sourceScale(desk) : entry.heldMm / desk.mmPerPx;
    const share = (box.right - box.left) / width;
    const isThere = Math.hypot(at.x - middle.x, at.y - middle.y) < SAME_MIDDLE_PX;
    if (isThere && share > SAME_WIDTH.least && share < SAME_WIDTH.most) return { entry, figure };
  }
  return null;
}

/** Where a step takes a place: turned and scaled about the middle of the picked pieces, then moved. */
export function wayOf(desk: Pick<HandDesk, "faces" | "shapes">, { dx, dy, factor, turnDeg }: Step) {
  const about = middleOf(boxOfPicked(desk));
  const angle = (turnDeg * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle) * factor, Math.sin(angle) * factor];
  return (px: number, py: number): readonly [number, number] => {
    const [x, y] = [px - about.x, py - about.y];
    return [about.x + dx + x * cos - y * sin, about.y + dy + x * sin + y * cos];
  };
}

/** The box of the picked pieces; of none, one that lies nowhere. */
export function boxOfPicked(desk: Pick<HandDesk, "faces" | "shapes">): Bounds {
  return boundsOfAll(pickedFaces(desk).flatMap((face) => desk.faces[face]?.paths ?? []));
}

const middleOf = ({ left, top, right, bottom }: Bounds): Point => ({ x: (left + right) / 2, y: (top + bottom) / 2 });

/** Distance of what turns from the box, as a share of its height. */
const TURN_SHARE = 0.3;

/** Grips of the picked pieces: the corners of their box, and above it what turns them. */
export function pieceGrips(desk: HandDesk) {
  const box = boxOfPicked(desk);
  if (!(box.right > box.left)) return [];
  const about = middleOf(box);
  const corners = [
    [box.left, box.top],
    [box.right, box.top],
    [box.right, box.bottom],
    [box.left, box.bottom],
  ].map(([x = 0, y = 0]) => ({ kind: "scale" as const, x, y, about }));
  return [...corners, { kind: "turn" as const, x: about.x, y: box.top - TURN_SHARE * (box.bottom - box.top), about }];
}

/** The grip at a place. What is smaller than a few grips has none: a press means the piece itself. */
function gripAt(desk: HandDesk, { x, y }: Point, reach: number) {
  const { left, right, top, bottom } = boxOfPicked(desk);
  if (Math.max(right - left, bottom - top) < LEAST_GRIPS * reach) return undefined;
  return pieceGrips(desk).find((grip) => Math.hypot(grip.x - x, grip.y - y) < reach);
}

/** What a drag of a grip, or of the pieces themselves, does. */
export function stepOf({ from, to, holds }: Drag): Step {
  if (holds.kind === "pieces") return { ...STILL, dx: to.x - from.x, dy: to.y - from.y };
  if (holds.kind !== "scale" && holds.kind !== "turn") return STILL;
  const { x, y } = holds.about;
  const [a, b] = [Math.hypot(from.x - x, from.y - y), Math.hypot(to.x - x, to.y - y)];
  if (holds.kind === "scale") return { ...STILL, factor: Math.max(0.02, b / (a || 1)) };
  const turnDeg = ((Math.atan2(to.y - y, to.x - x) - Math.atan2(from.y - y, from.x - x)) * 180) / Math.PI;
  return { ...STILL, turnDeg };
}

/** The picked shape, in the size of the one it is put in place of. */
function putInPlace(desk: HandDesk, over: ShapePick, target: number): void {
  const { faces, shapes, toSource } = desk;
  const [own, other] = [boxOfPicked(desk), boundsOfAll(faces[target]?.paths ?? [])];
  const [from, to] = [toSource(middleOf(own)), toSource(middleOf(other))];
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
      : "Click a shape to pick it with what it encloses, drag it or its grips; Shift adds, Alt leaves a copy.",
    cursor: seeksPlace ? "crosshair" : "default",
    onPress: (event) => {
      const at = { x: event.x, y: event.y };
      const reach = NEAR_PX * event.unitsPerPx;
      const grip = seeksPlace ? undefined : gripAt(desk, at, reach);
      if (grip) {
        change({ drag: { from: at, to: at, holds: { kind: grip.kind, about: grip.about } } });
        return;
      }
      const face = shapeAt(faces, at);
      const found = faces[face];
      if (!found) {
        change({ shapes: [], hole: holeAt(faces, at) && at, entryId: null, seeksPlace: false });
        return;
      }
      const pick = { at, spotId: found.spotId };
      if (seeksPlace) {
        putInPlace(desk, pick, face);
        return;
      }
      const isPicked = pickedFaces(desk).includes(face);
      if (!isPicked) change({ shapes: event.isStraight ? [...shapes, pick] : [pick], hole: null, entryId: null });
      change({ drag: { from: at, to: at, holds: { kind: "pieces" } } });
    },
    onDrag: ({ x, y }) => drag && change({ drag: { ...drag, to: { x, y } } }),
    onRelease: (event) => {
      if (!drag) return;
      const isStill = Math.hypot(event.x - drag.from.x, event.y - drag.from.y) < STILL_PX * event.unitsPerPx;
      if (isStill) change({ drag: null });
      else placeAnew(desk, stepOf({ ...drag, to: { x: event.x, y: event.y } }), event.isFree);
    },
    onKey: (key, isLarge) => {
      const arrow = ARROWS[key];
      if (shapes.length === 0) return false;
      if (arrow) {
        const by = (isLarge ? NUDGE_MM.large : NUDGE_MM.plain) / mmPerPx;
        placeAnew(desk, { dx: arrow[0] * by, dy: arrow[1] * by });
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
