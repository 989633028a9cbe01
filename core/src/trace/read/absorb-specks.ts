// Regions too small to keep are absorbed by their neighbours.
import { type Components, forEachContact, type LabelMap } from "../../raster/index.ts";

/** Larger regions that are none of their own, either: those that may be, and whether one beside regions of a label is. */
export interface SliverTest {
  readonly candidates: readonly number[];
  isSliver(region: number, beside: number): boolean;
}

/** Regions that are no specks however small: by their number, and those that they touch. */
export type KeptTest = (region: number, neighbours: readonly number[]) => boolean;

const KEEP_NONE: KeptTest = () => false;

/** A region of at most so many pixels across, inside which small holes are the counters of letters. */
const LETTER_PX = 32;

/** Holes in small regions: the counters of small lettering. Linear in runs. */
export function keepCounters({ pixelRuns, regionOfPixelRun, label }: Components, width: number): KeptTest {
  const across = new Uint32Array(label.length);
  const boxes = Array.from({ length: label.length }, () => [width, 0, Number.POSITIVE_INFINITY, 0]);
  for (let run = 0; run < regionOfPixelRun.length; run++) {
    const box = boxes[regionOfPixelRun[run]];
    const y = Math.floor(pixelRuns[run] / width);
    box[0] = Math.min(box[0], pixelRuns[run] % width);
    box[1] = Math.max(box[1], ((pixelRuns[run + 1] - 1) % width) + 1);
    box[2] = Math.min(box[2], y);
    box[3] = Math.max(box[3], y + 1);
  }
  boxes.forEach(([left, right, top, bottom], c) => {
    across[c] = Math.max(right - left, bottom - top);
  });
  return (_, neighbours) => neighbours.length === 1 && across[neighbours[0]] <= LETTER_PX;
}

const NO_SLIVERS: SliverTest = { candidates: [], isSliver: () => false };

/**
 * The label map with every region of at most `maxAreaPx` pixels, and every sliver, given to the neighbour it shares most of
 * its boundary with, smallest first: dark specks in light and light ones in dark alike, but for those kept. Returns the map
 * itself when there is none; `components` are the map's own.
 */
export function absorbSpecks(
  map: LabelMap,
  components: Components,
  maxAreaPx: number,
  slivers: SliverTest = NO_SLIVERS,
  isKept: KeptTest = KEEP_NONE,
): LabelMap {
  const { width, height, data } = map;
  const { pixelRuns, regionOfPixelRun, label, areaPx } = components;
  const specks: number[] = [];
  for (let c = 0; c < label.length; c++) if (areaPx[c] <= maxAreaPx) specks.push(c);
  const candidates = slivers.candidates.filter((c) => areaPx[c] > maxAreaPx);
  if (specks.length === label.length || specks.length + candidates.length === 0) return map;
  const neighbours = findNeighbours(components, width, [...specks, ...candidates]);
  for (const c of candidates) {
    const [most] = [...(neighbours.get(c) ?? [])].sort((a, b) => b[1] - a[1]);
    if (most && slivers.isSliver(c, label[most[0]])) specks.push(c);
  }
  specks.sort((a, b) => areaPx[a] - areaPx[b] || a - b);
  const home = Int32Array.from(label, (_, c) => c);
  for (const speck of specks) {
    const beside = neighbours.get(speck) ?? NOBODY;
    if (!isKept(speck, [...beside.keys()])) takeIn(home, speck, beside);
  }
  const out = data.slice();
  for (let run = 0; run < regionOfPixelRun.length; run++) {
    const region = regionOfPixelRun[run];
    if (home[region] !== region) out.fill(label[homeOf(home, region)], pixelRuns[run], pixelRuns[run + 1]);
  }
  return { width, height, data: out };
}

/** Regions that one touches, each with the length of the boundary between them. */
type Neighbours = ReadonlyMap<number, number>;

const NOBODY: Neighbours = new Map();

function findNeighbours(
  components: Components,
  width: number,
  regions: readonly number[],
): ReadonlyMap<number, Neighbours> {
  const neighbours = new Map(regions.map((c) => [c, new Map<number, number>()]));
  forEachContact(components, width, (a, b, length) => {
    meet(neighbours, a, b, length);
    meet(neighbours, b, a, length);
  });
  return neighbours;
}

function meet(neighbours: ReadonlyMap<number, Map<number, number>>, a: number, b: number, length: number): void {
  const ofA = neighbours.get(a);
  if (ofA) ofA.set(b, (ofA.get(b) ?? 0) + length);
}

/** The region that took in what took a region in, and so on. */
function homeOf(home: Int32Array, region: number): number {
  let h = region;
  while (home[h] !== h) h = home[h];
  return h;
}

/** Gives a speck to the neighbour it shares most of its boundary with, with all that was taken in before. */
function takeIn(home: Int32Array, speck: number, beside: Neighbours): void {
  const own = homeOf(home, speck);
  const shared = new Map<number, number>();
  for (const [other, length] of beside) {
    const h = homeOf(home, other);
    if (h !== own) shared.set(h, (shared.get(h) ?? 0) + length);
  }
  let best = -1;
  for (const [h, length] of shared) if (best < 0 || length > (shared.get(best) ?? 0)) best = h;
  if (best >= 0) home[own] = best;
}
