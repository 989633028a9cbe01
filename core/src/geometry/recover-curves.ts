// Curves that polygon arithmetic left alone come back: wherever consecutive corners of a polygon are consecutive points of
// a flattened curve, that stretch is the curve again, to the last digit. Our own method.

import { area } from "clipper2-ts";
import {
  type CubicPath,
  flattenPath,
  flattenSteps,
  isLine,
  reversePath,
  segmentCount,
  subCubic,
} from "./cubic-path.ts";
import { dropIdlePoints, fromGrid, type Polygons, toGrid } from "./polygons.ts";

/** Where a flattened point lies: on which source path, and which of its points it is. */
interface Place {
  readonly source: number;
  readonly at: number;
}

/** A stretch of a ring that follows a source path, from its point `from`, `length` points on, forwards or backwards. */
interface Run {
  readonly source: number;
  readonly from: number;
  readonly step: 1 | -1;
  readonly length: number;
}

/** What a line of points is drawn as where it follows no source: a path that begins and ends where it does. */
export type LooseFit = (points: Float64Array) => CubicPath;

/**
 * Polygons (made from `sources` flattened within `tolerancePx`, and from others) as closed paths in source pixels. What
 * runs along a source keeps its curves; the rest becomes what `fitLoose` makes of it, or stays straight between corners, those
 * left out that say nothing (half a tolerance off at most). Rings smaller across than the tolerance are rounding's and go. Cost
 * is linear in corners.
 */
export function recoverCurves(
  polygons: Polygons,
  sources: readonly CubicPath[],
  tolerancePx: number,
  fitLoose?: LooseFit,
): CubicPath[] {
  const sourceCurves = new SourceCurves(sources, tolerancePx, fitLoose);
  const leastArea = toGrid(tolerancePx) ** 2;
  const paths: CubicPath[] = [];
  for (const polygon of polygons) if (Math.abs(area(polygon)) >= leastArea) paths.push(sourceCurves.pathOf(polygon));
  return paths;
}

type Ring = Polygons[number];

const NOWHERE: readonly Place[] = [];

/** Curves, and where each point that they are flattened to lies. */
class SourceCurves {
  private readonly flat: readonly number[][];
  private readonly curves: readonly CurveSteps[];
  private readonly places = new Map<number, Place[]>();

  constructor(
    private readonly sources: readonly CubicPath[],
    private readonly tolerancePx: number,
    private readonly fitLoose?: LooseFit,
  ) {
    this.flat = sources.map((path) => flattenPath(path, tolerancePx));
    this.curves = sources.map((path) => curveSteps(path, tolerancePx));
    for (let source = 0; source < sources.length; source++) this.place(source);
  }

  /** A ring as a path, with the curves that it runs along. */
  pathOf(polygon: Ring): CubicPath {
    const { sources, flat } = this;
    const n = polygon.length;
    const candidates = this.candidatesOf(polygon);
    // Rings begin where no run passes through, so that no run is cut in two.
    let first = 0;
    while (first < n && continues(candidates, (first + n - 1) % n, flat)) first++;
    if (first === n) {
      const whole = longestRun(candidates, 0, flat);
      if (whole && whole.length >= n && flat[whole.source].length / 2 - 1 === n)
        return whole.step === 1 ? sources[whole.source] : reversePath(sources[whole.source]);
      first = 0;
    }
    const out = [fromGrid(polygon[first].x), fromGrid(polygon[first].y)];
    let loose = [polygon[first]];
    for (let k = 0; k < n; ) {
      const i = (first + k) % n;
      const found = longestRun(candidates, i, flat);
      const length = found ? Math.min(found.length, n - k) : 0;
      if (found && length > 0) {
        this.pushLoose(out, loose);
        pushRun(out, { ...found, length }, sources[found.source], this.curves[found.source]);
        k += length;
        loose = [polygon[(first + k) % n]];
        continue;
      }
      loose.push(polygon[(i + 1) % n]);
      k++;
    }
    this.pushLoose(out, loose);
    // Both ends of a ring are one point, to the last digit.
    out[out.length - 2] = out[0];
    out[out.length - 1] = out[1];
    return Float64Array.from(out);
  }

  private place(source: number): void {
    const points = this.flat[source];
    // The last point is the first again.
    for (let at = 0; at + 1 < points.length / 2; at++) {
      const key = keyOf(toGrid(points[at * 2]), toGrid(points[at * 2 + 1]));
      const list = this.places.get(key);
      if (list) list.push({ source, at });
      else this.places.set(key, [{ source, at }]);
    }
  }

  private candidatesOf(polygon: Ring): (readonly Place[])[] {
    const candidates: (readonly Place[])[] = [];
    for (const { x, y } of polygon) candidates.push(this.places.get(keyOf(x, y)) ?? NOWHERE);
    return candidates;
  }

  /** Adds a line of points that follows no source; it begins where the path ends. */
  private pushLoose(out: number[], loose: Ring): void {
    if (this.fitLoose && loose.length > 2) {
      const points = new Float64Array(loose.length * 2);
      for (let i = 0; i < loose.length; i++) {
        points[i * 2] = fromGrid(loose[i].x);
        points[i * 2 + 1] = fromGrid(loose[i].y);
      }
      const path = this.fitLoose(points);
      for (let i = 2; i < path.length; i++) out.push(path[i]);
      return;
    }
    const kept = dropIdlePoints(loose, this.tolerancePx / 2);
    for (let i = 1; i < kept.length; i++) pushLine(out, fromGrid(kept[i].x), fromGrid(kept[i].y));
  }
}

/** Grid coordinates fit 27 bits and a sign: together they name a point exactly in a double. */
function keyOf(x: number, y: number): number {
  return x * 0x4000000 + y;
}

/** For every flattened point of a path: its segment, and which of the segment's steps leads on from it. */
interface CurveSteps {
  readonly segment: Int32Array;
  readonly step: Int32Array;
  readonly steps: Int32Array;
}

function curveSteps(path: CubicPath, tolerancePx: number): CurveSteps {
  const segment: number[] = [];
  const step: number[] = [];
  const steps: number[] = [];
  for (let s = 0; s < segmentCount(path); s++) {
    const count = flattenSteps(path, s, tolerancePx);
    for (let k = 0; k < count; k++) {
      segment.push(s);
      step.push(k);
      steps.push(count);
    }
  }
  return { segment: Int32Array.from(segment), step: Int32Array.from(step), steps: Int32Array.from(steps) };
}

/** Whether the side from corner `i` to the next follows some source. */
function continues(candidates: readonly (readonly Place[])[], i: number, flat: readonly number[][]): boolean {
  const next = candidates[(i + 1) % candidates.length];
  return candidates[i].some(({ source, at }) => next.some((other) => isBeside(source, at, other, flat) !== 0));
}

/** 1 or -1 if `other` is the point after or before on the same source, else 0. */
function isBeside(source: number, at: number, other: Place, flat: readonly number[][]): 1 | -1 | 0 {
  if (other.source !== source) return 0;
  const count = flat[source].length / 2 - 1;
  if (other.at === (at + 1) % count) return 1;
  return other.at === (at + count - 1) % count ? -1 : 0;
}

/** The longest stretch from corner `i` on that follows a source; its length is in sides. */
function longestRun(candidates: readonly (readonly Place[])[], i: number, flat: readonly number[][]): Run | null {
  const n = candidates.length;
  let best: Run | null = null;
  for (const { source, at } of candidates[i])
    for (const step of [1, -1] as const) {
      const count = flat[source].length / 2 - 1;
      let length = 0;
      while (length < n) {
        const wanted = (at + step * (length + 1) + count * (length + 2)) % count;
        const next = candidates[(i + length + 1) % n];
        if (!next.some((place) => place.source === source && place.at === wanted)) break;
        length++;
      }
      if (length > (best?.length ?? 0)) best = { source, from: at, step, length };
    }
  return best;
}

/** Adds the source's own segments, whole where the run passes all of one, else the part of it. */
function pushRun(out: number[], run: Run, source: CubicPath, { segment, step, steps }: CurveSteps): void {
  const count = segment.length;
  for (let k = 0; k < run.length; ) {
    // The step that is travelled leads on from its first point; backwards that is the point before.
    const side = run.step === 1 ? (run.from + k) % count : (run.from - k - 1 + 2 * count * run.length) % count;
    const s = segment[side];
    const total = steps[side];
    const first = step[side];
    const left = run.step === 1 ? total - first : first + 1;
    const taken = Math.min(left, run.length - k);
    const [from, to] = run.step === 1 ? [first, first + taken] : [first + 1, first + 1 - taken];
    if (isLine(source, s)) {
      const o = s * 6 + (run.step === 1 ? 6 : 0);
      pushLine(out, source[o], source[o + 1]);
    } else out.push(...subCubic(source, s, from / total, to / total));
    k += taken;
  }
}

function pushLine(out: number[], x: number, y: number): void {
  out.push(out[out.length - 2], out[out.length - 1], x, y, x, y);
}
