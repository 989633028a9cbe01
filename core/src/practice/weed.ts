// What is left of a sheet of film when the waste is off: as a picture, since a hand does not compute.
import { ringOf } from "./cutter.ts";
import type { Plot } from "./read-plot.ts";

/** What is covered, 1, and what is not, 0; row by row from the top. */
export interface Mask {
  readonly width: number;
  readonly height: number;
  readonly perMm: number;
  readonly data: Uint8Array;
}

export interface WeedWishes {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Pixels of the picture. */
  readonly perMm: number;
  readonly hasBoxes?: boolean;
}

/** A box to weed along is as large as its own bounds, nearly, and goes round something else. */
const BOX_SHARE = 0.97;

/**
 * The film of a cut sheet, `widthMm` x `heightMm` from the plot's origin, y up in the plot. Where pieces have boxes to weed along,
 * those go with the waste: only whoever weeds knows a box from a square of film with a hole.
 */
export function weed({ strokes }: Plot, { widthMm, heightMm, perMm, hasBoxes = false }: WeedWishes): Mask {
  const rings = strokes
    .flatMap((stroke) => (stroke.tool === 1 ? [ringOf(stroke)] : []))
    .filter((ring) => ring !== null);
  const [width, height] = [Math.ceil(widthMm * perMm), Math.ceil(heightMm * perMm)];
  const data = new Uint8Array(width * height);
  const crossings: number[][] = Array.from({ length: height }, () => []);
  for (const ring of rings) {
    if (hasBoxes && isBox(ring, rings)) continue;
    for (let i = 0; i + 1 < ring.length; i += 2) {
      const [x0 = 0, y0 = 0] = ring.slice(i, i + 2);
      const [x1 = 0, y1 = 0] = i + 3 < ring.length ? ring.slice(i + 2, i + 4) : ring;
      const [top, bottom] = [height - Math.max(y0, y1) * perMm, height - Math.min(y0, y1) * perMm];
      for (let row = Math.max(0, Math.ceil(top - 0.5)); row < Math.min(height, Math.ceil(bottom - 0.5)); row++) {
        const y = (height - row - 0.5) / perMm;
        crossings[row]?.push(x0 + ((y - y0) / (y1 - y0)) * (x1 - x0));
      }
    }
  }
  crossings.forEach((row, y) => {
    row.sort((a, b) => a - b);
    for (let k = 0; k + 1 < row.length; k += 2) {
      const [from, to] = [row[k] ?? 0, row[k + 1] ?? 0].map((x) =>
        Math.min(width, Math.max(0, Math.ceil(x * perMm - 0.5))),
      );
      data.fill(1, y * width + (from ?? 0), y * width + (to ?? 0));
    }
  });
  return { width, height, perMm, data };
}

type Ring = readonly number[];

function isBox(ring: Ring, all: readonly Ring[]): boolean {
  const own = boundsOf(ring);
  const isIn = (inner: ReturnType<typeof boundsOf>, outer: ReturnType<typeof boundsOf>) =>
    inner.left > outer.left && inner.right < outer.right && inner.bottom > outer.bottom && inner.top < outer.top;
  const area = (own.right - own.left) * (own.top - own.bottom);
  if (Math.abs(areaOf(ring)) < BOX_SHARE * area) return false;
  const others = all.filter((other) => other !== ring).map(boundsOf);
  return others.some((other) => isIn(other, own)) && !others.some((other) => isIn(own, other));
}

function boundsOf(points: Ring) {
  const xs = points.filter((_, i) => i % 2 === 0);
  const ys = points.filter((_, i) => i % 2 === 1);
  const least = (values: readonly number[]) => values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
  const most = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
  return { left: least(xs), right: most(xs), bottom: least(ys), top: most(ys) };
}

function areaOf(points: Ring): number {
  let twice = 0;
  for (let i = 0; i + 3 < points.length; i += 2)
    twice += (points[i] ?? 0) * (points[i + 3] ?? 0) - (points[i + 2] ?? 0) * (points[i + 1] ?? 0);
  return twice / 2;
}

/** The mask turned over, as film is when it is pressed. */
export function turnOver({ width, height, perMm, data }: Mask): Mask {
  const over = new Uint8Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) over[y * width + x] = data[y * width + width - 1 - x] ?? 0;
  return { width, height, perMm, data: over };
}

/** How much of two masks of one size is in the one and not in the other, mm2: film where none was planned, and none where it was. */
export function differ(film: Mask, plan: Mask): { readonly extraMm2: number; readonly missingMm2: number } {
  let [extra, missing] = [0, 0];
  for (let p = 0; p < plan.data.length; p++) {
    if (film.data[p] === plan.data[p]) continue;
    if (film.data[p] === 1) extra++;
    else missing++;
  }
  const mm2 = film.perMm ** -2;
  return { extraMm2: extra * mm2, missingMm2: missing * mm2 };
}
