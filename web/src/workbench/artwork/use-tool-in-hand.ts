// The tool in hand, tied to the recipe: what is drawn on the table becomes or changes an action.
import { formatHex } from "@plain-palette/core/colour";
import { type Corners, invertMap, mapLine, mapPoint, type Point, scaleAt } from "@plain-palette/core/raster";
import { type Action, type ActionOf, nextActionId, type Recipe } from "@plain-palette/core/recipe";
import { type RefObject, useRef, useState } from "react";
import type { PreparedPicture } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import type { ToolInHand } from "../../light-table/tool.ts";
import { pixelAt } from "../read-place.ts";
import type { ChangeDesk, Desk } from "./desk.ts";
import { addAction, changeAction } from "./edit-actions.ts";
import { type CropHold, cornersTool, cropTool, levelTool } from "./frame-tools.ts";
import { brushTool, carryTool, cutTool, pickTool } from "./touch-tools.ts";

interface Work {
  readonly desk: Desk;
  readonly change: ChangeDesk;
  readonly prepared: PreparedPicture | null;
  /** Millimetres to an upright pixel on the garment. */
  readonly mmPerPx: number;
}

/** The tool in hand and its drawing; null without one, or while there is no picture yet. */
export function useToolInHand({ desk, change, prepared, mmPerPx }: Work): ToolInHand | null {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  const cropHold = useRef<CropHold>(null);
  const cornerHold = useRef(-1);
  const carryHold = useRef<{ from: Point; offset: Point } | null>(null);
  const [hover, setHover] = useState<Point | null>(null);
  const { tool } = desk;
  if (!tool || !prepared) return null;
  const hand: Hand = {
    desk,
    change,
    prepared,
    mmPerPx,
    actions,
    edit,
    cropHold,
    cornerHold,
    carryHold,
    hover,
    setHover,
  };
  switch (tool.kind) {
    case "level":
      return level(hand);
    case "crop":
      return crop(hand, tool.id);
    case "corners":
      return corners(hand, tool.id);
    case "pick":
      return pick(hand);
    case "brush":
      return brush(hand);
    case "cut":
      return cut(hand, tool.shape);
    case "carry":
      return carry(hand, tool.id);
  }
}

/** What the hand works with, and what it holds between one move of the pointer and the next. */
interface Hand extends Work {
  readonly prepared: PreparedPicture;
  readonly actions: readonly Action[];
  edit(change: (recipe: Recipe) => Recipe): void;
  readonly cropHold: RefObject<CropHold>;
  readonly cornerHold: RefObject<number>;
  readonly carryHold: RefObject<{ from: Point; offset: Point } | null>;
  readonly hover: Point | null;
  setHover(place: Point | null): void;
}

function find<K extends Action["kind"]>({ actions }: Hand, kind: K, id: string): ActionOf<K> | null {
  return actions.find((one): one is ActionOf<K> => one.id === id && one.kind === kind) ?? null;
}

function add({ actions, edit, change }: Hand, action: (id: string) => Action, more: Partial<Desk> = {}): void {
  const id = nextActionId(actions);
  edit((r) => addAction(r, action(id)));
  change({ focusId: id, ...more });
}

/** A drawn line in the client's pixels: x, y pairs. */
function pathToSource({ prepared }: Hand, points: readonly number[]): number[] {
  return mapLine(prepared.frame.toSource, points.slice(0, MOST_PLACES)).map(hundredth);
}

/** Numbers in the longest path that an action takes. */
const MOST_PLACES = 8000;

const sketchWith =
  ({ change }: Hand) =>
  (points: readonly number[]) =>
    change({ sketch: points });

function level(hand: Hand): ToolInHand {
  const { desk, change, actions, edit } = hand;
  return levelTool(desk.sketch, sketchWith(hand), (turnDeg) => {
    const last = actions.findLast((one) => one.isOn && (one.kind === "straighten" || one.kind === "crop"));
    // Two turns in a row are one: the first was only not quite right.
    if (last?.kind === "straighten")
      edit((r) => changeAction(r, { ...last, angleDeg: clampTurn(last.angleDeg + turnDeg) }));
    else add(hand, (id) => ({ id, isOn: true, kind: "straighten", angleDeg: clampTurn(turnDeg) }));
    change({ tool: null });
  });
}

function crop(hand: Hand, id: string): ToolInHand | null {
  const { prepared, cropHold, edit } = hand;
  const action = find(hand, "crop", id);
  return (
    action && cropTool(action, prepared.frame, cropHold, (box) => edit((r) => changeAction(r, { ...action, ...box })))
  );
}

function corners(hand: Hand, id: string): ToolInHand | null {
  const sheet = find(hand, "keystone", id);
  return (
    sheet &&
    cornersTool(sheet.corners as Corners, hand.cornerHold, ([a, b, c, d]) =>
      hand.edit((r) => changeAction(r, { ...sheet, corners: [{ ...a }, { ...b }, { ...c }, { ...d }] })),
    )
  );
}

function pick(hand: Hand): ToolInHand {
  const { bitmap, bitmapScale, frame } = hand.prepared;
  return pickTool(({ x, y }) => {
    const rgb = pixelAt(bitmap, x / bitmapScale, y / bitmapScale);
    // What is gone already cannot be picked again.
    if (!rgb) return;
    const seed = mapPoint(frame.toSource, { x, y });
    const seeds = [{ x: hundredth(seed.x), y: hundredth(seed.y) }];
    add(hand, (id) => ({ id, isOn: true, kind: "pick", seeds, hex: formatHex(rgb), ...hand.desk.pick }));
  });
}

function brush(hand: Hand): ToolInHand {
  const { desk, prepared, mmPerPx, hover, setHover } = hand;
  const { toSource, width, height } = prepared.frame;
  const { mode, hex, acrossMm } = desk.brush;
  const radiusPx = acrossMm / 2 / mmPerPx;
  return brushTool({ mode, hex, radiusPx }, desk.sketch, sketchWith(hand), hover, setHover, (drawn) => {
    const inSource = radiusPx * scaleAt(toSource, { x: width / 2, y: height / 2 });
    const radius = Math.max(0.25, hundredth(inSource));
    const points = pathToSource(hand, drawn);
    add(hand, (id) => ({ id, isOn: true, kind: "stroke", mode, hex, radiusPx: radius, points }), { focusId: null });
  });
}

function cut(hand: Hand, shape: "lasso" | "rectangle"): ToolInHand {
  const { desk, change, actions, edit } = hand;
  return cutTool(shape, desk.sketch, sketchWith(hand), (drawn) => {
    const id = nextActionId(actions);
    const outline = pathToSource(hand, drawn);
    edit((r) => addAction(r, { id, isOn: true, kind: "move-piece", outline, dx: 0, dy: 0 }));
    change({ tool: { kind: "carry", id }, focusId: null });
  });
}

function carry(hand: Hand, id: string): ToolInHand | null {
  const { toSource } = hand.prepared.frame;
  const piece = find(hand, "move-piece", id);
  if (!piece) return null;
  const fromSource = invertMap(toSource);
  const outline = mapLine(fromSource, piece.outline);
  const [x = 0, y = 0] = piece.outline;
  const at = mapPoint(fromSource, { x, y });
  const carried = mapPoint(fromSource, { x: x + piece.dx, y: y + piece.dy });
  const offset = { x: Math.round(carried.x - at.x), y: Math.round(carried.y - at.y) };
  return carryTool(outline, offset, hand.carryHold, (next) => {
    const to = mapPoint(toSource, { x: at.x + next.x, y: at.y + next.y });
    hand.edit((r) => changeAction(r, { ...piece, dx: hundredth(to.x - x), dy: hundredth(to.y - y) }));
  });
}

const hundredth = (v: number) => Math.round(v * 100) / 100;
const clampTurn = (deg: number) => Math.min(45, Math.max(-45, hundredth(deg)));
