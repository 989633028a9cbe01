// The hand on the light table, by pointer or by keyboard: it works with the tool, moves the table or its divider.
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from "react";
import type { View } from "./tiles.ts";
import type { TableTool, ToolEvent } from "./tool.ts";
import { useSpaceBar } from "./use-space-bar.ts";
import type { TableView } from "./use-table-view.ts";

/** How near to the divider the pointer takes hold of it, screen px. */
const DIVIDER_PX = 8;
/** Arrow keys: how far they carry a tool and the table, screen px, and with Shift. */
const CARRY_PX = { plain: 2, shift: 20 } as const;
const MOVE_PX = { plain: 40, shift: 200 } as const;

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface Wanted {
  readonly table: TableView;
  readonly tool: TableTool | null | undefined;
  readonly isSplit: boolean;
  onPointer(place: ToolEvent | null): void;
}

/** A place of the screen, as a tool gets it. */
function toolEvent(
  px: number,
  py: number,
  { shiftKey, altKey }: { readonly shiftKey: boolean; readonly altKey: boolean },
  { zoom, x, y }: View,
): ToolEvent {
  return { x: (px - x) / zoom, y: (py - y) / zoom, isStraight: shiftKey, isFree: altKey, unitsPerPx: 1 / zoom };
}

export function useTableHand(wanted: Wanted) {
  const isSpaceHeld = useSpaceBar();
  const pointer = usePointer(wanted, isSpaceHeld);
  const keyboard = useKeyboard(wanted);
  const { tool } = wanted;
  return {
    splitX: pointer.splitX,
    crosshair: keyboard.crosshair,
    cursor: tool && !isSpaceHeld ? tool.cursor : undefined,
    handlers: { ...pointer.handlers, onKeyDown: keyboard.onKeyDown },
  };
}

function usePointer({ table, tool, isSplit, onPointer }: Wanted, isSpaceHeld: boolean) {
  const { size, shown, setView } = table;
  const [splitAt, setSplitAt] = useState(0.5);
  const drag = useRef<{ x: number; y: number; view: View } | "split" | "tool" | null>(null);
  const splitX = splitAt * size.width;
  const inTable = (event: PointerEvent<HTMLElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (!shown || event.button === 2) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = inTable(event);
    if (isSplit && Math.abs(at.x - splitX) < DIVIDER_PX) drag.current = "split";
    else if (tool && event.button === 0 && !isSpaceHeld) {
      drag.current = "tool";
      tool.onPress(toolEvent(at.x, at.y, event, shown));
    } else drag.current = { x: event.clientX, y: event.clientY, view: shown };
  };
  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    const at = inTable(event);
    const held = drag.current;
    if (!shown) return;
    const place = toolEvent(at.x, at.y, event, shown);
    if (held === "split") setSplitAt(Math.min(0.98, Math.max(0.02, at.x / size.width)));
    else if (held === "tool") tool?.onDrag(place);
    else if (held)
      setView({ ...held.view, x: held.view.x + event.clientX - held.x, y: held.view.y + event.clientY - held.y });
    else tool?.onHover?.(place);
    if (held === null || held === "tool") onPointer(place);
  };
  const onPointerUp = (event: PointerEvent<HTMLElement>) => {
    const held = drag.current;
    drag.current = null;
    const at = inTable(event);
    if (held === "tool" && shown) tool?.onRelease(toolEvent(at.x, at.y, event, shown));
  };
  const onPointerLeave = () => {
    if (drag.current === null) onPointer(null);
  };
  return { splitX, handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerLeave } };
}

function useKeyboard({ table, tool, onPointer }: Wanted) {
  const { size, shown, setView, fit, trueSize, zoomBy } = table;
  /** The keyboard's own pointer, screen px of the table; null until an arrow key is pressed with a tool in hand. */
  const [crosshair, setCrosshair] = useState<{ x: number; y: number; isPressed: boolean } | null>(null);
  useEffect(() => {
    if (!tool) setCrosshair(null);
  }, [tool]);
  /** Arrow keys carry the tool, Enter presses it down and lifts it. */
  const workTool = (event: KeyboardEvent): boolean => {
    const arrow = ARROWS[event.key];
    if (!tool || !shown) return false;
    const at = crosshair ?? { x: size.width / 2, y: size.height / 2, isPressed: false };
    if (event.key === "Enter") {
      const place = toolEvent(at.x, at.y, event, shown);
      if (at.isPressed) tool.onRelease(place);
      else tool.onPress(place);
      setCrosshair({ ...at, isPressed: !at.isPressed });
      return true;
    }
    if (!arrow) return false;
    const by = event.shiftKey ? CARRY_PX.shift : CARRY_PX.plain;
    const next = { ...at, x: at.x + arrow[0] * by, y: at.y + arrow[1] * by };
    const place = toolEvent(next.x, next.y, { shiftKey: false, altKey: event.altKey }, shown);
    if (at.isPressed) tool.onDrag(place);
    else tool.onHover?.(place);
    onPointer(place);
    setCrosshair(next);
    return true;
  };
  const moveTable = (event: KeyboardEvent): boolean => {
    const arrow = ARROWS[event.key];
    const by = event.shiftKey ? MOVE_PX.shift : MOVE_PX.plain;
    if (arrow && shown) setView({ ...shown, x: shown.x - arrow[0] * by, y: shown.y - arrow[1] * by });
    else if (event.key === "+" || event.key === "=") zoomBy(1.25);
    else if (event.key === "-") zoomBy(0.8);
    else if (event.key === "0") fit();
    else if (event.key === "1") trueSize();
    else return false;
    return true;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (tool?.onKey?.(event.key, event.shiftKey) || workTool(event) || moveTable(event)) event.preventDefault();
  };
  return { crosshair, onKeyDown };
}
