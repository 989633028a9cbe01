// Filling what hangs together from a place: the one flood fill. Its cost is that of the area it fills.
import { grow } from "./growing.ts";

/**
 * Fills from `start` in spans of rows, through pixel sides, wherever a pixel's value is one that `isOpen` takes. `isTaken` has
 * a byte for every pixel: 0 where the fill may go, 1 where it was. `onSpan` gets each span's first pixel and the one after its
 * last. Source: A. R. Smith, "Tint Fill" (SIGGRAPH 1979), the scan-line seed fill.
 */
export function fillSpans(
  { values, width }: { readonly values: Uint8Array | Uint32Array; readonly width: number },
  isTaken: Uint8Array,
  start: number,
  isOpen: (value: number) => boolean,
  onSpan: (from: number, to: number) => void,
): void {
  if (isTaken[start] === 1 || !isOpen(values[start])) return;
  // Flat art repeats itself: the last value that was open and the last that was not are known by sight.
  let open = values[start];
  let closed = -1;
  let stack = new Int32Array(256);
  let depth = 0;
  stack[depth++] = start;
  while (depth > 0) {
    const seed = stack[--depth];
    if (isTaken[seed] === 1) continue;
    const rowStart = seed - (seed % width);
    let from = seed;
    let to = seed + 1;
    for (; from > rowStart && isTaken[from - 1] === 0; from--) {
      const value = values[from - 1];
      if (value === open) continue;
      if (value === closed || !isOpen(value)) {
        closed = value;
        break;
      }
      open = value;
    }
    for (; to < rowStart + width && isTaken[to] === 0; to++) {
      const value = values[to];
      if (value === open) continue;
      if (value === closed || !isOpen(value)) {
        closed = value;
        break;
      }
      open = value;
    }
    isTaken.fill(1, from, to);
    onSpan(from, to);
    for (let side = 0; side < 2; side++) {
      const step = side === 0 ? -width : width;
      if (from + step < 0 || from + step >= values.length) continue;
      // One entry for each run of the neighbouring row that the fill can enter.
      let isInRun = false;
      for (let q = from + step; q < to + step; q++) {
        let isNext = isTaken[q] === 0;
        if (isNext) {
          const value = values[q];
          if (value !== open) {
            isNext = value !== closed && isOpen(value);
            if (isNext) open = value;
            else closed = value;
          }
        }
        if (isNext && !isInRun) {
          if (depth === stack.length) stack = grow(stack);
          stack[depth++] = q;
        }
        isInRun = isNext;
      }
    }
  }
}
