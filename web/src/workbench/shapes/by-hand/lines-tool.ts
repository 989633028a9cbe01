// The hand on nodes and lines: picks, drags, pulls; arrow keys nudge what is picked.
import {
  type HandEdge,
  type LineChange,
  moveHandle,
  moveNodes,
  type NodeRef,
  nodesAt,
  placeOf,
  pullSegment,
  removeNodes,
} from "@plain-palette/core/edit";
import { isInLine, isLine, nearestOnPath, pointAlong, segmentCount } from "@plain-palette/core/geometry";
import type { Point } from "@plain-palette/core/raster";
import type { TableTool, ToolEvent } from "../../../light-table/tool.ts";
import { addPoint } from "../../../light-table/tool.ts";
import type { Drag, HandDesk } from "./hand-desk.ts";

/** How near to a node, a handle or a line a press has to be, screen px. */
const NEAR_PX = 8;
/** A press that goes no farther is a click, screen px. */
const STILL_PX = 3;
/** Arrow keys move what is picked by a tenth of a millimetre, with Shift by one. */
export const NUDGE_MM = { plain: 0.1, large: 1 } as const;

export const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** A handle of a picked node, and where it is. */
export interface ShownHandle {
  readonly edge: number;
  readonly s: number;
  readonly which: 0 | 1;
  readonly x: number;
  readonly y: number;
  readonly node: readonly [number, number];
}

/** Handles of the picked nodes, as long as they are few. */
export function shownHandles(edges: readonly HandEdge[], refs: readonly NodeRef[]): ShownHandle[] {
  if (refs.length > 12) return [];
  return refs.flatMap(({ edge, node }) => {
    const own = edges[edge];
    if (!own) return [];
    const segments = segmentCount(own.path);
    const isRing = own.start < 0;
    const before = node > 0 ? node - 1 : isRing ? segments - 1 : -1;
    const after = node < segments ? node : -1;
    return [
      { s: before, which: 1 as const },
      { s: after, which: 0 as const },
    ].flatMap(({ s, which }) => {
      if (s < 0 || isLine(own.path, s)) return [];
      const i = s * 6 + 2 + which * 2;
      return [{ edge, s, which, x: own.path[i] ?? 0, y: own.path[i + 1] ?? 0, node: placeOf(edges, { edge, node }) }];
    });
  });
}

/** What a drag makes of the lines. */
export function draggedLines({ edges, refs }: HandDesk, { from, to, holds }: Drag): LineChange[] {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  if (holds.kind === "nodes") return moveNodes(edges, refs, () => [dx, dy]);
  if (holds.kind === "handle") return moveHandle(edges, holds, to, holds.isCorner);
  if (holds.kind === "line") return pullSegment(edges, holds.edge, holds.s, holds.t, dx, dy);
  return [];
}

/** The nearest line to a place: its edge, and where on it; null where there is none within `reach`. */
export function nearestLine(edges: readonly HandEdge[], { x, y }: Point, reach: number) {
  return edges.reduce<{ readonly edge: number; readonly at: number; readonly distance: number } | null>(
    (best, { path }, edge) => {
      const found = nearestOnPath(path, x, y, best?.distance ?? reach);
      return found && found.distance < (best?.distance ?? reach)
        ? { edge, at: found.at, distance: found.distance }
        : best;
    },
    null,
  );
}

const isSame = (a: Point, b: Point) => Math.abs(a.x - b.x) < 0.01 && Math.abs(a.y - b.y) < 0.01;

export function linesTool(desk: HandDesk): TableTool {
  const { edges, refs, nodes, drag, mmPerPx, change } = desk;
  const at = ({ x, y }: Point): Point => ({ x, y });
  const hold = (event: ToolEvent, holds: Drag["holds"]) => change({ drag: { from: at(event), to: at(event), holds } });
  const onPress = (event: ToolEvent) => {
    const reach = NEAR_PX * event.unitsPerPx;
    const handle = shownHandles(edges, refs).find(({ x, y }) => Math.hypot(x - event.x, y - event.y) < reach);
    if (handle) {
      hold(event, { kind: "handle", edge: handle.edge, s: handle.s, which: handle.which, isCorner: event.isFree });
      return;
    }
    const [node] = nodesAt(edges, event, reach);
    if (node) {
      const [x, y] = placeOf(edges, node);
      const place = { x, y };
      const isPicked = nodes.some((one) => isSame(one, place));
      const picked = event.isStraight
        ? isPicked
          ? nodes.filter((one) => !isSame(one, place))
          : [...nodes, place]
        : isPicked
          ? nodes
          : [place];
      change({ nodes: picked, onLine: null, entryId: null });
      hold({ ...event, x, y }, { kind: "nodes" });
      return;
    }
    const line = nearestLine(edges, event, reach);
    if (line) {
      const s = Math.min(Math.floor(line.at), segmentCount(edges[line.edge]?.path ?? new Float64Array(8)) - 1);
      hold(event, { kind: "line", edge: line.edge, s, t: line.at - s });
      return;
    }
    hold(
      event,
      desk.picksBy === "box"
        ? { kind: "box", adds: event.isStraight }
        : { kind: "loop", adds: event.isStraight, points: [event.x, event.y] },
    );
  };
  const onRelease = (event: ToolEvent) => {
    if (!drag) return;
    const to = drag.holds.kind === "box" || drag.holds.kind === "loop" ? at(event) : straight(drag, event);
    const isClick = Math.hypot(event.x - drag.from.x, event.y - drag.from.y) < STILL_PX * event.unitsPerPx;
    const { holds } = drag;
    if (holds.kind === "box" || holds.kind === "loop") {
      const found = isClick ? [] : nodesIn(edges, holds.kind === "box" ? boxAround(drag.from, event) : holds.points);
      change({ drag: null, onLine: null, entryId: null, nodes: holds.adds ? [...nodes, ...found] : found });
    } else if (isClick && holds.kind === "line")
      change({ drag: null, ...pickSegment(edges, holds, event.isStraight ? nodes : []) });
    else if (isClick) change({ drag: null });
    else {
      const [dx, dy] = [to.x - drag.from.x, to.y - drag.from.y];
      if (holds.kind === "nodes") desk.moveNodesBy(dx, dy);
      else desk.takeLines(draggedLines(desk, { ...drag, to }));
    }
  };
  return {
    hint: "Click or drag nodes and lines; Shift adds. Drag beside them to pick several.",
    cursor: "default",
    onPress,
    onDrag: (event) => {
      if (!drag) return;
      if (drag.holds.kind === "loop") {
        const points = addPoint(drag.holds.points, event.x, event.y, 2 * event.unitsPerPx);
        change({ drag: { ...drag, to: at(event), holds: { ...drag.holds, points } } });
      } else change({ drag: { ...drag, to: drag.holds.kind === "box" ? at(event) : straight(drag, event) } });
    },
    onRelease,
    onKey: (key, isLarge) => {
      const arrow = ARROWS[key];
      if (nodes.length === 0) return false;
      if (arrow) {
        const by = (isLarge ? NUDGE_MM.large : NUDGE_MM.plain) / mmPerPx;
        desk.moveNodesBy(arrow[0] * by, arrow[1] * by);
        return true;
      }
      if (key !== "Delete" && key !== "Backspace") return false;
      desk.takeLines(removeNodes(edges, refs), { nodes: [] });
      return true;
    },
  };
}

/** With Shift a drag stays level or upright. */
function straight({ from }: Drag, { x, y, isStraight }: ToolEvent): Point {
  if (!isStraight) return { x, y };
  return Math.abs(x - from.x) > Math.abs(y - from.y) ? { x, y: from.y } : { x: from.x, y };
}

function pickSegment(
  edges: readonly HandEdge[],
  { edge, s, t }: { edge: number; s: number; t: number },
  kept: readonly Point[],
) {
  const path = edges[edge]?.path;
  if (!path) return {};
  const ends = [s, s + 1].map((node) => ({ x: path[node * 6] ?? 0, y: path[node * 6 + 1] ?? 0 }));
  const [x, y] = pointAlong(path, s + t);
  return { nodes: [...kept, ...ends], onLine: { x, y }, entryId: null };
}

export function boxAround(a: Point, b: Point): number[] {
  return [a.x, a.y, b.x, a.y, b.x, b.y, a.x, b.y];
}

/** Places of all nodes inside a closed line, each once. */
function nodesIn(edges: readonly HandEdge[], line: readonly number[]): Point[] {
  const found = new Map<string, Point>();
  for (const { path } of edges)
    for (let i = 0; i < path.length; i += 6) {
      const [x, y] = [path[i] ?? 0, path[i + 1] ?? 0];
      if (isInLine(line, x, y)) found.set(`${x} ${y}`, { x, y });
    }
  return [...found.values()];
}
