// Lines with distances along them, and where they turn.
import { lengthOf } from "../geometry/index.ts";

/** Directions at a corner are taken up to here from it, mm, but for a share: the very corner may be a little round (our own). */
export const TURN_MM = 0.7;
const NEAR_SHARE = 1 / 7;
/** A line with the distance of each point from its first, mm. */
export interface MeasuredLine {
  readonly points: ArrayLike<number>;
  readonly along: Float64Array;
}

export function measureLine(points: ArrayLike<number>): MeasuredLine {
  const along = new Float64Array(points.length / 2);
  for (let i = 1; i < along.length; i++)
    along[i] = along[i - 1] + lengthOf(points[i * 2] - points[i * 2 - 2], points[i * 2 + 1] - points[i * 2 - 1]);
  return { points, along };
}

/** So many points are stepped over before a place is looked for by halves. */
const STEPS = 4;

/** The point at a distance along a line; near the last that was asked for it costs no search. */
export function pointAlong({ points, along }: MeasuredLine): (at: number) => readonly [number, number] {
  let i = 0;
  if (along.length === 1) return () => [points[0], points[1]];
  return (at) => {
    const last = along.length - 2;
    for (let k = 0; k < STEPS && i > 0 && along[i] > at; k++) i--;
    for (let k = 0; k < STEPS && i < last && along[i + 1] < at; k++) i++;
    if ((i > 0 && along[i] > at) || (i < last && along[i + 1] < at)) {
      // The first part whose end lies beyond the place.
      let [low, high] = [0, last];
      while (low < high) {
        const middle = (low + high) >> 1;
        if (along[middle + 1] < at) low = middle + 1;
        else high = middle;
      }
      i = low;
    }
    const t = Math.min(1, Math.max(0, (at - along[i]) / (along[i + 1] - along[i] || 1)));
    return [
      points[i * 2] + t * (points[i * 2 + 2] - points[i * 2]),
      points[i * 2 + 1] + t * (points[i * 2 + 3] - points[i * 2 + 1]),
    ];
  };
}

/** A corner of a line: its point's number, and the directions in which the line comes and goes. */
export interface Corner {
  readonly index: number;
  readonly at: number;
  readonly comes: readonly [number, number];
  readonly goes: readonly [number, number];
}

/** Of a line that goes round twice: one round of it. */
export function isInMiddle(at: number, whole: number): boolean {
  return at >= whole / 4 && at < (whole * 3) / 4;
}

/** Where a line turns by an angle at least, given as its cosine, within `turnMm` to both sides: the sharpest point of each such place. */
export function findCorners(line: MeasuredLine, turnCosine: number, turnMm: number = TURN_MM): Corner[] {
  const { along } = line;
  const on = [pointAlong(line), pointAlong(line), pointAlong(line), pointAlong(line)] as const;
  const found: (Corner & { cosine: number })[] = [];
  const whole = along[along.length - 1];
  const nearMm = turnMm * NEAR_SHARE;
  for (let index = 0; index < along.length; index++) {
    const at = along[index];
    if (at < turnMm || at > whole - turnMm) continue;
    const comes = direction(on[0](at - turnMm), on[1](at - nearMm));
    const goes = direction(on[2](at + nearMm), on[3](at + turnMm));
    if (!comes || !goes) continue;
    const cosine = comes[0] * goes[0] + comes[1] * goes[1];
    if (cosine > turnCosine) continue;
    const last = found[found.length - 1];
    if (last && at - last.at < 2 * turnMm) {
      if (cosine < last.cosine) found[found.length - 1] = { index, at, comes, goes, cosine };
    } else found.push({ index, at, comes, goes, cosine });
  }
  return found;
}

function direction(
  [fromX, fromY]: readonly [number, number],
  [toX, toY]: readonly [number, number],
): readonly [number, number] | null {
  const length = lengthOf(toX - fromX, toY - fromY);
  return length > 0 ? [(toX - fromX) / length, (toY - fromY) / length] : null;
}
