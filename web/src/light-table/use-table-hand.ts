// The hand on the light table, by pointer or by keyboard: it works with the tool, or moves the table.
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { toolEvent } from "./tool.ts";
import { type TableWork, usePointer } from "./use-pointer.ts";
import { useSpaceBar } from "./use-space-bar.ts";

/** Arrow keys: how far they carry a tool and the table, screen px, and with Shift. */
const CARRY_PX = { plain: 2, shift: 20 } as const;
const MOVE_PX = { plain: 40, shift: 200 } as const;

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

export function useTableHand(wanted: TableWork) {
  const isSpaceHeld = useSpaceBar(wanted.table.frame);
  const pointer = usePointer(wanted, isSpaceHeld);
  const keyboard = useKeyboard(wanted);
  const { tool } = wanted;
  return {
    splitX: pointer.splitX,
    splitAt: pointer.splitAt,
    setSplitAt: pointer.setSplitAt,
    crosshair: keyboard.crosshair,
    cursor: tool && !isSpaceHeld ? tool.cursor : undefined,
    handlers: { ...pointer.handlers, onKeyDown: keyboard.onKeyDown },
  };
}

/** How long the keyboard's pointer stays where it is until it rests, ms. */
const REST_MS = 500;

function useKeyboard({ table, tool, onPointer, onRest }: TableWork) {
  const { size, shown, setView, fit, trueSize, zoomBy } = table;
  /** The keyboard's own pointer, screen px of the table; null until an arrow key is pressed with a tool in hand. */
  const [crosshair, setCrosshair] = useState<{ x: number; y: number; isPressed: boolean } | null>(null);
  useEffect(() => {
    if (!tool) setCrosshair(null);
  }, [tool]);
  const latest = useRef(onRest);
  latest.current = onRest;
  useEffect(() => {
    if (!crosshair) return;
    const timer = setTimeout(() => latest.current(), REST_MS);
    return () => clearTimeout(timer);
  }, [crosshair]);
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
    // What lies on the table and has the focus has its own keys.
    if (event.target !== event.currentTarget) return;
    if (tool?.onKey?.(event.key, event.shiftKey) || workTool(event) || moveTable(event)) event.preventDefault();
  };
  return { crosshair, onKeyDown };
}
