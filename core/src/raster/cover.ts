// How far strokes and lassos cover each pixel.
import type { Box } from "./frame.ts";

/** Coverage 0..255 of the pixels of `box`, row by row. */
export interface Cover {
  readonly box: Box;
  readonly data: Uint8Array;
}

function boxAround(points: ArrayLike<number>, margin: number, width: number, height: number): Box | null {
  let [x0, y0, x1, y1] = [
    Number.POSITIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  for (let i = 0; i + 1 < points.length; i += 2) {
    x0 = Math.min(x0, points[i]);
    x1 = Math.max(x1, points[i]);
    y0 = Math.min(y0, points[i + 1]);
    y1 = Math.max(y1, points[i + 1]);
  }
  const x = Math.max(0, Math.floor(x0 - margin));
  const y = Math.max(0, Math.floor(y0 - margin));
  const right = Math.min(width, Math.ceil(x1 + margin));
  const bottom = Math.min(height, Math.ceil(y1 + margin));
  return right > x && bottom > y ? { x, y, width: right - x, height: bottom - y } : null;
}

/**
 * A round stroke of `radius` along `points` (x, y pairs), cut to a picture of `width` x `height`; its edge is soft by a
 * pixel. Null if it does not touch the picture.
 */
export function coverStroke(points: ArrayLike<number>, radius: number, width: number, height: number): Cover | null {
  const box = boxAround(points, radius + 1, width, height);
  if (!box) return null;
  const data = new Uint8Array(box.width * box.height);
  for (let i = 0; i + 1 < points.length; i += 2) {
    const isLast = i + 3 >= points.length;
    if (isLast && i > 0) break;
    const [ax, ay] = [points[i], points[i + 1]];
    const [bx, by] = isLast ? [ax, ay] : [points[i + 2], points[i + 3]];
    const [dx, dy] = [bx - ax, by - ay];
    const length2 = dx * dx + dy * dy;
    const x0 = Math.max(box.x, Math.floor(Math.min(ax, bx) - radius - 1));
    const x1 = Math.min(box.x + box.width, Math.ceil(Math.max(ax, bx) + radius + 1));
    const y0 = Math.max(box.y, Math.floor(Math.min(ay, by) - radius - 1));
    const y1 = Math.min(box.y + box.height, Math.ceil(Math.max(ay, by) + radius + 1));
    for (let y = y0; y < y1; y++) {
      let o = (y - box.y) * box.width + x0 - box.x;
      for (let x = x0; x < x1; x++, o++) {
        const px = x + 0.5 - ax;
        const py = y + 0.5 - ay;
        const t = length2 === 0 ? 0 : Math.min(1, Math.max(0, (px * dx + py * dy) / length2));
        const ex = px - t * dx;
        const ey = py - t * dy;
        const share = Math.min(1, Math.max(0, radius + 0.5 - Math.sqrt(ex * ex + ey * ey)));
        const value = Math.round(share * 255);
        if (value > data[o]) data[o] = value;
      }
    }
  }
  return { box, data };
}

/** Sub-rows that a pixel row is sampled at; along the row coverage is exact. */
const SUB_ROWS = 8;

/** The inside (even-odd) of a polygon of x, y pairs, cut to a picture; null if it does not touch the picture. */
export function coverPolygon(points: ArrayLike<number>, width: number, height: number): Cover | null {
  const box = points.length < 6 ? null : boxAround(points, 0, width, height);
  if (!box) return null;
  const data = new Uint8Array(box.width * box.height);
  const row = new Float64Array(box.width);
  const n = points.length / 2;
  for (let y = 0; y < box.height; y++) {
    row.fill(0);
    for (let sub = 0; sub < SUB_ROWS; sub++) {
      const at = box.y + y + (sub + 0.5) / SUB_ROWS;
      const crossings: number[] = [];
      for (let i = 0; i < n; i++) {
        const j = (i + 1) % n;
        const ay = points[i * 2 + 1];
        const by = points[j * 2 + 1];
        if (ay <= at === by <= at) continue;
        const ax = points[i * 2];
        crossings.push(ax + ((at - ay) / (by - ay)) * (points[j * 2] - ax) - box.x);
      }
      crossings.sort((a, b) => a - b);
      for (let c = 0; c + 1 < crossings.length; c += 2) addSpan(row, crossings[c], crossings[c + 1]);
    }
    for (let x = 0; x < box.width; x++) data[y * box.width + x] = Math.round((255 * row[x]) / SUB_ROWS);
  }
  return { box, data };
}

function addSpan(row: Float64Array, from: number, to: number): void {
  const start = Math.max(0, from);
  const end = Math.min(row.length, to);
  for (let x = Math.floor(start); x < end; x++) row[x] += Math.min(end, x + 1) - Math.max(start, x);
}
