// The prepared picture, the marks of an action and the difference map as bitmaps for the page.
import { parseHex } from "@plain-palette/core/colour";
import {
  boxOfArt,
  findSpecks,
  greyHistogram,
  greyOf,
  makeRaster,
  mapDifference,
  otsuThreshold,
  type Raster,
} from "@plain-palette/core/raster";
import {
  type Action,
  markTaken,
  type Prepared,
  type Recipe,
  type StepResults,
  speckSettings,
} from "@plain-palette/core/recipe";
import type { Assignment, Reduction } from "@plain-palette/core/reduce";
import type { Get } from "@plain-palette/core/steps";
import { DIFFERENCE_COLOURS, DIFFERENCE_TOP } from "./difference-colours.ts";
import type { DifferenceView, FocusView, PreparedView } from "./messages.ts";

type Shown = { readonly raster: Raster; readonly upright: Raster } | null;

/** What changed since `shown`; of an upright picture that is the source itself the page has the bitmap. */
export async function viewPrepared(
  prepared: Prepared,
  source: Raster | null,
  shown: Shown,
): Promise<Omit<PreparedView, "focus">> {
  const { raster, upright, frame, misfits, seeThrough } = prepared;
  const all = raster.width * raster.height;
  const isNew = raster !== shown?.raster;
  return {
    frame,
    bitmapScale: 1,
    misfits,
    isAsSent: upright === source,
    box: boxOfArt(raster),
    seeThrough: seeThrough && {
      share: seeThrough.areaPx / all,
      faintShare: seeThrough.faintPx / all,
      at: seeThrough.at,
    },
    bitmap: isNew ? await toBitmap(raster) : null,
    upright: upright !== shown?.upright && upright !== source ? await toBitmap(upright) : null,
  };
}

function toBitmap({ width, height, data }: Raster): Promise<ImageBitmap> {
  return createImageBitmap(new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height));
}

/** What the action in focus does to the picture before it. */
export async function viewFocus(action: Action, { focus, frame }: Prepared): Promise<FocusView | null> {
  if (!focus) return null;
  const { before, after } = focus;
  const isSpecks = action.kind === "specks" || action.kind === "pinholes";
  const specks = isSpecks ? findSpecks(before, speckSettings(action, frame)) : null;
  const mask = specks?.mask ?? (action.kind === "pick" ? markTaken(before, after) : null);
  const greys = action.kind === "line-art" ? greysOf(before) : null;
  return {
    id: action.id,
    marks: mask && (await drawMarks(mask, before.width, before.height, isSpecks)),
    markedPx: mask?.reduce((ones, is) => ones + is, 0) ?? 0,
    count: specks?.count ?? null,
    greys,
  };
}

let lastGreys: { readonly of: Raster; readonly greys: NonNullable<FocusView["greys"]> } | null = null;

/** Greys of a picture; while its cut-off is moved, the picture before it stays the same. */
function greysOf(raster: Raster): NonNullable<FocusView["greys"]> {
  if (lastGreys?.of !== raster) {
    const counts = greyHistogram(greyOf(raster));
    lastGreys = { of: raster, greys: { counts, otsu: otsuThreshold(counts) } };
  }
  return lastGreys.greys;
}

/** Little-endian RGBA: dark and light, so that one of them shows on any colour. */
const DARK = 0xd01a1a1a;
const LIGHT = 0xd0ffffff;

/** Marked pixels in stripes of dark and light; specks are small, so each gets a frame around it to be seen by. */
function drawMarks(mask: Uint8Array, width: number, height: number, isFramed: boolean): Promise<ImageBitmap> {
  const pixels = new Uint32Array(mask.length);
  const stripe = Math.max(3, Math.round(Math.max(width, height) / 220));
  const row = Uint32Array.from({ length: width + 2 * stripe }, (_, x) =>
    Math.floor(x / stripe) % 2 === 0 ? DARK : LIGHT,
  );
  // Run by run, from a row of stripes shifted by one for each row further down.
  for (let from = mask.indexOf(1); from >= 0; ) {
    const x = from % width;
    const y = (from - x) / width;
    let to = mask.indexOf(0, from);
    if (to < 0 || to > (y + 1) * width) to = (y + 1) * width;
    const shift = x + (y % (2 * stripe));
    pixels.set(row.subarray(shift, shift + to - from), from);
    from = mask.indexOf(1, to);
  }
  if (isFramed) frameMarks(mask, pixels, width, height, stripe);
  return toBitmap(makeRaster(width, height, new Uint8ClampedArray(pixels.buffer)));
}

/** A square ring around every marked pixel: rings of neighbours run together into one frame. */
function frameMarks(mask: Uint8Array, pixels: Uint32Array, width: number, height: number, gap: number): void {
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (mask[p] === 0 || (x > 0 && mask[p - 1] === 1) || (y > 0 && mask[p - width] === 1)) continue;
      for (let d = -gap; d <= gap; d++)
        for (const [u, v] of [
          [x + d, y - gap],
          [x + d, y + gap],
          [x - gap, y + d],
          [x + gap, y + d],
        ] as const)
          if (u >= 0 && v >= 0 && u < width && v < height && mask[v * width + u] === 0)
            pixels[v * width + u] = (u + v) % 6 < 3 ? DARK : LIGHT;
    }
}

/** From this CIEDE2000 on, a difference is seen side by side (common practice, no source). */
const VISIBLE = 2;
/** The source against the prepared or the reduced picture, on the garment's colour. */
export async function compareWith(
  what: "prepared" | "reduced",
  recipe: Recipe,
  get: Get<StepResults>,
): Promise<DifferenceView> {
  const garment = parseHex(recipe.artwork.garment);
  const prepared = get("prepare");
  const other = what === "prepared" ? prepared.raster : paintSpots(get("reduce"), get("assign"));
  const map = mapDifference(prepared.upright, other, garment);
  // What was dropped is not meant to be there.
  if (what === "reduced") {
    const isDropped = get("reduce").spots.map(({ role }) => role === "drop");
    const spots = get("assign").spotOfPixel.data;
    spots.forEach((spot, p) => {
      if (isDropped[spot]) map[p] = 0;
    });
  }
  const pixels = new Uint32Array(map.length);
  const counts = new Array<number>(DIFFERENCE_TOP + 1).fill(0);
  let visible = 0;
  let worst = 0;
  map.forEach((value, p) => {
    if (value > VISIBLE) visible++;
    if (value > worst) worst = value;
    const rung = Math.min(DIFFERENCE_TOP, Math.floor(value));
    counts[rung] = (counts[rung] ?? 0) + 1;
    pixels[p] = differenceColour(value);
  });
  const raster = makeRaster(prepared.raster.width, prepared.raster.height, new Uint8ClampedArray(pixels.buffer));
  return { bitmap: await toBitmap(raster), counts, share: visible / map.length, worst };
}

/** Each colour of the map with the next. */
const STOPS = DIFFERENCE_COLOURS.slice(1).map(
  (hex, i) => [parseHex(DIFFERENCE_COLOURS[i] ?? hex), parseHex(hex)] as const,
);

/** The map's colour for a difference, little-endian RGBA. */
function differenceColour(value: number): number {
  const at = Math.min(1, value / DIFFERENCE_TOP) * STOPS.length;
  const i = Math.min(STOPS.length - 1, Math.floor(at));
  const stop = STOPS[i];
  if (!stop) throw new RangeError(`a difference of ${value} has no colour`);
  const [[r, g, b], [toR, toG, toB]] = stop;
  const mix = (from: number, to: number) => Math.round(from + (to - from) * (at - i));
  return 0xff000000 | (mix(b, toB) << 16) | (mix(g, toG) << 8) | mix(r, toR);
}

/** Every pixel in its spot's flat colour. */
function paintSpots({ spots }: Reduction, { spotOfPixel: { width, height, data } }: Assignment): Raster {
  const colours = new Uint32Array(256);
  spots.forEach(({ role, rgb: [r, g, b] }, index) => {
    if (role === "ink") colours[index] = 0xff000000 | (b << 16) | (g << 8) | r;
  });
  const pixels = new Uint32Array(data.length);
  data.forEach((spot, p) => {
    pixels[p] = colours[spot] ?? 0;
  });
  return makeRaster(width, height, new Uint8ClampedArray(pixels.buffer));
}
