// Regions too small to keep are absorbed by their neighbours.
import { type Components, type LabelMap, NONE } from "../raster/index.ts";

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
