// Which pixel is which spot: the found colours through the reduction, then what the person corrected, in order.
import { type LabelMap, NONE } from "../raster/index.ts";
import { divideArea } from "./divide.ts";
import type { Findings } from "./find.ts";
import type { Reduction } from "./reduce.ts";
import { runUnder } from "./run-under.ts";
import { spotOfId } from "./spot-of-id.ts";

/** A correction as the recipe has it, its places in the prepared picture's pixels. */
export type SpotCorrection = {
  readonly id: string;
  readonly isOn: boolean;
  readonly spotId: string;
} & (
  | { readonly kind: "recolour" | "pour"; readonly at: { readonly x: number; readonly y: number } }
  | { readonly kind: "divide"; readonly line: readonly number[]; readonly isFlipped: boolean }
);

/** What a poured area runs under: its own pixels and those of the lines round it, as far as their middle. */
export interface UnderLine {
  readonly spotId: string;
  readonly x: number;
  readonly y: number;
  /** 0 where it is, NONE elsewhere. */
  readonly mask: LabelMap;
}

/** The spots of a picture's pixels. */
export interface Assignment {
  /** Index of each pixel's spot in the reduction. */
  readonly spots: LabelMap;
  /** Pixels of each spot. */
  readonly areasPx: readonly number[];
  readonly underLines: readonly UnderLine[];
  /** Corrections that do nothing here, with the reason. */
  readonly misfits: ReadonlyMap<string, string>;
}

/** Gives every pixel its spot. Linear in pixels, and in the areas that corrections touch. */
export function assignSpots(
  { labels }: Findings,
  { spots, spotOfFound }: Reduction,
  corrections: readonly SpotCorrection[],
): Assignment {
  const { width, height } = labels;
  const data = new Uint8Array(labels.data.length);
  for (let p = 0; p < data.length; p++) data[p] = spotOfFound[labels.data[p]];
  const map: LabelMap = { width, height, data };
  const misfits = new Map<string, string>();
  const poured: { readonly area: Uint32Array; readonly spot: number }[] = [];
  for (const correction of corrections) {
    if (!correction.isOn) continue;
    const spot = spotOfId(spots, correction.spotId);
    const reason =
      spot < 0
        ? "its spot is no longer there"
        : correction.kind === "divide"
          ? divideArea(map, correction.line, correction.isFlipped, spot)
          : fillArea(map, correction, spot, poured);
    if (reason !== null) misfits.set(correction.id, reason);
  }
  const areas = new Float64Array(256);
  for (let p = 0; p < data.length; p++) areas[data[p]]++;
  // The lines a fill runs under are as they are in the end.
  const underLines = poured.flatMap(({ area, spot }) => runUnder(map, area, spot, spots));
  return { spots: map, areasPx: spots.map((_, index) => areas[index]), underLines, misfits };
}

function fillArea(
  map: LabelMap,
  { kind, at }: Extract<SpotCorrection, { kind: "recolour" | "pour" }>,
  spot: number,
  poured: { readonly area: Uint32Array; readonly spot: number }[],
): string | null {
  const x = Math.floor(at.x);
  const y = Math.floor(at.y);
  if (x < 0 || y < 0 || x >= map.width || y >= map.height) return "its place is outside the picture";
  const start = y * map.width + x;
  if (kind === "recolour" && map.data[start] === NONE) return "there is nothing at its place";
  const area = floodArea(map, start);
  for (let k = 0; k < area.length; k++) map.data[area[k]] = spot;
  if (kind === "pour") poured.push({ area, spot });
  return null;
}

/** The connected pixels of one label around `start`, in order. */
export function floodArea({ width, height, data }: LabelMap, start: number): Uint32Array {
  const label = data[start];
  const isTaken = new Uint8Array(data.length);
  const stack = [start];
  let size = 0;
  for (let seed = stack.pop(); seed !== undefined; seed = stack.pop()) {
    if (isTaken[seed] === 1) continue;
    const rowStart = seed - (seed % width);
    let from = seed;
    let to = seed + 1;
    while (from > rowStart && data[from - 1] === label) from--;
    while (to < rowStart + width && data[to] === label) to++;
    isTaken.fill(1, from, to);
    size += to - from;
    for (const beside of [-width, width]) {
      if (from + beside < 0 || from + beside >= width * height) continue;
      for (let q = from + beside, isRun = false; q < to + beside; q++) {
        const isOpen = data[q] === label && isTaken[q] === 0;
        if (isOpen && !isRun) stack.push(q);
        isRun = isOpen;
      }
    }
  }
  const area = new Uint32Array(size);
  for (let p = isTaken.indexOf(1), k = 0; p >= 0; p = isTaken.indexOf(1, p)) while (isTaken[p] === 1) area[k++] = p++;
  return area;
}
