// The hand on lettering: picks lines and letters, drags them and their grips, marks old letters, picks the edge to stand along.
import {
  boundsOfAll,
  type CubicPath,
  flattenPath,
  isInLine,
  lengthAlong,
  type Nearest,
  nearestOnPath,
  nodesOf,
  partOfPath,
  pathArea,
  reversePath,
  segmentCount,
} from "@plain-palette/core/geometry";
import { arcThrough } from "@plain-palette/core/lettering";
import type { Point } from "@plain-palette/core/raster";
import type { LetteringView } from "../../../compute/messages.ts";
import { addPoint, type TableTool } from "../../../light-table/tool.ts";
import { ARROWS, NUDGE_MM } from "../by-hand/lines-tool.ts";
import { isWithin, placeIn, shapeAt } from "../by-hand/pieces-tool.ts";
import { dragged, GRIP_WORDS, gripsOf, moved, nudged } from "./letter-grips.ts";
import type { LetteringDesk, LetteringDrag } from "./lettering-desk.ts";
import { baselineToEntry } from "./places.ts";

const STILL_PX = 3;
const NEAR_PX = 9;

const HINTS = {
  set: "Click a line of lettering, then drag it or its grips; a click on one of its letters picks that letter.",
  mark: "Drag round the old letters; a click adds one or takes it off.",
  edge: "Click beside an edge: letters stand along it, on the side that was clicked.",
  points: "Click where the arc begins, a place on its way, and where it ends.",
} as const;

export function letteringTool(desk: LetteringDesk): TableTool {
  const { way, over, drag, change } = desk;
  return {
    hint: over ? `${GRIP_WORDS[over]}: drag.` : HINTS[way],
    cursor: way === "set" ? "default" : "crosshair",
    onPress(event) {
      const at = { x: event.x, y: event.y };
      if (way === "edge") standAlong(desk, at, NEAR_PX * 4 * event.unitsPerPx);
      else if (way === "points") pickPoint(desk, at);
      else if (way === "mark") change({ drag: { from: at, to: at, holds: beginMark(desk.marksBy, at) } });
      else press(desk, at, NEAR_PX * event.unitsPerPx);
    },
    onDrag({ x, y, unitsPerPx }) {
      if (!drag) return;
      work(desk, { ...drag, to: { x, y } }, unitsPerPx);
    },
    onRelease(event) {
      if (!drag) return;
      const isLoop = drag.holds.kind === "loop" && drag.holds.points.length > 6;
      const isStill = !isLoop && Math.hypot(event.x - drag.from.x, event.y - drag.from.y) < STILL_PX * event.unitsPerPx;
      if (drag.holds.kind === "box" || drag.holds.kind === "loop") markIn(desk, drag, isStill);
      else if (isStill) {
        // Put back to the last digit; a click on a letter of the line in hand picks it.
        const isGrip = drag.holds.kind !== "line" && drag.holds.kind !== "letter";
        const letter = isGrip ? desk.letter : (letterAt(drag.holds.view, drag.from) ?? null);
        desk.setLine(drag.holds.entry, { drag: null, letter });
      } else change({ drag: null });
    },
    onHover(event) {
      const grip = gripAt(desk, { x: event.x, y: event.y }, NEAR_PX * event.unitsPerPx)?.kind ?? null;
      if (grip !== over) change({ over: grip });
    },
    onKey(key, isLarge) {
      const { inHand, view, letter, frame, mmPerPx } = desk;
      const arrow = ARROWS[key];
      if (way !== "set" || !inHand || !view || !frame) return false;
      if (arrow) {
        const by = (isLarge ? NUDGE_MM.large : NUDGE_MM.plain) / mmPerPx;
        const [dx, dy] = [arrow[0] * by, arrow[1] * by];
        desk.setLine(
          letter === null ? moved(inHand, view.set, dx, dy, frame) : nudged(inHand, view, letter, { dx, dy }),
        );
        return true;
      }
      if (key !== "Delete" && key !== "Backspace") return false;
      desk.removeLine(inHand.id);
      return true;
    },
  };
}

function gripAt({ view, way, letter }: LetteringDesk, { x, y }: Point, reach: number) {
  if (!view || way !== "set") return undefined;
  const away = (grip: Point) => Math.hypot(grip.x - x, grip.y - y);
  return gripsOf(view, letter)
    .filter((grip) => away(grip) < reach)
    .sort((a, b) => away(a) - away(b))[0];
}

function press(desk: LetteringDesk, at: Point, reach: number): void {
  const { view, inHand, views, lines, change } = desk;
  const grip = gripAt(desk, at, reach);
  if (grip && view && inHand) {
    change({ drag: { from: at, to: at, holds: { kind: grip.kind, entry: inHand, view } } });
    return;
  }
  const found = views.find((one) => letterAt(one, at) !== undefined);
  const entry = lines.find(({ id }) => id === found?.id);
  if (!found || !entry) {
    change({ entryId: null, letter: null });
    return;
  }
  const isPicked = entry.id === inHand?.id && desk.letter !== null && letterAt(found, at) === desk.letter;
  const kind = isPicked ? "letter" : "line";
  change({ entryId: entry.id, isTyping: false, drag: { from: at, to: at, holds: { kind, entry, view: found } } });
}

/** The letter of a line at a place, by where it begins in the text; its box counts, so that thin letters can be hit. */
export function letterAt({ letters, set }: LetteringView, { x, y }: Point): number | undefined {
  return letters.find(({ paths }) => {
    if (paths.length === 0) return false;
    const { left, top, right, bottom } = boundsOfAll(paths);
    const more = set.capHeight * 0.05;
    return x > left - more && x < right + more && y > top - more && y < bottom + more;
  })?.at;
}

const beginMark = (by: "box" | "loop", { x, y }: Point): LetteringDrag["holds"] =>
  by === "box" ? { kind: "box" } : { kind: "loop", points: [x, y] };

function work(desk: LetteringDesk, drag: LetteringDrag, unitsPerPx: number): void {
  const { frame, change, letter } = desk;
  const { holds, to } = drag;
  if (holds.kind === "loop") {
    change({ drag: { ...drag, holds: { ...holds, points: addPoint(holds.points, to.x, to.y, 2 * unitsPerPx) } } });
    return;
  }
  if (holds.kind === "box" || !frame) {
    change({ drag });
    return;
  }
  const entry = dragged(drag, frame, letter);
  if (entry) desk.setLine(entry, { drag });
}

/** Marks what lies in the box; a click marks one shape or takes it off. */
function markIn(desk: LetteringDesk, { from, to, holds }: LetteringDrag, isStill: boolean): void {
  const { faces, marked, markedSpots, change } = desk;
  if (isStill) {
    const face = faces[shapeAt(faces, from)];
    if (!face) {
      change({ drag: null });
      return;
    }
    const others = marked.filter(({ at, spotId }) => spotId !== face.spotId || faces[shapeAt(faces, at)] !== face);
    const isOff = others.length < marked.length;
    change({
      drag: null,
      marked: isOff ? others : [...marked, { at: from, spotId: face.spotId }],
      markedSpots: markedSpots.includes(face.spotId) ? markedSpots : [...markedSpots, face.spotId],
    });
    return;
  }
  const box = {
    ...{ left: Math.min(from.x, to.x), right: Math.max(from.x, to.x) },
    ...{ top: Math.min(from.y, to.y), bottom: Math.max(from.y, to.y) },
  };
  const inside = faces.flatMap(({ spotId, paths }) => {
    const bounds = boundsOfAll(paths);
    const isIn = holds.kind === "loop" ? isInLoop(holds.points, paths) : isWithin(bounds, box);
    return isIn ? [{ at: placeIn({ paths }), spotId }] : [];
  });
  // Letters are what there is most of; what is seen through them, and lines round them, can be added by their colour.
  const counts = new Map<string, number>();
  for (const { spotId } of inside) counts.set(spotId, (counts.get(spotId) ?? 0) + 1);
  const most = [...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
  change({ drag: null, marked: inside, markedSpots: most === undefined ? [] : [most] });
}

/** Whether all nodes of a shape lie in a loop. */
function isInLoop(points: readonly number[], paths: readonly CubicPath[]): boolean {
  const closed = [...points, ...points.slice(0, 2)];
  const nodes = nodesOf(paths);
  for (let i = 0; i < nodes.length; i += 2) if (!isInLine(closed, nodes[i] ?? 0, nodes[i + 1] ?? 0)) return false;
  return nodes.length > 0;
}

/** The line in hand stands along the outline nearest to a place, on the side of the place. */
function standAlong(desk: LetteringDesk, at: Point, reach: number): void {
  const { inHand, faces, frame } = desk;
  if (!inHand || !frame) return;
  let best: { path: CubicPath; near: Nearest } | null = null;
  for (const path of faces.flatMap((face) => face.paths)) {
    const near = nearestOnPath(path, at.x, at.y, reach);
    if (near && (!best || near.distance < best.near.distance)) best = { path, near };
  }
  if (!best) return;
  const { path, near } = best;
  const share = shareAt(path, near);
  // Letters stand on the left of the way that the curve goes (y down): where the place is not there, it goes the other way.
  const isInside = isInLine(flattenPath(path, 0.1), at.x, at.y);
  const turnsClockwise = pathArea(path) > 0;
  const goesOn = isInside !== turnsClockwise;
  const baseline = {
    kind: "curve",
    path: goesOn ? path : reversePath(path),
    share: goesOn ? share : 1 - share,
    gap: 0,
  } as const;
  desk.setLine({ ...inHand, baseline: baselineToEntry(baseline, frame), align: "middle" }, { way: "set" });
}

/** The line in hand stands on the arc through three points. */
function pickPoint({ inHand, frame, points, change, setLine }: LetteringDesk, at: Point): void {
  const [from, over] = points;
  if (!from || !over) change({ points: [...points, at] });
  else if (inHand && frame) {
    const baseline = baselineToEntry(arcThrough(from, over, at), frame);
    setLine({ ...inHand, baseline, align: "middle" }, { way: "set", points: [] });
  }
}

/** Where along a path a place on it is, as a share of its length. */
function shareAt(path: CubicPath, near: Nearest): number {
  const length = (part: CubicPath) => lengthAlong(flattenPath(part, 0.02));
  const at = Math.min(segmentCount(path), near.at);
  return at <= 0 ? 0 : length(partOfPath(path, 0, at)) / (length(path) || 1);
}
