// From the points of one boundary to its curve: corners first, shapes with a name next, then the fewest segments.
import { type CubicPath, cosineBetween, densify, lengthOf } from "../../geometry/index.ts";
import { type Sharing, shareOut, type Task } from "../../share/index.ts";
import type { ReadyLine } from "../read/index.ts";
import { fitCircle } from "./circle.ts";
import { fitEllipse } from "./ellipse.ts";
import { fitStretch } from "./fit-stretch.ts";
import { type Guide, guideAt } from "./guide.ts";
import { findStraights } from "./straights.ts";

/** Tolerance for short boundaries, px: a wider one would straighten single pixels away. */
export const SHORT_PX = 0.2;
/** How closely curves are to follow their boundaries. */
export interface CurveSettings {
  readonly tolerancePx: number;
  /** Whether small shapes keep to FINE_PX, whatever the tolerance. */
  readonly keepsText: boolean;
}

/** Tolerance that keeps small shapes crisp, px. */
const FINE_PX = 0.2;

/** How far the curve of a line may lie off its points, px. */
export function toleranceOf(line: ReadyLine, { tolerancePx, keepsText }: CurveSettings): number {
  const asked = keepsText && line.isFine ? Math.min(tolerancePx, FINE_PX) : tolerancePx;
  const wide = Math.max(asked + line.extraPx, line.leastPx);
  return line.isShort ? Math.min(wide, SHORT_PX) : wide + line.hardPx;
}

/** Curves kept of each line: as asked for, and as it was made again where it crossed another. */
const KEPT_CURVES = 4;

/** The curve of a line within a tolerance, px. Small shapes often keep theirs when the tolerance asked for changes. */
export function fitLine(line: ReadyLine, tolerance: number): CubicPath {
  const last = line.made.curves.get(tolerance);
  if (last) return last.slice();
  const path = fitPoints(line, tolerance);
  keepCurve(line, tolerance, path.slice());
  return path;
}

function keepCurve({ made }: ReadyLine, tolerance: number, path: CubicPath): void {
  if (made.curves.size === KEPT_CURVES) made.curves.clear();
  made.curves.set(tolerance, path);
}

/** All of a line that its curve follows from. */
type LinePoints = Pick<ReadyLine, "points" | "corners" | "isLoop">;

function fitPoints({ points, corners, isLoop }: LinePoints, tolerance: number): CubicPath {
  return isLoop
    ? fitLoop(points, corners, tolerance)
    : fitBetween(points, [0, ...corners, points.length / 2 - 1], tolerance);
}

/** Points of lines that are fitted in one go, at least: a part of shared work costs a message. */
const PART_POINTS = 500;

/** Lines, each with its tolerance, as their curves. */
export const fitTask: Task<null, readonly (LinePoints & { readonly tolerance: number })[], readonly CubicPath[]> = {
  name: "fit lines",
  begin: () => (lines) => lines.map((line) => fitPoints(line, line.tolerance)),
};

/** Fits the lines that have no curve yet within the tolerance that is asked of them, with whoever helps; `fitLine` finds them. */
export function* fitTogether(lines: readonly (ReadyLine | null)[], curves: CurveSettings): Sharing<void> {
  const unfitted = lines
    .filter((line) => line !== null)
    .map((line) => ({ line, tolerance: toleranceOf(line, curves) }))
    .filter(({ line, tolerance }) => !line.made.curves.has(tolerance))
    .sort((a, b) => b.line.points.length - a.line.points.length);
  const parts: (typeof unfitted)[] = [];
  let length = PART_POINTS;
  for (const one of unfitted) {
    if (length >= PART_POINTS) {
      parts.push([]);
      length = 0;
    }
    parts[parts.length - 1].push(one);
    length += one.line.points.length / 2;
  }
  const pointsOf = ({ line: { points, corners, isLoop }, tolerance }: (typeof unfitted)[number]) => ({
    ...{ points, corners, isLoop },
    tolerance,
  });
  const paths = yield* shareOut(
    fitTask,
    null,
    parts.map((part) => part.map(pointsOf)),
  );
  for (const [k, part] of parts.entries())
    for (const [i, { line, tolerance }] of part.entries()) keepCurve(line, tolerance, paths[k][i]);
}

function fitLoop(line: Float64Array, corners: readonly number[], tolerance: number): CubicPath {
  if (corners.length === 0)
    return fitCircle(line, tolerance) ?? fitEllipse(line, tolerance) ?? fitSmoothLoop(line, tolerance);
  return fitBetween(rotateLoop(line, corners[0]), [...corners.map((c) => c - corners[0]), line.length / 2], tolerance);
}

/** The loop starting at point `first`, which is repeated at its end. */
export function rotateLoop(points: Float64Array, first: number): Float64Array {
  const out = new Float64Array(points.length + 2);
  out.set(points.subarray(first * 2));
  out.set(points.subarray(0, first * 2), points.length - first * 2);
  out[points.length] = out[0];
  out[points.length + 1] = out[1];
  return out;
}

/**
 * Fits each run between consecutive `breaks` (point indices, first and last included), sharp at the breaks. A run that
 * comes back to where it began is broken at its far end, too: one segment would loop.
 */
export function fitBetween(points: Float64Array, breaks: readonly number[], tolerance: number): CubicPath {
  const out: number[] = [points[0], points[1]];
  for (let k = 1; k < breaks.length; k++) {
    const from = breaks[k - 1];
    const to = breaks[k];
    const comesBack = points[from * 2] === points[to * 2] && points[from * 2 + 1] === points[to * 2 + 1];
    const middle = comesBack ? farthest(points, from, to) : from;
    if (middle > from) pushRun(out, points, from, middle, tolerance);
    pushRun(out, points, middle, to, tolerance);
  }
  return Float64Array.from(out);
}

function pushRun(out: number[], points: Float64Array, from: number, to: number, tolerance: number): void {
  // Its own points only: what is changed of them is copied first.
  const run = points.subarray(from * 2, to * 2 + 2);
  for (const value of fitStretch(run, 0, to - from, tolerance, null, null)) out.push(value);
}

/** A computed line turns sharply where it turns by more than this (cosine of 30 degrees). */
const SHARP = 0.866;

/** Points of a computed line lie so many tolerances apart. */
const SPACING = 20;

/** The curve along a computed line (x, y pairs, exact, any distance apart) within `tolerance` pixels; its ends and sharp turns stay. */
export function fitPolyline(line: ArrayLike<number>, tolerance: number): CubicPath {
  const corners: number[] = [];
  const points = [line[0], line[1]];
  for (let i = 2; i + 1 < line.length; i += 2) {
    const side = [line[i - 2], line[i - 1], line[i], line[i + 1]] as const;
    for (const value of densify(side, SPACING * tolerance).slice(2)) points.push(value);
    const dx = side[2] - side[0];
    const dy = side[3] - side[1];
    const isLast = i + 3 >= line.length;
    if (!isLast && cosineBetween(dx, dy, line[i + 2] - side[2], line[i + 3] - side[3]) < SHARP)
      corners.push(points.length / 2 - 1);
  }
  return fitBetween(Float64Array.from(points), [0, ...corners, points.length / 2 - 1], tolerance);
}

/** Index of the point between two that lies farthest from the first. */
function farthest(points: Float64Array, from: number, to: number): number {
  let best = from;
  let most = 0;
  for (let i = from + 1; i < to; i++) {
    const distance = lengthOf(points[i * 2] - points[from * 2], points[i * 2 + 1] - points[from * 2 + 1]);
    if (distance > most) {
      most = distance;
      best = i;
    }
  }
  return best;
}

/**
 * A closed curve without corners. The seam is as smooth as the rest: it lies where a straight part begins, or else at the
 * topmost point.
 */
function fitSmoothLoop(points: Float64Array, tolerance: number): CubicPath {
  const n = points.length / 2;
  let top = 0;
  for (let i = 1; i < n; i++) if (points[i * 2 + 1] < points[top * 2 + 1]) top = i;
  const fromTop = rotateLoop(points, top);
  const straight = findStraights(fromTop, 0, n, tolerance * 0.5).find(({ from }) => from > 0);
  const loop = straight ? rotateLoop(points, (top + straight.from) % n) : fromTop;
  const seam = straight ? footOn(straight, loop[0], loop[1]) : guideAtSeam(loop, tolerance);
  if (seam) {
    loop[0] = loop[2 * n] = seam.x;
    loop[1] = loop[2 * n + 1] = seam.y;
  }
  const out: number[] = [loop[0], loop[1]];
  const run = fitStretch(loop, 0, n, tolerance, seam && [seam.dx, seam.dy], seam && [-seam.dx, -seam.dy]);
  for (const value of run) out.push(value);
  return Float64Array.from(out);
}

function footOn({ x, y, dx, dy }: Guide, px: number, py: number): Guide {
  const along = (px - x) * dx + (py - y) * dy;
  return { x: x + along * dx, y: y + along * dy, dx, dy };
}

/** Where a loop's first point really lies, from the points on either side of it. */
function guideAtSeam(loop: Float64Array, tolerance: number): Guide | null {
  const n = loop.length / 2 - 1;
  const side = Math.min(12, (n - 1) >> 1);
  const around = new Float64Array((2 * side + 1) * 2);
  for (let k = -side; k <= side; k++) {
    const i = ((k + n) % n) * 2;
    around[(k + side) * 2] = loop[i];
    around[(k + side) * 2 + 1] = loop[i + 1];
  }
  return guideAt(around, side, 0, 2 * side, tolerance * 0.3);
}
