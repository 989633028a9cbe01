// The hand that draws: figures of a size or as far as the hand goes, lines that part or join, and the brush along boundaries.
import { calmLine } from "@plain-palette/core/edit";
import { boundsOfAll, type CubicPath, linePath } from "@plain-palette/core/geometry";
import type { Point } from "@plain-palette/core/raster";
import { addPoint, type TableTool, type ToolEvent } from "../../../light-table/tool.ts";
import { type Drag, type DrawSettings, type HandDesk, scaledBy, sourceScale } from "./hand-desk.ts";
import { shapeAt } from "./pieces-tool.ts";

const STILL_PX = 3;
/** What is drawn goes to a node, a middle or a level this near, screen px; not with Alt held. */
const SNAP_PX = 7;

/** The place where the hand is taken to mean to be: at a node, at the middle of a shape, or level or upright with where it began. */
export function snapped({ edges, faces }: HandDesk, event: ToolEvent, from: Point | null): Point {
  const { x, y, isFree, isStraight, unitsPerPx } = event;
  if (isFree) return { x, y };
  if (from && isStraight) return Math.abs(x - from.x) > Math.abs(y - from.y) ? { x, y: from.y } : { x: from.x, y };
  let best: Point | null = null;
  let least = SNAP_PX * unitsPerPx;
  const look = (px: number, py: number) => {
    const distance = Math.hypot(px - x, py - y);
    if (distance < least) [best, least] = [{ x: px, y: py }, distance];
  };
  for (const { path } of edges) for (let i = 0; i < path.length; i += 6) look(path[i] ?? 0, path[i + 1] ?? 0);
  for (const { paths } of faces) {
    const { left, right, top, bottom } = boundsOfAll(paths);
    look((left + right) / 2, (top + bottom) / 2);
  }
  if (best) return best;
  if (from && Math.abs(y - from.y) < least) return { x, y: from.y };
  if (from && Math.abs(x - from.x) < least) return { x: from.x, y };
  return { x, y };
}

/** How far a hand's line may be moved to be calm, mm on the garment. */
const CALM_MM = 0.15;

/** A hand's line without its tremble. */
export function calmed(points: readonly number[], mmPerPx: number): CubicPath {
  return calmLine(points, CALM_MM / mmPerPx);
}

const isBoxed = (figure: DrawSettings["figure"]) =>
  figure === "circle" || figure === "ellipse" || figure === "rectangle" || figure === "polygon";

/** The figure that a drag draws, or a click at its typed size; prepared pixels. Null: nothing yet. */
export function figureOf(desk: HandDesk, { from, to, holds }: Drag) {
  const { draw, mmPerPx } = desk;
  const { figure, radiusMm, corners, lineMm } = draw;
  if (figure === "curve" && holds.kind === "sketch")
    return holds.points.length < 4
      ? null
      : { kind: "stroke" as const, curve: calmed(holds.points, mmPerPx), width: lineMm / mmPerPx };
  if (figure === "line")
    return { kind: "stroke" as const, curve: linePath([from.x, from.y, to.x, to.y]), width: lineMm / mmPerPx };
  if (!isBoxed(figure)) return null;
  const dragged = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)] as const;
  const isSized = Math.max(...dragged) * mmPerPx > 0.2;
  const at = isSized ? { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 } : from;
  const typed = [draw.widthMm / mmPerPx, draw.heightMm / mmPerPx] as const;
  const [width, height] = isSized ? dragged : typed;
  // A circle or polygon is drawn from its middle: its radius is the way of the hand.
  const across = isSized ? 2 * Math.hypot(...dragged) : typed[0];
  if (figure === "circle") return { kind: "ellipse" as const, at: from, width: across, height: across, angleDeg: 0 };
  if (figure === "polygon") return { kind: "polygon" as const, at: from, width: across, corners, angleDeg: 0 };
  if (width <= 0 || height <= 0) return null;
  if (figure === "ellipse") return { kind: "ellipse" as const, at, width, height, angleDeg: 0 };
  return { kind: "rectangle" as const, at, width, height, radius: radiusMm / mmPerPx, angleDeg: 0 };
}

/** The spot that is drawn in. */
export function drawnSpot({ draw, faces }: HandDesk): string | null {
  return draw.spotId === undefined ? (faces[0]?.spotId ?? null) : draw.spotId;
}

export function drawTool(desk: HandDesk): TableTool {
  const { draw, drag, outline, change } = desk;
  const isOutline = draw.figure === "outline";
  const begin = (event: ToolEvent) => {
    const at = snapped(desk, event, null);
    if (isOutline) addOutlineNode(desk, snapped(desk, event, lastNode(outline)), event.unitsPerPx);
    else change({ drag: { from: at, to: at, holds: { kind: "sketch", points: [at.x, at.y] } } });
  };
  return {
    hint: isOutline
      ? "Click node by node; click the first one to close it. Alt leaves snapping."
      : draw.figure === "line" || draw.figure === "curve"
        ? "Draw it. Shift keeps it level or upright, Alt leaves snapping."
        : "Click where its middle is to lie, at the size typed, or drag its size. Alt leaves snapping.",
    cursor: "crosshair",
    onPress: begin,
    onDrag: (event) => drag && change({ drag: sketched(desk, drag, event) }),
    onRelease: (event) => {
      if (!drag) return;
      const figure = figureOf(desk, sketched(desk, drag, event));
      if (!figure) {
        change({ drag: null });
        return;
      }
      const isTyped =
        figure.kind !== "stroke" &&
        Math.hypot(event.x - drag.from.x, event.y - drag.from.y) < STILL_PX * event.unitsPerPx;
      takeFigure(desk, figure, isTyped);
    },
    onKey: (key) => {
      if (!isOutline || key !== "Enter" || outline.length < 6) return false;
      closeOutline(desk);
      return true;
    },
  };
}

function sketched(desk: HandDesk, drag: Drag, event: ToolEvent): Drag {
  const to = desk.draw.figure === "curve" ? { x: event.x, y: event.y } : snapped(desk, event, drag.from);
  const points =
    drag.holds.kind === "sketch" ? addPoint(drag.holds.points, event.x, event.y, 2 * event.unitsPerPx) : [];
  return { ...drag, to, holds: { kind: "sketch", points } };
}

/** A figure laid down; its typed width is exact. */
function takeFigure(desk: HandDesk, figure: NonNullable<ReturnType<typeof figureOf>>, isTyped: boolean): void {
  const { draw, toSource, lineToSource, take } = desk;
  const spotId = drawnSpot(desk);
  const placed =
    figure.kind === "stroke"
      ? { ...figure, curve: lineToSource(figure.curve), width: figure.width * sourceScale(desk) }
      : { ...figure, at: toSource(figure.at), ...scaledBy(figure, sourceScale(desk)) };
  const heldMm =
    draw.isHeld && isTyped
      ? draw.widthMm
      : draw.isHeld && figure.kind !== "stroke"
        ? figure.width * desk.mmPerPx
        : null;
  take({ kind: "draw", figure: placed, spotId, isHeld: draw.isHeld, heldMm });
}

function lastNode(outline: readonly number[]): Point | null {
  const [x, y] = outline.slice(-2);
  return x === undefined || y === undefined ? null : { x, y };
}

function addOutlineNode(desk: HandDesk, at: Point, unitsPerPx: number): void {
  const { outline, change } = desk;
  const [x, y] = outline;
  const closes =
    outline.length >= 6 && x !== undefined && y !== undefined && Math.hypot(x - at.x, y - at.y) < SNAP_PX * unitsPerPx;
  if (closes) closeOutline(desk);
  else change({ outline: [...outline, at.x, at.y] });
}

export function closeOutline(desk: HandDesk): void {
  const { outline, lineToSource, take, draw } = desk;
  const [x = 0, y = 0] = outline;
  const curve = lineToSource(linePath([...outline, x, y]));
  take(
    { kind: "draw", figure: { kind: "outline", curves: [curve] }, spotId: drawnSpot(desk), isHeld: draw.isHeld },
    { outline: [] },
  );
}

export function partTool(desk: HandDesk): TableTool {
  const { part, drag, change, mmPerPx } = desk;
  const at = (event: ToolEvent, from: Point | null) =>
    part.isFree ? { x: event.x, y: event.y } : snapped(desk, event, from);
  const next = (event: ToolEvent, now: Drag): Drag => ({
    ...now,
    to: at(event, now.from),
    holds: {
      kind: "sketch",
      points: now.holds.kind === "sketch" ? addPoint(now.holds.points, event.x, event.y, 2 * event.unitsPerPx) : [],
    },
  });
  return {
    hint:
      part.act === "part"
        ? "Draw a line right through the shape that is to be parted. Shift keeps it level or upright."
        : "Draw a line from shape to shape; the bridge is of the colour where it begins.",
    cursor: "crosshair",
    onPress: (event) => {
      const from = at(event, null);
      change({ drag: { from, to: from, holds: { kind: "sketch", points: [from.x, from.y] } } });
    },
    onDrag: (event) => drag && change({ drag: next(event, drag) }),
    onRelease: (event) => {
      if (!drag) return;
      const line = partLine(desk, next(event, drag));
      if (line.length < 4) {
        change({ drag: null });
        return;
      }
      const spotId = part.act === "part" ? crossedSpot(desk, line) : spotUnder(desk, line[0] ?? 0, line[1] ?? 0);
      if (spotId === null) {
        change({
          drag: null,
          refusal: part.act === "part" ? "The line runs through no shape." : "The line begins on no shape.",
        });
        return;
      }
      const curve = desk.lineToSource(part.isFree ? calmed(line, mmPerPx) : linePath(line));
      if (part.act === "part" && part.gapMm === 0) desk.take({ kind: "cut", curve, spotId });
      else {
        const width = ((part.act === "part" ? part.gapMm : part.bridgeMm) / mmPerPx) * sourceScale(desk);
        const figure = { kind: "stroke" as const, curve, width };
        desk.take(
          part.act === "part"
            ? { kind: "draw", act: "part", figure, spotId: part.becomes, onlyOn: spotId }
            : { kind: "draw", act: "join", figure, spotId },
        );
      }
    },
  };
}

/** The line that is drawn: straight, or as the hand went. */
export function partLine({ part }: HandDesk, { from, to, holds }: Drag): number[] {
  if (part.isFree && holds.kind === "sketch") return [...holds.points];
  return from.x === to.x && from.y === to.y ? [] : [from.x, from.y, to.x, to.y];
}

function spotUnder({ faces }: HandDesk, x: number, y: number): string | null {
  return faces[shapeAt(faces, { x, y })]?.spotId ?? null;
}

/** The spot that most of a line runs through, but for what lies at its two ends. */
function crossedSpot(desk: HandDesk, line: readonly number[]): string | null {
  const counts = new Map<string | null, number>();
  const samples = 40;
  const steps = line.length / 2 - 1;
  for (let k = 0; k <= samples; k++) {
    const way = (k / samples) * steps;
    const i = Math.min(steps - 1, Math.floor(way));
    const t = way - i;
    const at = (c: number) => (1 - t) * (line[i * 2 + c] ?? 0) + t * (line[i * 2 + 2 + c] ?? 0);
    const spot = spotUnder(desk, at(0), at(1));
    counts.set(spot, (counts.get(spot) ?? 0) + 1);
  }
  const ends = [spotUnder(desk, line[0] ?? 0, line[1] ?? 0), spotUnder(desk, line.at(-2) ?? 0, line.at(-1) ?? 0)];
  const inner = [...counts].filter(([spot]) => spot !== null && !ends.includes(spot));
  const found = (inner.length > 0 ? inner : [...counts].filter(([spot]) => spot !== null)).sort((a, b) => b[1] - a[1]);
  return found[0]?.[0] ?? null;
}

export function brushTool(desk: HandDesk): TableTool {
  const { brush, drag, change, mmPerPx } = desk;
  const next = (event: ToolEvent, now: Drag): Drag => ({
    ...now,
    to: { x: event.x, y: event.y },
    holds: {
      kind: "sketch",
      points: now.holds.kind === "sketch" ? addPoint(now.holds.points, event.x, event.y, 2 * event.unitsPerPx) : [],
    },
  });
  return {
    hint: `Brush along a boundary to ${brush.does} it.`,
    cursor: "crosshair",
    onPress: ({ x, y }) =>
      change({ drag: { from: { x, y }, to: { x, y }, holds: { kind: "sketch", points: [x, y] } } }),
    onDrag: (event) => drag && change({ drag: next(event, drag) }),
    onRelease: (event) => {
      if (!drag) return;
      const { holds } = next(event, drag);
      const points = holds.kind === "sketch" ? holds.points : [];
      const perMm = sourceScale(desk) / mmPerPx;
      desk.take({
        kind: "brush",
        points: desk.lineToSource(points),
        radiusPx: brush.radiusMm * perMm,
        strengthPx: brush.strengthMm * perMm,
        does: brush.does,
        keepsCorners: brush.keepsCorners,
      });
    },
  };
}
