// Needle points: where a thread goes down along a line.
import { lengthOf } from "../geometry/index.ts";

/** No stitch is shorter, mm, ties apart: thread breaks (from memory of handbooks). */
export const LEAST_STITCH_MM = 0.5;
/** A stitch may leave the line that it follows by so much, mm: a quarter of a thread. */
const OFF_MM = 0.1;

/** A growing row of needle points. */
export class NeedleRow {
  readonly points: number[] = [];

  /** Goes down at a place, unless it is nearer to the last than a stitch may be. Returns whether it did. */
  to(x: number, y: number): boolean {
    const { points } = this;
    const n = points.length;
    if (n > 0 && lengthOf(x - points[n - 2], y - points[n - 1]) < LEAST_STITCH_MM) return false;
    points.push(x, y);
    return true;
  }

  /**
   * Turns into a row that begins at x and goes on towards `end` (`onward` 1 or -1). Where rows lie nearer than a stitch is
   * long, the one of both that ends less far out is drawn in by as much as that takes.
   */
  turnTo(x: number, y: number, onward: number, end: number): void {
    const { points } = this;
    const n = points.length;
    if (n === 0 || this.to(x, y)) {
      if (n === 0) points.push(x, y);
      return;
    }
    const [lastX, dy] = [points[n - 2], y - points[n - 1]];
    const off = onward * Math.sqrt(Math.max(0, LEAST_STITCH_MM ** 2 - dy * dy)) * (1 + 1e-9);
    if ((x - lastX) * onward < 0 && this.drawInTo(x + off)) this.to(x, y);
    else if ((end - lastX - off) * onward >= LEAST_STITCH_MM) this.to(lastX + off, y);
  }

  /** Moves the last needle point back along its row, unless it comes too near to the one before in that. */
  private drawInTo(x: number): boolean {
    const { points } = this;
    const n = points.length;
    if (n < 4 || points[n - 3] !== points[n - 1] || Math.abs(x - points[n - 4]) < LEAST_STITCH_MM) return false;
    // Where the next row goes on the same way there is nothing to go back.
    if ((x - points[n - 2]) * (points[n - 4] - points[n - 2]) < 0) return false;
    points[n - 2] = x;
    return true;
  }
}

/**
 * Needle points along a line x, y, ..., its first and last among them: stitches of one length between turns, at most `stitchMm`,
 * shorter where the line bends away from under them.
 */
export function divideLine(line: ArrayLike<number>, stitchMm: number): number[] {
  const n = line.length / 2;
  const out = [line[0], line[1]];
  const kept = keepTurns(line);
  for (let k = 1; k < kept.length; k++) {
    const [from, to] = [kept[k - 1], kept[k]];
    let whole = 0;
    for (let i = from; i < to; i++) whole += lengthOf(line[i * 2 + 2] - line[i * 2], line[i * 2 + 3] - line[i * 2 + 1]);
    const parts = Math.max(1, Math.ceil(whole / stitchMm - 1e-9));
    let [i, passed] = [from, 0];
    for (let part = 1; part < parts; part++) {
      const wanted = (part / parts) * whole;
      for (;;) {
        const step = lengthOf(line[i * 2 + 2] - line[i * 2], line[i * 2 + 3] - line[i * 2 + 1]);
        if (passed + step >= wanted || i + 1 >= to) {
          const t = step > 0 ? Math.min(1, (wanted - passed) / step) : 0;
          out.push(
            line[i * 2] + t * (line[i * 2 + 2] - line[i * 2]),
            line[i * 2 + 1] + t * (line[i * 2 + 3] - line[i * 2 + 1]),
          );
          break;
        }
        passed += step;
        i++;
      }
    }
    out.push(line[to * 2], line[to * 2 + 1]);
  }
  return n > 1 ? out : [line[0], line[1]];
}

/** Points at which a line turns away by more than a stitch may leave it (Douglas & Peucker 1973), none nearer than a stitch. */
function keepTurns(line: ArrayLike<number>): number[] {
  const n = line.length / 2;
  const kept = new Uint8Array(n);
  kept[0] = 1;
  kept[n - 1] = 1;
  const open: [number, number][] = [[0, n - 1]];
  for (let span = open.pop(); span; span = open.pop()) {
    const [from, to] = span;
    let [far, most] = [-1, OFF_MM];
    const [ax, ay] = [line[from * 2], line[from * 2 + 1]];
    const [dx, dy] = [line[to * 2] - ax, line[to * 2 + 1] - ay];
    const square = dx * dx + dy * dy;
    for (let i = from + 1; i < to; i++) {
      const [px, py] = [line[i * 2] - ax, line[i * 2 + 1] - ay];
      const t = square > 0 ? Math.min(1, Math.max(0, (px * dx + py * dy) / square)) : 0;
      const off = lengthOf(px - t * dx, py - t * dy);
      if (off > most) [far, most] = [i, off];
    }
    if (far < 0) continue;
    kept[far] = 1;
    open.push([from, far], [far, to]);
  }
  return Array.from(kept.keys()).filter((i) => kept[i] === 1);
}

/**
 * The same needle points sewn over and over: each stitch forwards, back, and forwards again for three passes, once more for
 * five.
 */
export function beanOf(needles: readonly number[], passes: 3 | 5): number[] {
  const out = [needles[0], needles[1]];
  for (let i = 2; i < needles.length; i += 2)
    for (let pass = 0; pass < passes; pass++) {
      const at = pass % 2 === 0 ? i : i - 2;
      out.push(needles[at], needles[at + 1]);
    }
  return out;
}
