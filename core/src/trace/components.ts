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

/** Two passes with union-find: linear in pixels. Source: A. Rosenfeld & J. Pfaltz, "Sequential operations in digital picture processing" (J. ACM, 1966). */
export function findComponents({ width, height, data }: LabelMap): Components {
  const of = new Int32Array(width * height);
  let parent = new Int32Array(1024);
  let next = 0;
  const root = (a: number): number => {
    let r = a;
    while (parent[r] !== r) r = parent[r];
    let i = a;
    while (parent[i] !== r) {
      const up = parent[i];
      parent[i] = r;
      i = up;
    }
    return r;
  };
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p++) {
      const label = data[p];
      const joinsLeft = x > 0 && data[p - 1] === label;
      const joinsUp = y > 0 && data[p - width] === label;
      if (joinsLeft) {
        of[p] = of[p - 1];
        if (joinsUp && of[p - width] !== of[p]) {
          const a = root(of[p]);
          const b = root(of[p - width]);
          if (a < b) parent[b] = a;
          else if (b < a) parent[a] = b;
        }
      } else if (joinsUp) of[p] = of[p - width];
      else {
        if (next === parent.length) {
          const grown = new Int32Array(parent.length * 2);
          grown.set(parent);
          parent = grown;
        }
        parent[next] = next;
        of[p] = next++;
      }
    }
  }
  const number = new Int32Array(next).fill(-1);
  let count = 0;
  for (let i = 0; i < next; i++) {
    const r = root(i);
    if (number[r] < 0) number[r] = count++;
    number[i] = number[r];
  }
  const label = new Uint8Array(count);
  const areaPx = new Int32Array(count);
  for (let p = 0; p < of.length; p++) {
    const c = number[of[p]];
    of[p] = c;
    label[c] = data[p];
    areaPx[c]++;
  }
  return { of, label, areaPx };
}

/**
 * The label map with every region of at most `maxAreaPx` pixels given to the neighbour it shares most of its boundary
 * with, smallest first: dark specks in light and light ones in dark alike. Returns the map itself when there is none.
 */
export function absorbSpecks(map: LabelMap, maxAreaPx: number): LabelMap {
  if (maxAreaPx < 1) return map;
  const { width, height, data } = map;
  const { of, label, areaPx } = findComponents(map);
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
