// The pointer on the light table: it works with the tool, moves the table or its divider. Two fingers move and zoom the table
// whatever is in hand.
import { type PointerEvent, useRef, useState } from "react";
import { pinchView, type Touch } from "./pinch.ts";
import type { View } from "./tiles.ts";
import { type TableTool, type ToolEvent, toolEvent } from "./tool.ts";
import type { TableView } from "./use-table-view.ts";

/** How near to the divider the pointer takes hold of it, screen px. */
const DIVIDER_PX = 8;
/** The divider stays on the table. */
const SPLIT_ENDS = { min: 0.02, max: 0.98 } as const;
/** What a finger begins waits until it has gone so far, screen px: a second one may come. */
const FINGER_PX = 6;

export interface TableWork {
  readonly table: TableView;
  readonly tool: TableTool | null | undefined;
  readonly isSplit: boolean;
  onPointer(place: ToolEvent | null): void;
  /** The keyboard's pointer rests: what is under it may be said. */
  onRest(): void;
}

/** Where the pointer is, px from the table's corner. */
interface Spot {
  readonly x: number;
  readonly y: number;
  readonly shiftKey: boolean;
  readonly altKey: boolean;
}

function spotOf(event: PointerEvent<HTMLElement>): Spot {
  const box = event.currentTarget.getBoundingClientRect();
  const { shiftKey, altKey } = event;
  return { x: event.clientX - box.left, y: event.clientY - box.top, shiftKey, altKey };
}

export function usePointer(work: TableWork, isSpaceHeld: boolean) {
  const { table, onPointer } = work;
  const [splitAt, putSplit] = useState(0.5);
  const setSplitAt = (share: number) => putSplit(Math.min(SPLIT_ENDS.max, Math.max(SPLIT_ENDS.min, share)));
  const splitX = splitAt * table.size.width;
  const hand = useHand(work, isSpaceHeld, splitX, setSplitAt);
  const fingers = useFingers(table, hand);
  const handOf = ({ pointerType, pointerId }: PointerEvent<HTMLElement>): Hand =>
    pointerType === "touch" ? fingers(pointerId) : hand;
  return {
    ...{ splitX, splitAt, setSplitAt },
    handlers: {
      onPointerDown: (event: PointerEvent<HTMLElement>) => {
        if (event.button === 2) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        handOf(event).press(spotOf(event), event.button);
      },
      onPointerMove: (event: PointerEvent<HTMLElement>) => handOf(event).move(spotOf(event)),
      onPointerUp: (event: PointerEvent<HTMLElement>) => handOf(event).lift(spotOf(event)),
      onPointerCancel: (event: PointerEvent<HTMLElement>) => handOf(event).lift(spotOf(event)),
      onPointerLeave: () => {
        if (!hand.isPressed()) onPointer(null);
      },
    },
  };
}

interface Hand {
  press(at: Spot, button: number): void;
  move(at: Spot): void;
  lift(at: Spot): void;
}

/** One pointer. */
function useHand(
  { table, tool, isSplit, onPointer }: TableWork,
  isSpaceHeld: boolean,
  splitX: number,
  setSplitAt: (share: number) => void,
): Hand & { isPressed(): boolean; letGo(): void; isWorking(): boolean } {
  const { size, shown, setView } = table;
  const drag = useRef<{ from: Spot; view: View } | "split" | "tool" | null>(null);
  return {
    press(at, button) {
      if (!shown) return;
      if (isSplit && Math.abs(at.x - splitX) < DIVIDER_PX) drag.current = "split";
      else if (tool && button === 0 && !isSpaceHeld) {
        drag.current = "tool";
        tool.onPress(toolEvent(at.x, at.y, at, shown));
      } else drag.current = { from: at, view: shown };
    },
    move(at) {
      const held = drag.current;
      if (!shown) return;
      const place = toolEvent(at.x, at.y, at, shown);
      if (held === "split") setSplitAt(at.x / size.width);
      else if (held === "tool") tool?.onDrag(place);
      else if (held)
        setView({ ...held.view, x: held.view.x + at.x - held.from.x, y: held.view.y + at.y - held.from.y });
      else tool?.onHover?.(place);
      if (held === null || held === "tool") onPointer(place);
    },
    lift(at) {
      const held = drag.current;
      drag.current = null;
      if (held === "tool" && shown) tool?.onRelease(toolEvent(at.x, at.y, at, shown));
    },
    isPressed: () => drag.current !== null,
    isWorking: () => drag.current === "tool",
    letGo() {
      drag.current = null;
    },
  };
}

/** Fingers by their pointers' ids: one is a hand, two pinch. */
function useFingers({ shown, setView }: TableView, hand: ReturnType<typeof useHand>): (id: number) => Hand {
  const down = useRef(new Map<number, Spot>());
  const waiting = useRef<Spot | null>(null);
  const pinch = useRef<{ readonly from: Touch; readonly view: View } | null>(null);
  const touch = (): Touch | null => {
    const [a, b] = [...down.current.values()];
    return a && b ? [a, b] : null;
  };
  const begin = (at: Spot) => {
    if (waiting.current) hand.press(waiting.current, 0);
    waiting.current = null;
    hand.move(at);
  };
  return (id) => ({
    press(at) {
      down.current.set(id, at);
      const from = touch();
      if (!from) waiting.current = at;
      else if (shown && !hand.isWorking()) {
        waiting.current = null;
        hand.letGo();
        pinch.current = { from, view: shown };
      }
    },
    move(at) {
      if (!down.current.has(id)) return;
      down.current.set(id, at);
      const to = touch();
      if (pinch.current) {
        if (to) setView(pinchView(pinch.current.view, pinch.current.from, to));
      } else if (!waiting.current || Math.hypot(at.x - waiting.current.x, at.y - waiting.current.y) > FINGER_PX)
        begin(at);
    },
    lift(at) {
      down.current.delete(id);
      if (pinch.current) {
        if (down.current.size === 0) pinch.current = null;
        return;
      }
      if (waiting.current) begin(at);
      hand.lift(at);
    },
  });
}
