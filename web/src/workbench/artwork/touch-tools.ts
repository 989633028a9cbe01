// Tools on the picture itself: picking a colour, brushing, cutting a piece and carrying it.
import type { Point } from "@plain-palette/core/raster";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePolylinePath } from "../../light-table/pieces.ts";
import { addPoint, type ToolEvent, type ToolInHand } from "../../light-table/tool.ts";

/** Picks what is under the pointer. */
export function pickTool(onPick: (place: Point) => void): ToolInHand {
  return {
    tool: {
      hint: "Click on what is not the design.",
      cursor: "crosshair",
      onPress: onPick,
      onDrag: () => {},
      onRelease: () => {},
    },
    overlays: [],
  };
}

export interface BrushLook {
  readonly mode: "erase" | "restore" | "paint";
  readonly radiusPx: number;
  readonly hex: string;
}

/** Draws strokes; with Shift held they are straight. `hover` is where the brush is. */
export function brushTool(
  { mode, radiusPx, hex }: BrushLook,
  sketch: readonly number[],
  setSketch: (points: readonly number[]) => void,
  hover: Point | null,
  onHover: (place: Point) => void,
  onStroke: (points: readonly number[]) => void,
): ToolInHand {
  const grown = ({ x, y, isStraight }: ToolEvent) =>
    isStraight ? [...sketch.slice(0, 2), x, y] : addPoint(sketch, x, y, Math.max(0.5, radiusPx / 8));
  const overlays: TableLayer[] = [];
  if (sketch.length >= 2) {
    const [x0 = 0, y0 = 0] = sketch;
    // A single place is a dot.
    const path = makePolylinePath(sketch.length === 2 ? [x0, y0, x0 + 0.01, y0] : sketch, false);
    const colours = { erase: "rgba(214,40,120,.5)", restore: "rgba(30,150,110,.5)", paint: hex };
    overlays.push({ kind: "strokes", path, colour: colours[mode], width: radiusPx * 2 });
  }
  if (hover) {
    const ring = new Path2D();
    ring.arc(hover.x, hover.y, radiusPx, 0, 2 * Math.PI);
    overlays.push({ kind: "strokes", path: ring, colour: "#1e1d1a", screenPx: 1, isHaloed: true });
  }
  return {
    tool: {
      hint: "Drag to draw a stroke; with Shift held it is straight.",
      cursor: "none",
      onPress: ({ x, y }) => setSketch([x, y]),
      onDrag: (event) => {
        onHover(event);
        setSketch(grown(event));
      },
      onRelease: (event) => {
        setSketch([]);
        if (sketch.length >= 2) onStroke(grown(event));
      },
      onHover,
    },
    overlays,
  };
}

/** Cuts round a piece. */
export function cutTool(
  shape: "lasso" | "rectangle",
  sketch: readonly number[],
  setSketch: (points: readonly number[]) => void,
  onCut: (outline: readonly number[]) => void,
): ToolInHand {
  const grown = ({ x, y, unitsPerPx }: ToolEvent) => {
    const [x0 = x, y0 = y] = sketch;
    return shape === "rectangle" ? [x0, y0, x, y0, x, y, x0, y] : addPoint(sketch, x, y, 2 * unitsPerPx);
  };
  return {
    tool: {
      hint: shape === "lasso" ? "Drag round the piece." : "Drag a rectangle over the piece.",
      cursor: "crosshair",
      onPress: ({ x, y }) => setSketch([x, y]),
      onDrag: (event) => setSketch(grown(event)),
      onRelease: (event) => {
        setSketch([]);
        const outline = grown(event);
        if (outline.length >= 6) onCut(outline);
      },
    },
    overlays: sketch.length >= 4 ? [outlineLayer(sketch)] : [],
  };
}

/** Carries a cut piece. `outline` is where it was cut, `offset` how far it has been carried, upright pixels. */
export function carryTool(
  outline: readonly number[],
  offset: Point,
  hold: { current: { readonly from: Point; readonly offset: Point } | null },
  setOffset: (offset: Point) => void,
): ToolInHand {
  const drag = ({ x, y }: ToolEvent) => {
    const held = hold.current;
    if (held)
      setOffset({
        x: Math.round(held.offset.x + x - held.from.x),
        y: Math.round(held.offset.y + y - held.from.y),
      });
  };
  const carried = outline.map((v, i) => v + (i % 2 === 0 ? offset.x : offset.y));
  return {
    tool: {
      hint: "Drag the piece to its new place.",
      cursor: "move",
      onPress: ({ x, y }) => {
        hold.current = { from: { x, y }, offset };
      },
      onDrag: drag,
      onRelease: (event) => {
        drag(event);
        hold.current = null;
      },
    },
    overlays: [outlineLayer(carried)],
  };
}

function outlineLayer(points: readonly number[]): TableLayer {
  return {
    kind: "strokes",
    path: makePolylinePath(points, true),
    colour: "#1e1d1a",
    screenPx: 1.5,
    isHaloed: true,
    dashPx: 4,
  };
}
