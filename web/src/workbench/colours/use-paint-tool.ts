// The tool in hand at the colours step, tied to the recipe.
import { formatHex } from "@plain-palette/core/colour";
import { mapLine, mapPoint, type Point } from "@plain-palette/core/raster";
import type { Correction, Recipe } from "@plain-palette/core/recipe";
import { NOTHING, type Spot } from "@plain-palette/core/reduce";
import { useEffect, useMemo, useRef, useState } from "react";
import type { AreaView } from "../../compute/messages.ts";
import type { Ask, PreparedPicture } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePolylinePath } from "../../light-table/pieces.ts";
import { addPoint, type ToolEvent, type ToolInHand } from "../../light-table/tool.ts";
import { pixelAt } from "../read-place.ts";
import { addCorrection, decideSpot, resolveTarget } from "./edit-colours.ts";
import { type AreaReach, type ChangePaintDesk, type PaintDesk, TO_GARMENT } from "./paint-desk.ts";

interface Work {
  readonly desk: PaintDesk;
  readonly change: ChangePaintDesk;
  readonly prepared: PreparedPicture | null;
  readonly spots: readonly Spot[];
  /** Where the pointer is, upright pixels. */
  readonly pointer: Point | null;
  readonly ask: Ask;
}

const hundredth = (v: number) => Math.round(v * 100) / 100;

/** The tool and what it draws; null while the hand is empty. */
export function usePaintTool({ desk, change, prepared, spots, pointer, ask }: Work): ToolInHand | null {
  const edit = useJob((state) => state.edit);
  const garment = useJob((state) => state.recipe.artwork.garment);
  const preview = useAreaPreview(desk, pointer, spots, ask);
  const { tool, reach } = desk;
  if (!tool || !prepared) return null;
  const target = resolveTarget(desk, spots, garment);
  const hand: Hand = {
    desk,
    change,
    edit,
    prepared,
    preview,
    correct(make) {
      // What was made new is given on to the next areas, too.
      let madeId: string | null = null;
      edit((r) => {
        const { recipe, spotId } = addCorrection(r, target, make);
        madeId = spotId;
        return recipe;
      });
      const isSpecial = desk.target === NOTHING || desk.target === TO_GARMENT;
      if (tool.kind !== "divide" && !isSpecial) change({ target: madeId });
    },
  };
  switch (tool.kind) {
    case "recolour":
    case "pour":
      return reach === "loop" ? loopTool(hand, tool.kind) : areaTool(hand, tool.kind, reach);
    case "take-colour":
      return takeColourTool(hand, tool.spotId);
    case "divide":
      return divideTool(hand);
  }
}

interface Hand extends Pick<Work, "desk" | "change"> {
  readonly prepared: PreparedPicture;
  readonly preview: AreaPreview;
  edit(change: (recipe: Recipe) => Recipe): void;
  /** Adds a correction that gives areas to the spot they are given to now. */
  correct(make: (id: string, spotId: string) => Correction): void;
}

/** A place in the client's pixels. */
function toSource({ prepared }: Hand, place: Point): Point {
  const { x, y } = mapPoint(prepared.frame.toSource, place);
  return { x: hundredth(x), y: hundredth(y) };
}

/** Numbers in the longest line that a correction takes. */
const MOST_PLACES = 8000;

function lineToSource({ prepared }: Hand, drawn: readonly number[]): number[] {
  return mapLine(prepared.frame.toSource, drawn.slice(0, MOST_PLACES)).map(hundredth);
}

function clickTool({ preview }: Hand, hint: string, onPress: (place: Point) => void): ToolInHand {
  return {
    tool: { hint, refusal: preview.reason, cursor: "crosshair", onPress, onDrag: () => {}, onRelease: () => {} },
    overlays: preview.layers,
  };
}

/** A line that is drawn by hand; `onDrawn` gets it in the client's pixels once it is let go. */
function sketchTool(
  hand: Hand,
  hint: string,
  grown: (event: ToolEvent) => readonly number[],
  onDrawn: (line: readonly number[]) => void,
): ToolInHand {
  const { desk, change } = hand;
  const { sketch } = desk;
  return {
    tool: {
      hint,
      cursor: "crosshair",
      onPress: ({ x, y }) => change({ sketch: [x, y] }),
      onDrag: (event) => change({ sketch: grown(event) }),
      onRelease: (event) => {
        change({ sketch: [] });
        onDrawn(lineToSource(hand, grown(event)));
      },
    },
    overlays:
      sketch.length >= 4
        ? [{ kind: "strokes", path: makePolylinePath(sketch, false), colour: "#1e1d1a", screenPx: 2, isHaloed: true }]
        : [],
  };
}

function loopTool(hand: Hand, kind: "recolour" | "pour"): ToolInHand {
  const { sketch } = hand.desk;
  return sketchTool(
    hand,
    "Drag a loop: every area that lies wholly inside it becomes that spot.",
    ({ x, y, unitsPerPx }) => addPoint(sketch, x, y, 2 * unitsPerPx),
    (loop) => {
      if (loop.length < 6) return;
      const [x = 0, y = 0] = loop;
      const at = { x, y };
      hand.correct((id, spotId) => ({ id, isOn: true, kind, at, reach: "loop", loop: [...loop], spotId }));
    },
  );
}

function areaTool(hand: Hand, kind: "recolour" | "pour", reach: Exclude<AreaReach, "loop">): ToolInHand {
  const { preview } = hand;
  const hint =
    kind === "pour"
      ? "Click into an area between lines: it is filled to the middle of the lines."
      : "Click on an area: it becomes that spot.";
  return clickTool(hand, hint, (place) => {
    // What takes nothing leaves no entry behind.
    const isHere = preview.at?.x === Math.floor(place.x) && preview.at.y === Math.floor(place.y);
    if (preview.reason !== null && isHere) return;
    preview.hide(place);
    const at = toSource(hand, place);
    hand.correct((id, spotId) => ({ id, isOn: true, kind, at, reach, loop: [], spotId }));
  });
}

function takeColourTool(hand: Hand, spotId: string): ToolInHand {
  return clickTool(hand, "Click on the colour in the picture.", ({ x, y }) => {
    const rgb = pixelAt(hand.prepared.upright, x, y);
    if (!rgb) return;
    hand.edit((r) => decideSpot(r, spotId, { hex: formatHex(rgb), stock: null }));
    hand.change({ tool: null });
  });
}

function divideTool(hand: Hand): ToolInHand {
  const { sketch } = hand.desk;
  return sketchTool(
    hand,
    "Drag a line right through the area, from outside to outside; with Shift it is straight.",
    ({ x, y, isStraight, unitsPerPx }) =>
      isStraight ? [...sketch.slice(0, 2), x, y] : addPoint(sketch, x, y, 2 * unitsPerPx),
    (line) => {
      if (line.length < 4) return;
      hand.correct((id, spotId) => ({ id, isOn: true, kind: "divide", line: [...line], isFlipped: false, spotId }));
    },
  );
}

interface AreaPreview {
  readonly layers: readonly TableLayer[];
  /** Why the pixel under the pointer would take nothing, and which it is. */
  readonly reason: string | null;
  readonly at: Point | null;
  /** Takes the marks away until the pointer moves on: what was done is to be seen. */
  hide(clicked: Point): void;
}

/** What a click would take, marked under the pointer; or why it would take nothing. */
function useAreaPreview(
  { tool, reach }: PaintDesk,
  pointer: Point | null,
  spots: readonly Spot[],
  ask: Ask,
): AreaPreview {
  const [found, setFound] = useState<{ readonly at: Point; readonly view: AreaView } | null>(null);
  const kind = tool?.kind === "recolour" || tool?.kind === "pour" ? tool.kind : null;
  const x = pointer === null ? null : Math.floor(pointer.x);
  const y = pointer === null ? null : Math.floor(pointer.y);
  const seen = useRef("");
  const here = `${x} ${y}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: areas are others whenever spots were computed anew
  useEffect(() => {
    if (kind === null || x === null || y === null || reach === "loop" || seen.current === here) {
      setFound(null);
      return;
    }
    seen.current = "";
    let isCurrent = true;
    const at = { x, y };
    void ask("area", { kind, reach, at }).then((view) => {
      if (isCurrent && view) setFound({ at, view });
    });
    return () => {
      isCurrent = false;
    };
  }, [kind, reach, x, y, spots, ask]);
  const hide = (clicked: Point) => {
    // By the place of the click itself: the pointer's may be told a moment later.
    seen.current = `${Math.floor(clicked.x)} ${Math.floor(clicked.y)}`;
    setFound(null);
  };
  const shown = useMemo((): Omit<AreaPreview, "hide"> => {
    if (!found) return { layers: [], reason: null, at: null };
    const { view, at } = found;
    if (view.bitmap === null) return { layers: [], reason: `Takes nothing here: ${view.reason}.`, at };
    const transform = { scaleX: 1, scaleY: 1, dx: view.x, dy: view.y };
    return { layers: [{ kind: "bitmap", bitmap: view.bitmap, opacity: 0.75, transform }], reason: null, at };
  }, [found]);
  return { ...shown, hide };
}
