// The light table: draws layers, pans, zooms, splits, and says what place is under the pointer.
import type { KeyboardEvent, Ref } from "react";
import type { TableLayer } from "./layers.ts";
import { MovingLayer, type MovingPicture } from "./moving-picture.tsx";
import { TableCanvas } from "./table-canvas.tsx";
import type { TableMemory } from "./table-memory.ts";
import type { TableTool } from "./tool.ts";
import { useTableHand } from "./use-table-hand.ts";
import { type TableControls, useTableView } from "./use-table-view.ts";

interface Props {
  /** Names what lies on the table in its memory. */
  readonly name: string;
  readonly memory: TableMemory;
  /** Size of what lies on the table, in table units. */
  readonly width: number;
  readonly height: number;
  readonly mmPerUnit: number;
  readonly layers: readonly TableLayer[];
  /** What a tool shows over all of it: little, and another with every move of the pointer. */
  readonly overlays?: readonly TableLayer[];
  /** Over all of it, drawn by itself. */
  readonly moving?: MovingPicture | null | undefined;
  /** Shown left of a movable divider instead of `layers`. */
  readonly splitLayers?: readonly TableLayer[] | undefined;
  /** Works with what a person presses and drags; without one, dragging moves the table. */
  readonly tool?: TableTool | null | undefined;
  readonly controls: Ref<TableControls>;
  onPointer(place: { readonly x: number; readonly y: number } | null): void;
  /** The keyboard's pointer rests where `onPointer` said last. */
  onRest(): void;
  onZoom(screenPxPerMm: number): void;
}

const NO_LAYERS: readonly TableLayer[] = [];

export function LightTable(props: Props) {
  const { name, memory, layers, overlays = NO_LAYERS, moving, splitLayers, tool, onPointer, onRest } = props;
  const table = useTableView(props);
  const { splitX, splitAt, setSplitAt, crosshair, cursor, handlers } = useTableHand({
    table,
    tool,
    isSplit: splitLayers !== undefined,
    onPointer,
    onRest,
  });
  const { frame, shown, size } = table;
  const words = tool
    ? "Arrow keys carry the tool, Enter presses it and lifts it. + and \u2212 zoom, 0 shows all. Escape lays it down."
    : "Arrow keys move the table, + and \u2212 zoom, 0 shows all, 1 shows true size. ? lists all keys.";
  return (
    <section
      id="light-table"
      ref={frame}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: panned and zoomed from the keyboard
      tabIndex={0}
      aria-label={`Light table. ${tool?.hint ?? ""} ${words}`}
      style={{ cursor }}
      className="light-table relative min-h-0 flex-1 cursor-grab touch-none overflow-hidden bg-table active:cursor-grabbing focus-visible:outline-offset-[-3px]"
      {...handlers}
    >
      <p className="key-words pointer-events-none absolute inset-x-3 top-3 z-10 border border-rule bg-sheet/95 px-2.5 py-1 text-xs">
        {words}
      </p>
      {shown && (
        <TableCanvas
          name={name}
          memory={memory}
          layers={layers}
          overlays={overlays}
          splitLayers={splitLayers}
          splitX={splitX}
          view={shown}
          size={size}
        />
      )}
      {shown && moving && <MovingLayer picture={moving} view={shown} size={size} fromX={splitLayers ? splitX : 0} />}
      {crosshair && <Crosshair {...crosshair} />}
      {splitLayers && (
        <div className="pointer-events-none absolute inset-y-0 w-px bg-ink" style={{ left: splitX }}>
          <span className="absolute right-2 top-2 whitespace-nowrap bg-sheet/90 px-1.5 text-xs">Source</span>
          <span className="absolute left-2 top-2 whitespace-nowrap bg-sheet/90 px-1.5 text-xs">Result</span>
          <Divider share={splitAt} onMove={setSplitAt} />
        </div>
      )}
    </section>
  );
}

/** Between source and result, moved by the arrow keys when it has the focus; the pointer takes it from the table. */
function Divider({ share, onMove }: { share: number; onMove(share: number): void }) {
  const onKeyDown = (event: KeyboardEvent) => {
    const way = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
    if (way === undefined) return;
    event.preventDefault();
    onMove(share + way * (event.shiftKey ? 0.1 : 0.01));
  };
  return (
    <span
      role="slider"
      tabIndex={0}
      aria-label="Divider between source and result"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(share * 100)}
      className="absolute -left-3 top-1/2 h-9 w-6 border border-ink bg-sheet"
      onKeyDown={onKeyDown}
    />
  );
}

/** The keyboard's own pointer. */
function Crosshair({ x, y, isPressed }: { x: number; y: number; isPressed: boolean }) {
  return (
    <svg
      aria-hidden="true"
      className="pointer-events-none absolute size-8 -translate-x-1/2 -translate-y-1/2"
      style={{ left: x, top: y }}
      viewBox="-16 -16 32 32"
    >
      <path d="M-15 0H15M0-15V15" stroke="#fff" strokeWidth="4" />
      <path d="M-15 0H15M0-15V15" stroke="#1e1d1a" strokeWidth={isPressed ? 2.5 : 1} />
    </svg>
  );
}
