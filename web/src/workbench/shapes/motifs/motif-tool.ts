// The hand on motifs: drags placed ones and their grips, picks shapes to keep or to put a motif in place of.
import { isInLine } from "@plain-palette/core/geometry";
import type { Point } from "@plain-palette/core/raster";
import type { MotifEntry } from "@plain-palette/core/recipe";
import type { TableTool, ToolEvent } from "../../../light-table/tool.ts";
import { ARROWS, NUDGE_MM } from "../by-hand/lines-tool.ts";
import { shapeAt } from "../by-hand/pieces-tool.ts";
import type { MotifDesk, PlacedMotif } from "./motif-desk.ts";
import { dragged, gripsOf, moved, onBox } from "./motif-grips.ts";

const STILL_PX = 3;
const NEAR_PX = 9;

export function motifTool(desk: MotifDesk): TableTool {
  const { way, drag, inHand, place, frame, change } = desk;
  const made = (event: ToolEvent): MotifEntry | null => {
    if (!drag || !inHand || !frame) return null;
    return dragged({ ...drag, to: { x: event.x, y: event.y } }, place, inHand, frame, event.isStraight);
  };
  return {
    hint:
      way === "pick"
        ? "Click shapes to pick them with what they enclose; a click on a picked one leaves it."
        : "Drag a placed motif or its grips; Shift keeps it straight.",
    cursor: way === "pick" ? "crosshair" : "default",
    onPress(event) {
      const at = { x: event.x, y: event.y };
      if (way === "pick") pick(desk, at);
      else press(desk, at, NEAR_PX * event.unitsPerPx);
    },
    onDrag: ({ x, y }) => drag && change({ drag: { ...drag, to: { x, y } } }),
    onRelease(event) {
      const entry = made(event);
      if (!drag || !entry) return;
      const isStill = Math.hypot(event.x - drag.from.x, event.y - drag.from.y) < STILL_PX * event.unitsPerPx;
      if (isStill) change({ drag: null });
      else desk.setEntry(entry, { drag: null });
    },
    onKey(key, isLarge) {
      const arrow = ARROWS[key];
      if (way !== "place" || !inHand || !frame) return false;
      if (arrow) {
        const by = (isLarge ? NUDGE_MM.large : NUDGE_MM.plain) / desk.mmPerPx;
        desk.setEntry(moved(inHand.entry, place, arrow[0] * by, arrow[1] * by, frame));
        return true;
      }
      if (key !== "Delete" && key !== "Backspace") return false;
      desk.remove(inHand.entry.id);
      return true;
    },
  };
}

function pick({ faces, picked, change }: MotifDesk, at: Point): void {
  const face = shapeAt(faces, at);
  const found = faces[face];
  if (!found) return;
  const others = picked.filter((one) => shapeAt(faces, one.at) !== face);
  change({ picked: others.length < picked.length ? others : [...picked, { at, spotId: found.spotId }] });
}

function press(desk: MotifDesk, at: Point, reach: number): void {
  const { inHand, place, placed, change } = desk;
  const grip = inHand && gripsOf(inHand, place).find(({ x, y }) => Math.hypot(x - at.x, y - at.y) < reach);
  if (grip && inHand) {
    change({ drag: { from: at, to: at, holds: grip.kind, entry: inHand.entry } });
    return;
  }
  // The one on top; of the one in hand first.
  const inOrder = [...(inHand ? [inHand] : []), ...placed.toReversed()];
  const found = inOrder.find((one) => one.entry.isOn && copyAt(one, at) >= 0);
  if (!found) {
    change({ entryId: null, drag: null });
    return;
  }
  const { entry, copies } = found;
  const own = Math.floor(copyAt(found, at) / (copies.length / entry.places.length));
  change({ entryId: entry.id, place: own, drag: { from: at, to: at, holds: "place", entry } });
}

/** The copy whose box has a place in it, the one on top; -1: none. */
function copyAt({ entry, copies }: PlacedMotif, { x, y }: Point): number {
  return copies.findLastIndex((copy) => {
    const corners = [
      onBox(copy, entry, -1, -1),
      onBox(copy, entry, 1, -1),
      onBox(copy, entry, 1, 1),
      onBox(copy, entry, -1, 1),
    ];
    const line = [...corners, corners[0] ?? copy].flatMap((corner) => [corner.x, corner.y]);
    return isInLine(line, x, y);
  });
}
