// Connected regions of one label, and the absorption of those too small to keep.
import { type LabelMap, NONE } from "../raster/index.ts";

/** Regions of a label map, connected through pixel sides. Every pixel has a region, transparent ones too. */
export interface Components {
  /** Region of every pixel. */
  readonly of: Int32Array;
  /** Label of every region. */
  readonly label: Uint8Array;
  readonly areaPx: Int32Array;
}

/**
 * Joins runs of equal labels row by row with union-find, then writes each run's region at once: linear in pixels.
 * Source: A. Rosenfeld & J. Pfaltz, "Sequential operations in digital picture processing" (J. ACM, 1966), on runs.
 */
export function findComponents({ width, height, data }: LabelMap): Components {
  let starts = new Int32Array(4096);
  let parent = new Int32Array(4096);
  let runs = 0;
  const root = (a: number): number => {
    let r = a;
    while (parent[r] !== r) {
      parent[r] = parent[parent[r]];
      r = parent[r];
    }
    return r;
  };
  let previous = 0;
  for (let y = 0; y < height; y++) {
    const rowStart = y * width;
    const rowEnd = rowStart + width;
    const first = runs;
    let above = previous;
    for (let p = rowStart; p < rowEnd; ) {
      const label = data[p];
      const start = p;
      while (p < rowEnd && data[p] === label) p++;
      if (runs === starts.length) {
        starts = grow(starts);
        parent = grow(parent);
      }
      starts[runs] = start;
      parent[runs] = runs;
      if (y > 0) {
        // Runs of the row above that reach under this one; the last may reach under the next, too.
        while (above + 1 < first && starts[above + 1] + width <= start) above++;
        for (let other = above; other < first && starts[other] + width < p; other++) {
          if (data[starts[other]] !== label) continue;
          const a = root(other);
          const b = root(runs);
          if (a < b) parent[b] = a;
          else parent[a] = b;
        }
      }
      runs++;
    }
    previous = first;
  }
  const of = new Int32Array(width * height);
  const number = new Int32Array(runs);
  const label: number[] = [];
  const areaPx: number[] = [];
  for (let run = 0; run < runs; run++) {
    const r = root(run);
    const start = starts[run];
    const end = run + 1 < runs ? starts[run + 1] : of.length;
    // A region's root is its first run, so it is numbered before any other run of it is met.
    if (r === run) {
      number[run] = label.length;
      label.push(data[start]);
      areaPx.push(0);
    } else number[run] = number[r];
    of.fill(number[run], start, end);
    areaPx[number[run]] += end - start;
  }
  return { of, label: Uint8Array.from(label), areaPx: Int32Array.from(areaPx) };
}

function grow(array: Int32Array): Int32Array<ArrayBuffer> {
  const grown = new Int32Array(array.length * 2);
  grown.set(array);
  return grown;
}

/**
 * The label map with every region of at most `maxAreaPx` pixels given to the neighbour it shares most of its boundary
 * with, smallest first: dark specks in light and light ones in dark alike. Returns the map itself when there is none;
 * `components` are the map's own.
 */
export function absorbSpecks(map: LabelMap, components: Components, maxAreaPx: number): LabelMap {
  const { width, height, data } = map;
  const { of, label, areaPx } = components;
  const specks: number[] = [];
  for (let c = 0; c < label.length; c++) if (areaPx[c] <= maxAreaPx) specks.push(c);
  if (specks.length === 0 || specks.length === label.length) return map;
  const neighbours = new Map<number, Map<number, number>>(specks.map((c) => [c, new Map()]));
  const meet = (a: number, b: number) => {
    const ofA = neighbours.get(a);
    if (ofA) ofA.set(b, (ofA.get(b) ?? 0) + 1);
  };
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p++) {
      const own = of[p];
      if (x > 0 && of[p - 1] !== own) {
        meet(own, of[p - 1]);
        meet(of[p - 1], own);
      }
      if (y > 0 && of[p - width] !== own) {
        meet(own, of[p - width]);
        meet(of[p - width], own);
      }
    }
  }
  const home = Int32Array.from(label, (_, c) => c);
  const homeOf = (c: number): number => {
    let h = c;
    while (home[h] !== h) h = home[h];
    return h;
  };
  specks.sort((a, b) => areaPx[a] - areaPx[b] || a - b);
  for (const speck of specks) {
    const own = homeOf(speck);
    const shared = new Map<number, number>();
    for (const [other, length] of neighbours.get(speck) ?? []) {
      const h = homeOf(other);
      if (h !== own) shared.set(h, (shared.get(h) ?? 0) + length);
    }
    let best = -1;
    for (const [h, length] of shared) if (best < 0 || length > (shared.get(best) ?? 0)) best = h;
    if (best >= 0) home[own] = best;
  }
  const out = new Uint8Array(data.length);
  for (let p = 0; p < out.length; p++) out[p] = label[homeOf(of[p])];
  return { width, height, data: out };
}

/** The label map seen through a look-up, e.g. found colours to spots. */
export function mapLabels({ width, height, data }: LabelMap, lookUp: Uint8Array): LabelMap {
  const out = new Uint8Array(data.length);
  for (let p = 0; p < out.length; p++) out[p] = data[p] === NONE ? NONE : lookUp[data[p]];
  return { width, height, data: out };
}
