// Where the light table is moved to and how near, and how large its window is.
import {
  type Ref,
  type RefObject,
  useCallback,
  useEffect,
  useImperativeHandle,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import type { TableMemory } from "./table-memory.ts";
import { MAX_ZOOM, MIN_ZOOM, type Size, type View } from "./tiles.ts";

/** What the bar under the table asks of it. */
export interface TableControls {
  fit(): void;
  trueSize(): void;
  zoomBy(factor: number): void;
  /** Brings a place to the middle, near enough to see a few millimetres round it. */
  showPlace(x: number, y: number): void;
  /** The keyboard works on it from now on. */
  focus(): void;
}

/** CSS pixels in a millimetre: 96 to the inch (CSS Values 3, 6.2). */
const CSS_PX_PER_MM = 96 / 25.4;
const MARGIN_PX = 28;
/** Width of what is seen of a place that is shown, mm. */
const PLACE_MM = 20;

interface Wanted {
  readonly name: string;
  readonly memory: TableMemory;
  /** Size of what lies on the table, in its units. */
  readonly width: number;
  readonly height: number;
  readonly mmPerUnit: number;
  readonly controls: Ref<TableControls>;
  onZoom(screenPxPerMm: number): void;
}

export interface TableView extends TableControls {
  readonly frame: RefObject<HTMLDivElement | null>;
  readonly size: Size;
  /** What is seen now; null until the window has a size. */
  readonly shown: View | null;
  setView(view: View | null): void;
}

export function useTableView({ name, memory, width, height, mmPerUnit, controls, onZoom }: Wanted): TableView {
  const frame = useRef<HTMLDivElement>(null);
  const size = useSizeOf(frame);
  const [view, setView] = useState<View | null>(memory.views.get(name) ?? null);
  useEffect(() => {
    if (view) memory.views.set(name, view);
    else memory.views.delete(name);
  }, [view, name, memory]);
  const centred = useCallback(
    (zoom: number): View => ({ zoom, x: (size.width - width * zoom) / 2, y: (size.height - height * zoom) / 2 }),
    [size, width, height],
  );
  const fitted = useCallback(() => {
    const room = { width: size.width - 2 * MARGIN_PX, height: size.height - 2 * MARGIN_PX };
    return centred(Math.max(MIN_ZOOM, Math.min(room.width / width, room.height / height)));
  }, [size, width, height, centred]);
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
  const panBy = useCallback(
    (dx: number) =>
      setView((old) => {
        const from = old ?? fitted();
        return { ...from, x: from.x + dx };
      }),
    [fitted],
  );
  useWheel(frame, zoomAt, panBy);
  const own: TableControls = {
    focus: () => frame.current?.focus(),
    fit: () => setView(null),
    trueSize: () => setView(centred(CSS_PX_PER_MM * mmPerUnit)),
    zoomBy: (factor) => zoomAt(factor, size.width / 2, size.height / 2),
    showPlace: (x, y) => {
      const near = Math.min(MAX_ZOOM, (size.width * mmPerUnit) / PLACE_MM);
      setView({ zoom: near, x: size.width / 2 - x * near, y: size.height / 2 - y * near });
    },
  };
  useImperativeHandle(controls, () => own);
  // Until a person moves it, the table shows all of what lies on it.
  const shown = size.width === 0 ? null : (view ?? fitted());
  const zoom = shown?.zoom;
  useEffect(() => {
    if (zoom !== undefined) onZoom(zoom / mmPerUnit);
  }, [zoom, mmPerUnit, onZoom]);
  return { frame, size, shown, setView, ...own };
}

/** The size of an element, whenever it changes. */
function useSizeOf(frame: RefObject<HTMLElement | null>): Size {
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  // Before the first paint: a table that is put up again does not blink.
  useLayoutEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [frame]);
  return size;
}

/** The wheel is bound by hand: React's listener is passive and could not keep the page from scrolling. */
function useWheel(
  frame: RefObject<HTMLElement | null>,
  zoomAt: (factor: number, px: number, py: number) => void,
  panBy: (dx: number) => void,
): void {
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      // A pinch comes as a wheel with Ctrl, in smaller steps (as browsers do; no standard says so).
      const speed = event.ctrlKey ? 0.01 : 0.0015;
      const isSideways = event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY);
      if (isSideways && !event.ctrlKey) panBy(-(event.deltaX || event.deltaY));
      else zoomAt(Math.exp(-event.deltaY * speed), event.clientX - box.left, event.clientY - box.top);
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  }, [frame, zoomAt, panBy]);
}
