// Regions too small to be meant: dirt on the scan, flaws in the ink, pinholes.
import { type Components, findComponents, regionsOfPixels } from "./components.ts";
import { greyHistogram, greyOf, otsuThreshold } from "./grey.ts";
import { makeRaster, OPAQUE_ALPHA, type Raster } from "./raster.ts";

/** What a pixel is, seen from afar. */
const CLEAR = 0;
const DARK = 1;
const LIGHT = 2;

export interface SpeckSettings {
  /** Regions of at most this many pixels go. */
  readonly maxPx: number;
  /** Which: dark ones and light ones, or holes through which the garment would show. */
  readonly dark: boolean;
  readonly light: boolean;
  readonly holes: boolean;
}

/** Specks found: the picture's regions, and which of them go. */
export interface Specks {
  readonly regions: Components;
  readonly isSpeck: Uint8Array;
  readonly count: number;
  /** 1 on every pixel of a speck. */
  readonly mask: Uint8Array;
}

/**
 * Finds specks. Dark and light part at Otsu's threshold of what is there; regions hang together through pixel sides. A
 * region that is all there is, is no speck.
 */
export function findSpecks(raster: Raster, settings: SpeckSettings): Specks {
  const { width, height, data } = raster;
  // A soft edge of dark art is dark, however clear.
  const grey = greyOf(raster, "none");
  const counts = greyHistogram(grey);
  for (let p = 0, i = 3; p < grey.length; p++, i += 4) if (data[i] < OPAQUE_ALPHA) counts[grey[p]]--;
  const threshold = otsuThreshold(counts);
  const classes = new Uint8Array(grey.length);
  for (let p = 0, i = 3; p < grey.length; p++, i += 4)
    classes[p] = data[i] < OPAQUE_ALPHA ? CLEAR : grey[p] <= threshold ? DARK : LIGHT;
  const regions = findComponents({ width, height, data: classes });
  const isWanted = [settings.holes, settings.dark, settings.light];
  const isSpeck = Uint8Array.from(regions.label, (label, c) =>
    isWanted[label] && regions.areaPx[c] <= settings.maxPx && regions.label.length > 1 ? 1 : 0,
  );
  const mask = new Uint8Array(grey.length);
  for (let run = 0; run < regions.regionOfPixelRun.length; run++)
    if (isSpeck[regions.regionOfPixelRun[run]]) mask.fill(1, regions.pixelRuns[run], regions.pixelRuns[run + 1]);
  return { regions, isSpeck, count: isSpeck.reduce((sum, one) => sum + one, 0), mask };
}

/** How far a speck's soft rim reaches, px. */
const RIM_PX = 2;

/** The picture with each speck and its soft rim given the middle colour of what surrounds it. */
export function fillSpecks(raster: Raster, specks: Specks): Raster {
  const { width, height } = raster;
  const out = new Uint8ClampedArray(raster.data);
  const of = regionsOfPixels(specks.regions);
  for (const members of membersOf(specks)) {
    const own = of[members[0]];
    const around = ringsAround(members, of, own, width, height);
    const home = commonest(around.ring.map((p) => of[p]).filter((region) => region !== own && !specks.isSpeck[region]));
    if (home === null) continue;
    const colour = middleColour(
      raster,
      around.ring.filter((p) => of[p] === home),
    );
    for (const p of members) out.set(colour, p * 4);
    for (const p of around.rim) if (isBetween(p, of, own, home, width, height)) out.set(colour, p * 4);
  }
  return makeRaster(width, height, out);
}

/** The pixels of each speck. */
function membersOf({ regions: { pixelRuns, regionOfPixelRun }, isSpeck }: Specks): number[][] {
  const lists = new Map<number, number[]>();
  for (let run = 0; run < regionOfPixelRun.length; run++) {
    const region = regionOfPixelRun[run];
    if (isSpeck[region] === 0) continue;
    const list = lists.get(region) ?? [];
    for (let p = pixelRuns[run]; p < pixelRuns[run + 1]; p++) list.push(p);
    lists.set(region, list);
  }
  return [...lists.values()];
}

/** Pixels within RIM_PX of a region, and those one further out. */
function ringsAround(members: readonly number[], of: Int32Array, own: number, width: number, height: number) {
  const seen = new Set(members);
  const rim: number[] = [];
  let front: readonly number[] = members;
  let ring: number[] = [];
  for (let distance = 1; distance <= RIM_PX + 1; distance++) {
    ring = [];
    for (const p of front) {
      const px = p % width;
      const py = (p - px) / width;
      for (let y = Math.max(0, py - 1); y <= Math.min(height - 1, py + 1); y++)
        for (let x = Math.max(0, px - 1); x <= Math.min(width - 1, px + 1); x++) {
          const q = y * width + x;
          if (seen.has(q)) continue;
          seen.add(q);
          if (of[q] !== own) ring.push(q);
        }
    }
    if (distance <= RIM_PX) rim.push(...ring);
    front = ring;
  }
  return { rim, ring: ring.length > 0 ? ring : rim };
}

/** Whether a pixel belongs to the surrounding region and nothing else than that and the speck is next to it. */
function isBetween(p: number, of: Int32Array, own: number, home: number, width: number, height: number): boolean {
  if (of[p] !== home) return false;
  const px = p % width;
  const py = (p - px) / width;
  for (let y = Math.max(0, py - 1); y <= Math.min(height - 1, py + 1); y++)
    for (let x = Math.max(0, px - 1); x <= Math.min(width - 1, px + 1); x++) {
      const region = of[y * width + x];
      if (region !== home && region !== own) return false;
    }
  return true;
}

function commonest(values: readonly number[]): number | null {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  let best: number | null = null;
  for (const [value, count] of counts) if (best === null || count > (counts.get(best) ?? 0)) best = value;
  return best;
}

function middleColour({ data }: Raster, pixels: readonly number[]): number[] {
  return [0, 1, 2, 3].map((c) => pixels.map((p) => data[p * 4 + c]).sort((a, b) => a - b)[pixels.length >> 1]);
}
