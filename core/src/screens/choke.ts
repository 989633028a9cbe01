// How far a base is pulled in at each point of its edge: in full where it is wide, giving way where it is thin.
import { cosineBetween, lengthOf } from "../geometry/index.ts";

/** What decides an underbase, in source pixels. */
export interface BaseSettings {
  readonly chokePx: number;
  /** The thinnest base that prints. */
  readonly thinnestPx: number;
}

/**
 * Up to this many times the thinnest printable base a feature gives nothing to the choke, and from twice that on all of it:
 * a choke of 0.35 mm would leave half of a 4 mm letter's stems without base (our own; the trade's rule is that a base never
 * gets thinner than prints, common practice, no source).
 */
const KEEPS_ALL = 3;
/** Tips and wedges taper: from this change of width for the way along the edge on (17 degrees) a feature counts less as thin... */
const TAPERS = 0.3;
/** ... and from this on (33 degrees) not at all: under a tip the base ends before the ink does. */
const IS_WEDGE = 0.6;
/** From one point of the edge to the next a choke grows by at most this much of the way: no notch where a stem ends or joins. */
const MOST_GROWTH = 0.25;

/** How far across a feature has to be looked to know its choke, source pixels. */
export function chokeReach({ chokePx, thinnestPx }: BaseSettings): number {
  return 2 * KEEPS_ALL * thinnestPx + 2 * chokePx;
}

/** The choke at every point of a line x, y, ..., given how wide the base is across it there. */
export function chokeAlong(
  line: readonly number[],
  across: Float64Array,
  { chokePx, thinnestPx }: BaseSettings,
): Float64Array {
  const tapers = taperAlong(line, across, chokePx);
  const chokes = across.map((width, i) => {
    const wedge = Math.min(1, Math.max(0, (tapers[i] - TAPERS) / (IS_WEDGE - TAPERS)));
    return (1 - wedge) * chokeAt(width, chokePx, thinnestPx) + wedge * Math.min(chokePx, width);
  });
  return growSlowly(line, chokes);
}

/** The choke on either side of a feature this wide. */
function chokeAt(widthPx: number, chokePx: number, thinnestPx: number): number {
  const kept = KEEPS_ALL * thinnestPx;
  const share = kept > 0 ? Math.min(1, Math.max(0, widthPx / kept - 1)) : 1;
  return Math.min(chokePx * share, Math.max(0, (widthPx - thinnestPx) / 2));
}

/**
 * For every point of a line, how fast its width changes along the edge, before or after it, whichever is less; measured over
 * `spanPx`, or as far as the next sharp corner: beyond it lies the tip's other side, or the end of a stem.
 */
function taperAlong(line: readonly number[], widths: Float64Array, spanPx: number): Float64Array {
  const n = widths.length;
  const forward = slopesAlong(line, widths, spanPx);
  const mirrored = new Array<number>(2 * n);
  for (let i = 0; i < n; i++) {
    mirrored[i * 2] = line[(n - 1 - i) * 2];
    mirrored[i * 2 + 1] = line[(n - 1 - i) * 2 + 1];
  }
  const backward = slopesAlong(mirrored, widths.slice().reverse(), spanPx).reverse();
  // Between two corners close together nothing can be said: no wedge.
  return forward.map((slope, i) => (slope === UNKNOWN && backward[i] === UNKNOWN ? 0 : Math.min(slope, backward[i])));
}

const UNKNOWN = Number.POSITIVE_INFINITY;

/** How fast widths change from each point on; UNKNOWN where a corner or the line's end comes at once. */
function slopesAlong(line: readonly number[], widths: Float64Array, spanPx: number): Float64Array {
  const n = widths.length;
  const slopes = new Float64Array(n).fill(UNKNOWN);
  for (let i = 0; i < n - 1; i++) {
    let way = 0;
    let j = i;
    do {
      way += lengthOf(line[j * 2 + 2] - line[j * 2], line[j * 2 + 3] - line[j * 2 + 1]);
      j++;
    } while (j < n - 1 && way < spanPx && !isSharp(line, j));
    if (way > spanPx / 4) slopes[i] = Math.abs(widths[j] - widths[i]) / way;
  }
  return slopes;
}

/** Whether the line turns by more than 45 degrees at a point. */
function isSharp(line: readonly number[], i: number): boolean {
  const [x, y] = [line[i * 2], line[i * 2 + 1]];
  const before = [x - line[i * 2 - 2], y - line[i * 2 - 1]];
  const after = [line[i * 2 + 2] - x, line[i * 2 + 3] - y];
  return cosineBetween(before[0], before[1], after[0], after[1]) < Math.SQRT1_2;
}

/** The chokes along a line, none larger than its neighbours' and a share of the way to them. */
function growSlowly(line: readonly number[], chokes: Float64Array): Float64Array {
  const out = chokes.slice();
  const n = out.length;
  const relax = (i: number, from: number) => {
    const way = lengthOf(line[i * 2] - line[from * 2], line[i * 2 + 1] - line[from * 2 + 1]);
    out[i] = Math.min(out[i], out[from] + MOST_GROWTH * way);
  };
  const closes = line[0] === line[line.length - 2] && line[1] === line[line.length - 1];
  // A ring is gone round twice, so that what is thin beside its seam counts on both sides of it.
  for (let turn = 0; turn < (closes ? 2 : 1); turn++) {
    if (closes) out[0] = out[n - 1] = Math.min(out[0], out[n - 1]);
    for (let i = 1; i < n; i++) relax(i, i - 1);
    for (let i = n - 2; i >= 0; i--) relax(i, i + 1);
  }
  return out;
}
