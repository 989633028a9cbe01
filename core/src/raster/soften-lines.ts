// Hard-edged lines one pixel wide: their staircase says where the line runs only as a whole. Each is drawn again along its
// middle, one pixel wide with coverage, as a renderer with anti-aliasing would have drawn it; then edges can be read from it
// as from any other line. Our own method.
import { lengthOf } from "../geometry/index.ts";
import { bytesAt, compiledLoops } from "../kernel/index.ts";
import type { Raster } from "./raster.ts";
import { stripsOf } from "./strips.ts";

/** Shorter than this is a dot or a serif, px. */
const LEAST_PX = 6;
/** Passes of a 1-2-1 mean along the middles of its pixels: a shallow line has steps of a dozen pixels. */
const PASSES = 40;
/** Directions are compared over so many pixels; a turn of more than 45 degrees is a corner, and stays. */
const SPAN_PX = 4;
const CORNER_COSINE = 0.7;
const HALF_WIDTH = 0.5;
/** Pixels beside one that say whether it is thin. */
const BEYOND = 2;
/** A pixel is covered by what lies in it of so many places along each side. */
const FINE = 4;

/** The picture with its hard thin lines drawn softly; the picture itself where there are none. Linear in pixels. */
export function softenHardLines(raster: Raster): Raster {
  const { width, height, data } = raster;
  const words = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const isThin = markThin(raster);
  if (!isThin) return raster;
  const lines = followLines(words, isThin, width, height).filter(
    (line) => line.length >= LEAST_PX && isAslant(line, width),
  );
  if (lines.length === 0) return raster;
  const out = data.slice();
  const covers = new Map<number, { share: number; word: number }>();
  for (const line of lines) {
    const word = words[line[0]];
    for (const p of line) if (!covers.has(p)) covers.set(p, { share: 0, word });
    coverLine(smoothMiddle(line, width), width, height, (p, share) => {
      const known = covers.get(p);
      if (!known || known.share < share) covers.set(p, { share, word });
    });
  }
  const inLine = new Set(lines.flat());
  for (const [p, { share, word }] of covers) {
    const ground = inLine.has(p) ? groundBeside(words, isThin, p, width, height) : words[p];
    for (let c = 0; c < 3; c++) {
      const line = (word >>> (8 * c)) & 255;
      const under = (ground >>> (8 * c)) & 255;
      out[p * 4 + c] = Math.round(line * share + under * (1 - share));
    }
  }
  return { width, height, data: out };
}

/** 1 for pixels between two that are alike and of another colour, each as the next beyond it: nothing is blended. Null if few are. */
function markThin(raster: Raster): Uint8Array | null {
  const { width, height } = raster;
  const isThin = new Uint8Array(width * height);
  let count = 0;
  for (const { pixels, made, rows, first, end, start } of stripsOf(raster, BEYOND, [0, height], 1)) {
    const here = compiledLoops().markThin(pixels, made, width, rows);
    if (here > 0) isThin.set(bytesAt(made + first * width, (end - first) * width), start);
    count += here;
  }
  return count < LEAST_PX ? null : isThin;
}

/** Runs of thin pixels of one colour from end to end, each pixel with at most two neighbours of its kind. */
function followLines(words: Uint32Array, isThin: Uint8Array, width: number, height: number): number[][] {
  const beside = (p: number) => {
    const found: number[] = [];
    const x = p % width;
    for (let v = -1; v <= 1; v++)
      for (let u = -1; u <= 1; u++) {
        const q = p + v * width + u;
        if ((u === 0 && v === 0) || x + u < 0 || x + u >= width || q < 0 || q >= width * height) continue;
        if (isThin[q] === 1 && words[q] === words[p]) found.push(q);
      }
    // Round a step two pixels side by side each see the third: the one across the corner is no neighbour.
    return found.filter((q) => !found.some((r) => r !== q && isAside(q, r, width) && !isAside(p, q, width)));
  };
  const links = new Map<number, readonly number[]>();
  for (let p = isThin.indexOf(1); p >= 0; p = isThin.indexOf(1, p + 1)) links.set(p, beside(p));
  const seen = new Set<number>();
  const lines: number[][] = [];
  const walk = (start: number, first: number) => {
    const line = [start, first];
    seen.add(start);
    for (let p = first, before = start; ; ) {
      seen.add(p);
      const own = links.get(p) ?? [];
      if (own.length !== 2) break;
      const next = own[0] === before ? own[1] : own[0];
      if (seen.has(next)) break;
      line.push(next);
      before = p;
      p = next;
    }
    return line;
  };
  for (const [p, own] of links) {
    if (own.length === 2 || seen.has(p)) continue;
    for (const first of own) if (!seen.has(first)) lines.push(walk(p, first));
  }
  return lines;
}

function isAside(a: number, b: number, width: number): boolean {
  const step = Math.abs(a - b);
  return step === 1 || step === width;
}

/** Whether a line leaves its row and its column: level and upright ones are what they should be. */
function isAslant(line: readonly number[], width: number): boolean {
  const x0 = line[0] % width;
  const y0 = Math.floor(line[0] / width);
  return line.some((p) => p % width !== x0) && line.some((p) => Math.floor(p / width) !== y0);
}

/** Middles of a line's pixels, smoothed between its ends and corners, with half a pixel more at both ends. */
function smoothMiddle(line: readonly number[], width: number): Float64Array {
  const n = line.length;
  let points = new Float64Array(n * 2);
  line.forEach((p, i) => {
    points[i * 2] = (p % width) + 0.5;
    points[i * 2 + 1] = Math.floor(p / width) + 0.5;
  });
  const isPinned = markCorners(points);
  for (let pass = 0; pass < PASSES; pass++) {
    const next = points.slice();
    for (let i = 1; i < n - 1; i++)
      if (isPinned[i] === 0)
        for (let c = 0; c < 2; c++)
          next[i * 2 + c] = (points[i * 2 - 2 + c] + 2 * points[i * 2 + c] + points[i * 2 + 2 + c]) / 4;
    points = next;
  }
  // The ends follow the way the line comes in, so that they do not hang from their own step.
  straightenEnd(points, 0, 1);
  straightenEnd(points, n - 1, -1);
  return points;
}

/** Lays an end of a line on the line through what lies behind it, half a pixel farther out. */
function straightenEnd(points: Float64Array, end: number, inwards: 1 | -1): void {
  const n = points.length / 2;
  const near = end + inwards * Math.min(SPAN_PX, Math.floor((n - 1) / 2));
  const far = end + inwards * Math.min(3 * SPAN_PX, n - 1);
  const dx = points[near * 2] - points[far * 2];
  const dy = points[near * 2 + 1] - points[far * 2 + 1];
  const length = lengthOf(dx, dy);
  if (length === 0) return;
  const [ux, uy] = [dx / length, dy / length];
  const [nx, ny] = [points[near * 2], points[near * 2 + 1]];
  for (let i = end; i !== near; i += inwards) {
    const along = (points[i * 2] - nx) * ux + (points[i * 2 + 1] - ny) * uy + (i === end ? HALF_WIDTH : 0);
    points[i * 2] = nx + ux * along;
    points[i * 2 + 1] = ny + uy * along;
  }
}

function markCorners(points: Float64Array): Uint8Array {
  const n = points.length / 2;
  const cosines = new Float64Array(n).fill(1);
  for (let i = SPAN_PX; i + SPAN_PX < n; i++) {
    const ax = points[i * 2] - points[(i - SPAN_PX) * 2];
    const ay = points[i * 2 + 1] - points[(i - SPAN_PX) * 2 + 1];
    const bx = points[(i + SPAN_PX) * 2] - points[i * 2];
    const by = points[(i + SPAN_PX) * 2 + 1] - points[i * 2 + 1];
    cosines[i] = (ax * bx + ay * by) / (lengthOf(ax, ay) * lengthOf(bx, by));
  }
  return Uint8Array.from(cosines, (cosine, i) => {
    if (cosine >= CORNER_COSINE) return 0;
    for (let k = -SPAN_PX; k <= SPAN_PX; k++) if ((cosines[i + k] ?? 1) < cosine) return 0;
    return 1;
  });
}

/** Tells every pixel near a polyline what share of it lies within HALF_WIDTH of it, square at its ends. */
function coverLine(
  points: Float64Array,
  width: number,
  height: number,
  tell: (p: number, share: number) => void,
): void {
  const n = points.length / 2;
  const bits = new Map<number, number>();
  for (let i = 1; i < n; i++) {
    const [ax, ay, bx, by] = points.subarray(i * 2 - 2, i * 2 + 2);
    const length = lengthOf(bx - ax, by - ay);
    if (length === 0) continue;
    const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
    for (let y = Math.max(0, Math.floor(Math.min(ay, by) - 1)); y <= Math.min(height - 1, Math.max(ay, by) + 1); y++)
      for (let x = Math.max(0, Math.floor(Math.min(ax, bx) - 1)); x <= Math.min(width - 1, Math.max(ax, bx) + 1); x++) {
        let inside = bits.get(y * width + x) ?? 0;
        for (let k = 0; k < FINE * FINE; k++) {
          const px = x + ((k % FINE) + 0.5) / FINE - ax;
          const py = y + (Math.floor(k / FINE) + 0.5) / FINE - ay;
          const along = px * ux + py * uy;
          const isFirst = i === 1 ? along < 0 : along < -HALF_WIDTH;
          const isLast = i === n - 1 ? along > length : along > length + HALF_WIDTH;
          if (!isFirst && !isLast && Math.abs(px * uy - py * ux) <= HALF_WIDTH) inside |= 1 << k;
        }
        if (inside !== 0) bits.set(y * width + x, inside);
      }
  }
  for (const [p, inside] of bits) {
    let count = 0;
    for (let k = 0; k < FINE * FINE; k++) count += (inside >>> k) & 1;
    tell(p, count / (FINE * FINE));
  }
}

/** What lies beside a line's pixel. */
function groundBeside(words: Uint32Array, isThin: Uint8Array, p: number, width: number, height: number): number {
  for (const step of [-width, width, -1, 1, -width - 1, width + 1, -width + 1, width - 1]) {
    const q = p + step;
    if (q >= 0 && q < width * height && isThin[q] === 0) return words[q];
  }
  return words[p];
}
