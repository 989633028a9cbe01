// Tools for laying the picture upright: a line that should be level, the crop's frame, the sheet's corners.
import type { Box, Corners, Point } from "@plain-palette/core/raster";
import { GRIP_PX } from "../../light-table/layers.ts";
import { makePolylinePath } from "../../light-table/pieces.ts";
import type { ToolEvent, ToolInHand } from "../../light-table/tool.ts";

const CAUGHT_PX = GRIP_PX * 2;
const isNear = (event: ToolEvent, { x, y }: Point) =>
  Math.abs(event.x - x) < CAUGHT_PX * event.unitsPerPx && Math.abs(event.y - y) < CAUGHT_PX * event.unitsPerPx;

/** Turn, clockwise in degrees, that lays a drawn line level, or upright if it is nearer to that; hundredths. */
export function levellingTurn([x1, y1, x2, y2]: readonly [number, number, number, number]): number {
  let angle = (Math.atan2(y2 - y1, x2 - x1) * 180) / Math.PI;
  // The same line whichever end it was begun at, and whether it should be level or upright.
  while (angle > 45) angle -= 90;
  while (angle < -45) angle += 90;
  return Math.round(-angle * 100) / 100;
}

/** Draws a line along what should be level. */
export function levelTool(
  sketch: readonly number[],
  setSketch: (points: readonly number[]) => void,
  onLevelled: (turnDeg: number) => void,
): ToolInHand {
  return {
    tool: {
      hint: "Drag along something that should be level or upright.",
      cursor: "crosshair",
      onPress: ({ x, y }) => setSketch([x, y, x, y]),
      onDrag: ({ x, y }) => setSketch([...sketch.slice(0, 2), x, y]),
      onRelease: ({ x, y, unitsPerPx }) => {
        setSketch([]);
        const [x1 = x, y1 = y] = sketch;
        if (Math.max(Math.abs(x - x1), Math.abs(y - y1)) > 8 * unitsPerPx) onLevelled(levellingTurn([x1, y1, x, y]));
      },
    },
    overlays:
      sketch.length === 4
        ? [{ kind: "strokes", path: makePolylinePath(sketch, false), colour: "#1e1d1a", screenPx: 2, isHaloed: true }]
        : [],
  };
}

type CropGrip = { readonly x: 0 | 0.5 | 1; readonly y: 0 | 0.5 | 1 };
const CROP_GRIPS: readonly CropGrip[] = [0, 0.5, 1].flatMap((y) => [0, 0.5, 1].map((x) => ({ x, y }) as CropGrip));
const gripPoint = ({ x, y, width, height }: Box, grip: CropGrip): Point => ({
  x: x + width * grip.x,
  y: y + height * grip.y,
});

/** What is held while a crop is dragged. */
export type CropHold = { readonly grip: CropGrip; readonly from: Point; readonly box: Box } | null;

/** Drags a crop's frame by its corners, sides and middle. `size` is that of the picture under it. */
export function cropTool(
  box: Box,
  size: { readonly width: number; readonly height: number },
  hold: { current: CropHold },
  setBox: (box: Box) => void,
): ToolInHand {
  const drag = (event: ToolEvent) => {
    const held = hold.current;
    if (held) setBox(dragCrop(held, event, size));
  };
  const shade = new Path2D();
  shade.rect(0, 0, size.width, size.height);
  // The other way round, so that the inside stays bare.
  shade.moveTo(box.x, box.y);
  shade.lineTo(box.x, box.y + box.height);
  shade.lineTo(box.x + box.width, box.y + box.height);
  shade.lineTo(box.x + box.width, box.y);
  shade.closePath();
  const outline = new Path2D();
  outline.rect(box.x, box.y, box.width, box.height);
  return {
    tool: {
      hint: "Drag the frame by its corners, its sides or its middle.",
      cursor: "crosshair",
      onPress: (event) => {
        const grip = CROP_GRIPS.find((one) => isNear(event, gripPoint(box, one)));
        const isInside =
          event.x > box.x && event.y > box.y && event.x < box.x + box.width && event.y < box.y + box.height;
        const from = { x: event.x, y: event.y };
        if (grip) hold.current = { grip, from, box };
        else if (isInside) hold.current = { grip: { x: 0.5, y: 0.5 }, from, box };
        // Outside of it a new frame is begun.
        else hold.current = { grip: { x: 1, y: 1 }, from, box: { ...from, width: 1, height: 1 } };
      },
      onDrag: drag,
      onRelease: (event) => {
        drag(event);
        hold.current = null;
      },
    },
    overlays: [
      { kind: "fills", fills: [{ colour: "rgba(30,29,26,.55)", path: shade }] },
      { kind: "strokes", path: outline, colour: "#1e1d1a", screenPx: 1.5, isHaloed: true },
      { kind: "grips", points: CROP_GRIPS.map((grip) => gripPoint(box, grip)) },
    ],
  };
}

/** The frame after its grip was dragged: whole pixels, inside the picture, at least one. */
export function dragCrop(
  { grip, from, box }: NonNullable<CropHold>,
  to: Point,
  size: { readonly width: number; readonly height: number },
): Box {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const clampX = (v: number) => Math.min(size.width, Math.max(0, Math.round(v)));
  const clampY = (v: number) => Math.min(size.height, Math.max(0, Math.round(v)));
  if (grip.x === 0.5 && grip.y === 0.5) {
    const x = Math.min(size.width - box.width, Math.max(0, Math.round(box.x + dx)));
    const y = Math.min(size.height - box.height, Math.max(0, Math.round(box.y + dy)));
    return { ...box, x, y };
  }
  const x1 = clampX(box.x + (grip.x === 0 ? dx : 0));
  const x2 = clampX(box.x + box.width + (grip.x === 1 ? dx : 0));
  const y1 = clampY(box.y + (grip.y === 0 ? dy : 0));
  const y2 = clampY(box.y + box.height + (grip.y === 1 ? dy : 0));
  return {
    x: Math.min(x1, x2),
    y: Math.min(y1, y2),
    width: Math.max(1, Math.abs(x2 - x1)),
    height: Math.max(1, Math.abs(y2 - y1)),
  };
}

/** Each corner as `change` has it. */
export function mapCorners(
  [a, b, c, d]: Corners,
  change: (corner: Point, i: number) => Point,
): [Point, Point, Point, Point] {
  return [change(a, 0), change(b, 1), change(c, 2), change(d, 3)];
}

/** A place to a tenth of a pixel. */
export const toTenths = ({ x, y }: Point): Point => ({ x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10 });

/** Drags the four corners of a photographed sheet. */
export function cornersTool(
  corners: Corners,
  hold: { current: number },
  setCorners: (corners: Corners) => void,
): ToolInHand {
  const drag = (event: ToolEvent) => {
    if (hold.current >= 0)
      setCorners(mapCorners(corners, (corner, i) => (i === hold.current ? toTenths(event) : corner)));
  };
  return {
    tool: {
      hint: "Drag each grip to a corner of the sheet.",
      cursor: "crosshair",
      onPress: (event) => {
        const distances = corners.map((corner) => Math.max(Math.abs(corner.x - event.x), Math.abs(corner.y - event.y)));
        hold.current = distances.indexOf(Math.min(...distances));
      },
      onDrag: drag,
      onRelease: (event) => {
        drag(event);
        hold.current = -1;
      },
    },
    overlays: [
      {
        kind: "strokes",
        path: makePolylinePath(
          corners.flatMap(({ x, y }) => [x, y]),
          true,
        ),
        colour: "#1e1d1a",
        screenPx: 1.5,
        isHaloed: true,
      },
      { kind: "grips", points: corners },
    ],
  };
}
