// The tool in hand, tied to the recipe: what is drawn on the table becomes or changes an action.
import { formatHex } from "@plain-palette/core/colour";
import { type Corners, invertMap, mapPoint, type Point, scaleAt } from "@plain-palette/core/raster";
import { type Action, type ActionOf, nextActionId } from "@plain-palette/core/recipe";
import { useRef, useState } from "react";
import type { PreparedPicture } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { pixelAt } from "../read-place.ts";
import type { ChangeDesk, Desk } from "./desk.ts";
import { addAction, changeAction } from "./edit-actions.ts";
import { type CropHold, cornersTool, cropTool, levelTool, type ToolInHand } from "./frame-tools.ts";
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
  const { tool, sketch } = desk;
  if (!tool || !prepared) return null;

  const { toSource, width, height } = prepared.frame;
  const setSketch = (points: readonly number[]) => change({ sketch: points });
  const find = <K extends Action["kind"]>(kind: K, id: string): ActionOf<K> | null => {
    const action = actions.find((one) => one.id === id);
    return action?.kind === kind ? (action as ActionOf<K>) : null;
  };
  const add = (action: (id: string) => Action, more: Partial<Desk> = {}) => {
    const id = nextActionId(actions);
    edit((r) => addAction(r, action(id)));
    change({ focusId: id, ...more });
  };
  const pathToSource = (points: readonly number[]) => {
    const out: number[] = [];
    for (let i = 0; i + 1 < points.length; i += 2) {
      const { x, y } = mapPoint(toSource, { x: points[i], y: points[i + 1] });
      out.push(hundredth(x), hundredth(y));
    }
    return out;
  };

  switch (tool.kind) {
    case "level":
      return levelTool(sketch, setSketch, (turnDeg) => {
        const last = actions.findLast((one) => one.isOn && (one.kind === "straighten" || one.kind === "crop"));
        // Two turns in a row are one: the first was only not quite right.
        if (last?.kind === "straighten")
          edit((r) => changeAction(r, { ...last, angleDeg: clampTurn(last.angleDeg + turnDeg) }));
        else add((id) => ({ id, isOn: true, kind: "straighten", angleDeg: clampTurn(turnDeg) }));
        change({ tool: null });
      });
    case "crop": {
      const crop = find("crop", tool.id);
      return (
        crop && cropTool(crop, { width, height }, cropHold, (box) => edit((r) => changeAction(r, { ...crop, ...box })))
      );
    }
    case "corners": {
      const sheet = find("keystone", tool.id);
      return (
        sheet &&
        cornersTool(sheet.corners as Corners, cornerHold, ([a, b, c, d]) =>
          edit((r) => changeAction(r, { ...sheet, corners: [{ ...a }, { ...b }, { ...c }, { ...d }] })),
        )
      );
    }
    case "pick":
      return pickTool(({ x, y }) => {
        const rgb = pixelAt(prepared.bitmap, x / prepared.bitmapScale, y / prepared.bitmapScale);
        // What is gone already cannot be picked again.
        if (!rgb) return;
        const seed = mapPoint(toSource, { x, y });
        const seeds = [{ x: hundredth(seed.x), y: hundredth(seed.y) }];
        add((id) => ({ id, isOn: true, kind: "pick", seeds, hex: formatHex(rgb), ...desk.pick }));
      });
    case "brush": {
      const radiusPx = desk.brush.acrossMm / 2 / mmPerPx;
      const { mode, hex } = desk.brush;
      return brushTool({ mode, hex, radiusPx }, sketch, setSketch, hover, setHover, (points) => {
        const inSource = radiusPx * scaleAt(toSource, { x: width / 2, y: height / 2 });
        const radius = Math.max(0.25, hundredth(inSource));
        add(
          (id) => ({
            id,
            isOn: true,
            kind: "stroke",
            mode,
            hex,
            radiusPx: radius,
            points: pathToSource(points).slice(0, 8000),
          }),
          { focusId: null },
        );
      });
    }
    case "cut":
      return cutTool(tool.shape, sketch, setSketch, (outline) => {
        const id = nextActionId(actions);
        const inSource = pathToSource(outline).slice(0, 8000);
        edit((r) => addAction(r, { id, isOn: true, kind: "move-piece", outline: inSource, dx: 0, dy: 0 }));
        change({ tool: { kind: "carry", id }, focusId: null });
      });
    case "carry": {
      const piece = find("move-piece", tool.id);
      if (!piece) return null;
      const fromSource = invertMap(toSource);
      const outline: number[] = [];
      for (let i = 0; i + 1 < piece.outline.length; i += 2) {
        const { x, y } = mapPoint(fromSource, { x: piece.outline[i], y: piece.outline[i + 1] });
        outline.push(x, y);
      }
      const [x, y] = piece.outline;
      const at = mapPoint(fromSource, { x, y });
      const carried = mapPoint(fromSource, { x: x + piece.dx, y: y + piece.dy });
      const offset = { x: Math.round(carried.x - at.x), y: Math.round(carried.y - at.y) };
      return carryTool(outline, offset, carryHold, (next) => {
        const to = mapPoint(toSource, { x: at.x + next.x, y: at.y + next.y });
        edit((r) => changeAction(r, { ...piece, dx: hundredth(to.x - x), dy: hundredth(to.y - y) }));
      });
    }
  }
}

const hundredth = (v: number) => Math.round(v * 100) / 100;
const clampTurn = (deg: number) => Math.min(45, Math.max(-45, hundredth(deg)));
