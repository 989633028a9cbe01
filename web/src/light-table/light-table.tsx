// The light table: draws layers, pans, zooms, splits, and says what place is under the pointer.
import {
  type KeyboardEvent,
  type PointerEvent,
  type Ref,
  useCallback,
  useEffect,
  useImperativeHandle,
  useMemo,
  useRef,
  useState,
} from "react";
import { Group, Layer, Shape, Stage } from "react-konva";
import { drawLayer, type TableLayer } from "./layers.ts";
import { type Size, TilePainter, type View } from "./tiles.ts";
import type { TableTool, ToolEvent } from "./tool.ts";
import { useSpaceBar } from "./use-space-bar.ts";

/** What the bar under the table asks of it. */
export interface TableControls {
  fit(): void;
  trueSize(): void;
  zoomBy(factor: number): void;
  /** Brings a place to the middle, near enough to see a few millimetres round it. */
  showPlace(x: number, y: number): void;
}

interface Props {
  /** Size of what lies on the table, in table units. */
  readonly width: number;
  readonly height: number;
  readonly mmPerUnit: number;
  readonly layers: readonly TableLayer[];
  /** What a tool shows over all of it: little, and another with every move of the pointer. */
  readonly overlays?: readonly TableLayer[];
  /** Shown left of a movable divider instead of `layers`. */
  readonly splitLayers?: readonly TableLayer[] | undefined;
  /** Works with what a person presses and drags; without one, dragging moves the table. */
  readonly tool?: TableTool | null | undefined;
  readonly controls: Ref<TableControls>;
  onPointer(place: { readonly x: number; readonly y: number } | null): void;
  onZoom(screenPxPerMm: number): void;
}

const NO_LAYERS: readonly TableLayer[] = [];
/** CSS pixels in a millimetre: 96 to the inch (CSS Values 3, 6.2). */
const CSS_PX_PER_MM = 96 / 25.4;
const MARGIN_PX = 28;
/** Width of what is seen of a place that is shown, mm. */
const PLACE_MM = 20;
const MIN_ZOOM = 0.01;
const MAX_ZOOM = 80;

export function LightTable({
  width,
  height,
  mmPerUnit,
  layers,
  overlays = NO_LAYERS,
  splitLayers,
  tool,
  controls,
  onPointer,
  onZoom,
}: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [view, setView] = useState<View | null>(null);
  const [splitAt, setSplitAt] = useState(0.5);
  const drag = useRef<{ x: number; y: number; view: View } | "split" | "tool" | null>(null);
  const isSpaceHeld = useSpaceBar();
  /** The keyboard's own pointer, screen px of the table; null until an arrow key is pressed with a tool in hand. */
  const [crosshair, setCrosshair] = useState<{ x: number; y: number; isPressed: boolean } | null>(null);
  useEffect(() => {
    if (!tool) setCrosshair(null);
  }, [tool]);

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setSize({ width: element.clientWidth, height: element.clientHeight }));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const centred = useCallback(
    (zoom: number): View => ({ zoom, x: (size.width - width * zoom) / 2, y: (size.height - height * zoom) / 2 }),
    [size, width, height],
  );
  const fitted = useCallback(() => {
    const room = { width: size.width - 2 * MARGIN_PX, height: size.height - 2 * MARGIN_PX };
    return centred(Math.max(MIN_ZOOM, Math.min(room.width / width, room.height / height)));
  }, [size, width, height, centred]);

  // Until a person moves it, the table shows all of what lies on it.
  const shown = size.width === 0 ? null : (view ?? fitted());
  const zoomAt = useCallback(
    (factor: number, px: number, py: number) =>
      setView((old) => {
        const from = old ?? fitted();
        const zoom = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, from.zoom * factor));
        const f = zoom / from.zoom;
        return { zoom, x: px - (px - from.x) * f, y: py - (py - from.y) * f };
      }),
    [fitted],
  );

  useImperativeHandle(
    controls,
    () => ({
      fit: () => setView(null),
      trueSize: () => setView(centred(CSS_PX_PER_MM * mmPerUnit)),
      zoomBy: (factor) => zoomAt(factor, size.width / 2, size.height / 2),
      showPlace: (x, y) => {
        const near = Math.min(MAX_ZOOM, (size.width * mmPerUnit) / PLACE_MM);
        setView({ zoom: near, x: size.width / 2 - x * near, y: size.height / 2 - y * near });
      },
    }),
    [centred, zoomAt, mmPerUnit, size],
  );

  const zoom = shown?.zoom;
  useEffect(() => {
    if (zoom !== undefined) onZoom(zoom / mmPerUnit);
  }, [zoom, mmPerUnit, onZoom]);

  // The wheel is bound by hand: React's listener is passive and could not keep the page from scrolling.
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      zoomAt(Math.exp(-event.deltaY * 0.0015), event.clientX - box.left, event.clientY - box.top);
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  }, [zoomAt]);

  const splitX = splitAt * size.width;
  const toolEvent = (px: number, py: number, isStraight: boolean, from: View): ToolEvent => ({
    x: (px - from.x) / from.zoom,
    y: (py - from.y) / from.zoom,
    isStraight,
    unitsPerPx: 1 / from.zoom,
  });
  const inTable = (event: PointerEvent<HTMLElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const onPointerDown = (event: PointerEvent<HTMLElement>) => {
    if (!shown || event.button === 2) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = inTable(event);
    if (splitLayers && Math.abs(at.x - splitX) < 8) drag.current = "split";
    else if (tool && event.button === 0 && !isSpaceHeld) {
      drag.current = "tool";
      tool.onPress(toolEvent(at.x, at.y, event.shiftKey, shown));
    } else drag.current = { x: event.clientX, y: event.clientY, view: shown };
  };
  const onPointerMove = (event: PointerEvent<HTMLElement>) => {
    const at = inTable(event);
    const held = drag.current;
    if (!shown) return;
    const place = toolEvent(at.x, at.y, event.shiftKey, shown);
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
    if (held === "tool" && shown) tool?.onRelease(toolEvent(at.x, at.y, event.shiftKey, shown));
  };
  /** Arrow keys carry the tool, Enter presses it down and lifts it. */
  const workByKeyboard = (event: KeyboardEvent, move: readonly [number, number] | undefined): boolean => {
    if (!tool || !shown) return false;
    const at = crosshair ?? { x: size.width / 2, y: size.height / 2, isPressed: false };
    if (event.key === "Enter") {
      const place = toolEvent(at.x, at.y, event.shiftKey, shown);
      if (at.isPressed) tool.onRelease(place);
      else tool.onPress(place);
      setCrosshair({ ...at, isPressed: !at.isPressed });
      return true;
    }
    if (!move) return false;
    const next = {
      ...at,
      x: at.x - Math.sign(move[0]) * (event.shiftKey ? 20 : 2),
      y: at.y - Math.sign(move[1]) * (event.shiftKey ? 20 : 2),
    };
    const place = toolEvent(next.x, next.y, false, shown);
    if (at.isPressed) tool.onDrag(place);
    else tool.onHover?.(place);
    onPointer(place);
    setCrosshair(next);
    return true;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 200 : 40;
    const moves: Record<string, readonly [number, number]> = {
      ArrowLeft: [step, 0],
      ArrowRight: [-step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    const move = moves[event.key];
    if (workByKeyboard(event, move)) event.preventDefault();
    else {
      if (move && shown) setView({ ...shown, x: shown.x + move[0], y: shown.y + move[1] });
      else if (event.key === "+" || event.key === "=") zoomAt(1.25, size.width / 2, size.height / 2);
      else if (event.key === "-") zoomAt(0.8, size.width / 2, size.height / 2);
      else if (event.key === "0") setView(null);
      else if (event.key === "1") setView(centred(CSS_PX_PER_MM * mmPerUnit));
      else return;
      event.preventDefault();
    }
  };

  return (
    <section
      ref={frame}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: panned and zoomed from the keyboard
      tabIndex={0}
      aria-label={
        tool
          ? `Light table. ${tool.hint} With the keyboard: arrow keys carry the tool, Enter presses and lifts it.`
          : "Light table. Arrow keys move it, plus and minus zoom, 0 shows all, 1 shows true size."
      }
      style={{ cursor: tool && !isSpaceHeld ? tool.cursor : undefined }}
      className="relative min-h-0 flex-1 cursor-grab touch-none overflow-hidden bg-table active:cursor-grabbing focus-visible:outline-offset-[-3px]"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerLeave={() => {
        if (drag.current === null) onPointer(null);
      }}
      onKeyDown={onKeyDown}
    >
      {shown && (
        <Stage width={size.width} height={size.height} listening={false}>
          <Layer listening={false}>
            <Group clipFunc={splitLayers && ((c) => c.rect(splitX, 0, size.width - splitX, size.height))}>
              <Drawn layers={layers} overlays={overlays} view={shown} size={size} />
            </Group>
            {splitLayers && (
              <Group clipFunc={(c) => c.rect(0, 0, splitX, size.height)}>
                <Drawn layers={splitLayers} overlays={NO_LAYERS} view={shown} size={size} />
              </Group>
            )}
          </Layer>
        </Stage>
      )}
      {crosshair && (
        <svg
          aria-hidden="true"
          className="pointer-events-none absolute size-8 -translate-x-1/2 -translate-y-1/2"
          style={{ left: crosshair.x, top: crosshair.y }}
          viewBox="-16 -16 32 32"
        >
          <path d="M-15 0H15M0-15V15" stroke="#fff" strokeWidth="4" />
          <path d="M-15 0H15M0-15V15" stroke="#1e1d1a" strokeWidth={crosshair.isPressed ? 2.5 : 1} />
        </svg>
      )}
      {splitLayers && (
        <div className="pointer-events-none absolute inset-y-0 w-px bg-ink" style={{ left: splitX }}>
          <span className="absolute right-2 top-2 whitespace-nowrap bg-sheet/90 px-1.5 text-xs">Source</span>
          <span className="absolute left-2 top-2 whitespace-nowrap bg-sheet/90 px-1.5 text-xs">Result</span>
          <span className="absolute -left-2 top-1/2 h-9 w-4 border border-ink bg-sheet" />
        </div>
      )}
    </section>
  );
}

interface DrawnProps {
  readonly layers: readonly TableLayer[];
  readonly overlays: readonly TableLayer[];
  readonly view: View;
  readonly size: Size;
}

function Drawn({ layers, overlays, view, size }: DrawnProps) {
  const painter = useMemo(() => new TilePainter(), []);
  const { zoom, x, y } = view;
  const seen = { left: -x / zoom, top: -y / zoom, right: (size.width - x) / zoom, bottom: (size.height - y) / zoom };
  return (
    <>
      <Shape
        listening={false}
        perfectDrawEnabled={false}
        sceneFunc={({ _context: context }, shape) => {
          const isWhole = painter.paint(context, layers, view, size, window.devicePixelRatio);
          if (!isWhole) requestAnimationFrame(() => shape.getLayer()?.batchDraw());
        }}
      />
      <Group x={x} y={y} scaleX={zoom} scaleY={zoom}>
        <Shape
          listening={false}
          perfectDrawEnabled={false}
          sceneFunc={({ _context: context }) => {
            for (const layer of overlays) drawLayer(context, layer, zoom, seen);
          }}
        />
      </Group>
    </>
  );
}
