// What the hand sees: nodes and handles of lines, outlines of picked shapes, and what it is about to do, old lines faint below.
import { figurePaths, type LineChange } from "@plain-palette/core/edit";
import { type CubicPath, mapPath, nodesOf } from "@plain-palette/core/geometry";
import type { TableLayer } from "../../../light-table/layers.ts";
import { makePieces, makePolylinePieces } from "../../../light-table/pieces.ts";
import { figureOf, partLine } from "./draw-tool.ts";
import type { Drag, HandDesk } from "./hand-desk.ts";
import { boxAround, draggedLines, shownHandles } from "./lines-tool.ts";
import { holeAt, outlinesOf, pickedFaces, pieceGrips, stepOf, wayOf } from "./pieces-tool.ts";

const DARK = "#1e1d1a";
const OLD = "#f0b429";

const lines = (
  paths: readonly CubicPath[],
  more: Partial<Extract<TableLayer, { kind: "strokes" }>> = {},
): TableLayer => ({
  kind: "strokes",
  path: makePieces(paths, false),
  colour: DARK,
  screenPx: 1.4,
  ...more,
});

/** What stays as long as the shapes do: all lines with their nodes, where they are worked on. A drag must not wait for them. */
export function stillLayers({ mode, edges, replaced }: Pick<HandDesk, "mode" | "edges" | "replaced">): TableLayer[] {
  const paths = edges.map(({ path }) => path);
  // What the edit in hand has replaced stays seen, faint, until something else is begun.
  const before = replaced.length > 0 ? [lines(replaced, { colour: OLD, screenPx: 1.5 })] : [];
  if (mode !== "lines") return before;
  return [
    ...before,
    lines(paths, { screenPx: 0.8, colour: "#5b5a55" }),
    { kind: "nodes", points: nodesOf(paths), colour: DARK, isThinned: true },
  ];
}

/** What is in hand, over them. */
export function handLayers(desk: HandDesk): TableLayer[] {
  const { mode, drag } = desk;
  if (mode === "lines") return lineLayers(desk);
  if (mode === "pieces") return pieceLayers(desk);
  return [...outlineSketch(desk), ...(drag ? sketchLayers(desk, drag) : [])];
}

function lineLayers(desk: HandDesk): TableLayer[] {
  const { edges, refs, nodes, onLine, drag } = desk;
  const changes = drag ? draggedLines(desk, drag) : [];
  const handles = drag ? [] : shownHandles(edges, refs);
  const arms = handles.map(({ x, y, node }) => [node[0], node[1], x, y]);
  const moved =
    drag?.holds.kind === "nodes" ? { x: drag.to.x - drag.from.x, y: drag.to.y - drag.from.y } : { x: 0, y: 0 };
  return [
    ...changeLayers(changes),
    ...(arms.length > 0 ? [lines([], { path: makePolylinePieces(arms), screenPx: 1, isHaloed: true })] : []),
    ...(handles.length > 0
      ? [
          {
            kind: "nodes" as const,
            points: Float64Array.from(handles.flatMap(({ x, y }) => [x, y])),
            colour: "#2c6fbb",
          },
        ]
      : []),
    {
      kind: "grips",
      points: [...nodes.map(({ x, y }) => ({ x: x + moved.x, y: y + moved.y })), ...(onLine ? [onLine] : [])],
    },
    ...pickingLayers(drag),
  ];
}

/** Old lines wide and light, new ones dark on top. */
function changeLayers(changes: readonly LineChange[]): TableLayer[] {
  if (changes.length === 0) return [];
  return [
    lines(
      changes.map(({ was }) => was),
      { colour: OLD, screenPx: 4, isHaloed: true },
    ),
    lines(
      changes.map(({ now }) => now),
      { screenPx: 1.6, isHaloed: true },
    ),
    { kind: "nodes", points: nodesOf(changes.map(({ now }) => now)), colour: DARK },
  ];
}

function pickingLayers(drag: Drag | null): TableLayer[] {
  if (drag?.holds.kind !== "box" && drag?.holds.kind !== "loop") return [];
  const line = drag.holds.kind === "box" ? boxAround(drag.from, drag.to) : drag.holds.points;
  return [
    { kind: "strokes", path: makePolylinePieces([line], true), colour: DARK, screenPx: 1, dashPx: 4, isHaloed: true },
  ];
}

function pieceLayers(desk: HandDesk): TableLayer[] {
  const { faces, drag, hole } = desk;
  const ring = hole && holeAt(faces, hole);
  if (ring) return [lines([ring], { screenPx: 1.6, isHaloed: true, dashPx: 6 })];
  const outlines = outlinesOf(faces, pickedFaces(desk));
  if (outlines.length === 0) return [];
  if (!drag)
    return [lines(outlines, { screenPx: 1.6, isHaloed: true, dashPx: 6 }), { kind: "grips", points: pieceGrips(desk) }];
  const way = wayOf(desk, stepOf(drag));
  const moved = outlines.map((path) => mapPath(path, way));
  return [
    lines(outlines, { colour: OLD, screenPx: 3, isHaloed: true }),
    lines(moved, { screenPx: 1.6, isHaloed: true, dashPx: 6 }),
  ];
}

function outlineSketch({ outline }: HandDesk): TableLayer[] {
  if (outline.length < 2) return [];
  const grips = [];
  for (let i = 0; i + 1 < outline.length; i += 2) grips.push({ x: outline[i] ?? 0, y: outline[i + 1] ?? 0 });
  return [
    { kind: "strokes", path: makePolylinePieces([outline]), colour: DARK, screenPx: 1.6, isHaloed: true },
    { kind: "grips", points: grips },
  ];
}

function sketchLayers(desk: HandDesk, drag: Drag): TableLayer[] {
  const { mode, part, brush, mmPerPx } = desk;
  if (mode === "draw") {
    const figure = figureOf(desk, drag);
    return figure ? [lines(figurePaths(figure), { screenPx: 1.6, isHaloed: true })] : [];
  }
  const points = mode === "part" ? partLine(desk, drag) : drag.holds.kind === "sketch" ? drag.holds.points : [];
  if (points.length < 4) return [];
  const widthMm = mode === "brush" ? 2 * brush.radiusMm : part.act === "part" ? part.gapMm : part.bridgeMm;
  const path = makePolylinePieces([points]);
  return [
    ...(widthMm > 0
      ? [{ kind: "strokes" as const, path, colour: "rgba(240,180,41,.5)", width: widthMm / mmPerPx }]
      : []),
    { kind: "strokes", path, colour: DARK, screenPx: 1.4, isHaloed: true },
  ];
}
