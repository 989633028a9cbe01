// Where polylines cross each other or themselves, decided exactly: rounding must not make a crossing, nor hide one.
import { orient2d } from "robust-predicates";
import { indexBounds } from "./index-bounds.ts";
import type { Bounds } from "./points.ts";

/** Steps of a polyline that are looked at together. */
const STRETCH_STEPS = 8;

/** A crossing: step `i` of line `a` and step `k` of line `b`; a step is named by the index of its first x. */
export type TellCrossing = (a: number, i: number, b: number, k: number) => void;

/** Some steps of a polyline in a row, from the one that starts at index `from` on. */
interface Stretch extends Bounds {
  readonly line: number;
  readonly from: number;
  readonly to: number;
}

/**
 * Tells of every crossing of two polylines (x, y pairs), or of one with itself, `among` whom `a` is; a crossing of two that
 * both are among them is told from either side. Steps that share an end do not cross. A point that lies on the other's line
 * counts as on its positive side: so a line that passes through another's point is found at one of the steps that meet there.
 */
export function eachLineCrossing(
  lines: readonly ArrayLike<number>[],
  among: Iterable<number>,
  tell: TellCrossing,
): void {
  const isAmong = new Uint8Array(lines.length);
  for (const a of among) isAmong[a] = 1;
  const stretches = nearThese(lines.flatMap(cutUp), isAmong);
  if (stretches.length === 0) return;
  const index = indexBounds(stretches);
  for (const [at, own] of stretches.entries()) {
    if (isAmong[own.line] === 0) continue;
    for (const found of index.search(own.left, own.top, own.right, own.bottom)) {
      const other = stretches[found];
      const isMutual = isAmong[other.line] === 1 && found !== at;
      // Of two that are both asked about, the first asks.
      if (!isMutual || found > at) crossStretches(lines, own, other, isMutual, tell);
    }
  }
}

/** Those asked about, and of the others those that any of them could reach. */
function nearThese(stretches: readonly Stretch[], isAmong: Uint8Array): readonly Stretch[] {
  let [left, top, right, bottom] = [
    Number.POSITIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  for (const own of stretches) {
    if (isAmong[own.line] === 0) continue;
    [left, top] = [Math.min(left, own.left), Math.min(top, own.top)];
    [right, bottom] = [Math.max(right, own.right), Math.max(bottom, own.bottom)];
  }
  return stretches.filter(
    (one) =>
      isAmong[one.line] === 1 || (one.left <= right && one.right >= left && one.top <= bottom && one.bottom >= top),
  );
}

function cutUp(points: ArrayLike<number>, line: number): Stretch[] {
  const out: Stretch[] = [];
  for (let from = 0; from + 2 < points.length; from += STRETCH_STEPS * 2) {
    const to = Math.min(from + STRETCH_STEPS * 2, points.length - 2);
    let [left, top, right, bottom] = [points[from], points[from + 1], points[from], points[from + 1]];
    for (let i = from + 2; i <= to; i += 2) {
      left = Math.min(left, points[i]);
      right = Math.max(right, points[i]);
      top = Math.min(top, points[i + 1]);
      bottom = Math.max(bottom, points[i + 1]);
    }
    out.push({ line, from, to, left, top, right, bottom });
  }
  return out;
}

function crossStretches(
  lines: readonly ArrayLike<number>[],
  own: Stretch,
  other: Stretch,
  isMutual: boolean,
  tell: TellCrossing,
): void {
  const a = lines[own.line];
  const b = lines[other.line];
  for (let i = own.from; i < own.to; i += 2) {
    const ax = a[i];
    const ay = a[i + 1];
    const bx = a[i + 2];
    const by = a[i + 3];
    const left = Math.min(ax, bx);
    const right = Math.max(ax, bx);
    const top = Math.min(ay, by);
    const bottom = Math.max(ay, by);
    if (right < other.left || left > other.right || bottom < other.top || top > other.bottom) continue;
    for (let k = other.from; k < other.to; k += 2) {
      if (i === k && own.line === other.line) continue;
      const cx = b[k];
      const cy = b[k + 1];
      const dx = b[k + 2];
      const dy = b[k + 3];
      if ((cx < left && dx < left) || (cx > right && dx > right)) continue;
      if ((cy < top && dy < top) || (cy > bottom && dy > bottom)) continue;
      if (!doCross(ax, ay, bx, by, cx, cy, dx, dy)) continue;
      tell(own.line, i, other.line, k);
      if (isMutual) tell(other.line, k, own.line, i);
    }
  }
}

function doCross(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): boolean {
  if (isPositive(ax, ay, bx, by, cx, cy) === isPositive(ax, ay, bx, by, dx, dy)) return false;
  if (isPositive(cx, cy, dx, dy, ax, ay) === isPositive(cx, cy, dx, dy, bx, by)) return false;
  const isA = (ax === cx && ay === cy) || (ax === dx && ay === dy);
  return !isA && !((bx === cx && by === cy) || (bx === dx && by === dy));
}

function isPositive(px: number, py: number, qx: number, qy: number, x: number, y: number): boolean {
  return orient2d(px, py, qx, qy, x, y) >= 0;
}
