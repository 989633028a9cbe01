// How wide things are along their boundaries: walked in steps, and measured across to the boundary opposite.
import type Flatbush from "flatbush";
import { type Bounds, type CubicPath, flattenPath, indexBounds } from "../geometry/index.ts";

export interface ThinLimits {
  readonly lineMm: number;
  readonly gapMm: number;
}

/** Boundaries are walked in steps of this share of the limit, and at least so many pixels. */
const STEP = 0.25;
const LEAST_STEP_PX = 0.5;
/** A boundary that starts anew within this is the same one bending, px. */
const SELF_PX = 0.25;
/** Opposite boundaries face each other at least this much (cosine). */
const FACING = -0.5;
/** Rounded ends are thinner than their line: a place is as thin as it is at this share of its length. */
const TYPICAL = 0.15;
/** Only what stays thin this many limits long counts... */
const LONG = 2;
/** ... and a tip or a wedge narrows to nothing: where the width changes by more than this for the way along it (7 degrees), it does not stay. */
const TAPERS = 0.12;
/** Widths are compared over the limit's own length, and at least so many pixels: boundaries are only so exact. */
const LEAST_SPAN_PX = 4;

/** So many steps of a boundary in a row are looked round together: each look costs as much as testing dozens of steps. */
const TOGETHER = 8;

/** Steps along all boundaries, two for each: one looking to its left, one to its right. */
interface Walk {
  readonly x: number[];
  readonly y: number[];
  /** Unit direction of the boundary. */
  readonly dx: number[];
  readonly dy: number[];
  /** How much of the boundary a step stands for, px. */
  readonly length: number[];
  readonly left: number[];
  readonly right: number[];
  /** Number of the boundary: steps of one follow each other. */
  readonly boundary: number[];
}

/** A boundary between two grounds; what is under 0 is open. */
export interface Boundary {
  readonly path: CubicPath;
  readonly left: number;
  readonly right: number;
}

/** One thin step: how long it is, how thin, of what, where, and whether it stays so before and after. */
export interface ThinStep {
  /** Number of its boundary, and its place among all steps: those of one boundary follow each other. */
  readonly boundary: number;
  readonly at: number;
  readonly lengthPx: number;
  readonly widthPx: number;
  readonly ground: number;
  /** The middle across, source pixels. */
  readonly x: number;
  readonly y: number;
  /** Unit direction of the boundary. */
  readonly dx: number;
  readonly dy: number;
  readonly stays: boolean;
}

/** A place that is too thin, of what ground, and all its steps. */
export interface GroundPlace {
  readonly ground: number;
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly steps: readonly ThinStep[];
}

/** Places thinner than the limits of their ground, thinnest first. */
export function findThin(boundaries: readonly Boundary[], limits: ThinLimits, mmPerPx: number): GroundPlace[] {
  const finestMm = limits.gapMm > 0 ? Math.min(limits.lineMm, limits.gapMm) : limits.lineMm;
  const stepPx = Math.max(LEAST_STEP_PX, (STEP * finestMm) / mmPerPx);
  const walk = walkBoundaries(boundaries, stepPx);
  const count = walk.x.length;
  if (count === 0) return [];
  const runs = cutRuns(walk);
  const index = indexBounds(runs);
  const mostPx = Math.max(limits.lineMm, limits.gapMm) / mmPerPx;
  const sides = [1, -1].map((side) => {
    const grounds = side === 1 ? walk.left : walk.right;
    const limitOf = (i: number) => (grounds[i] < 0 ? limits.gapMm : limits.lineMm) / mmPerPx;
    return { side, grounds, limitOf, widths: new Float64Array(count) };
  });
  for (const run of runs) {
    const near = stepsNear(runs, index, run, mostPx + stepPx);
    // Left of a direction, y down, is (dy, -dx).
    for (const { side, grounds, limitOf, widths } of sides)
      for (let i = run.from; i < run.to; i++)
        widths[i] = measureAcross(walk, near, i, grounds[i], walk.dy[i] * side, -walk.dx[i] * side, stepPx, limitOf(i));
  }
  const thin: ThinStep[] = [];
  for (const { side, grounds, limitOf, widths } of sides) {
    for (let i = 0; i < count; i++) {
      if (widths[i] >= limitOf(i)) continue;
      thin.push({
        boundary: walk.boundary[i],
        at: i,
        lengthPx: walk.length[i],
        widthPx: widths[i],
        ground: grounds[i],
        x: walk.x[i] + (walk.dy[i] * side * widths[i]) / 2,
        y: walk.y[i] - (walk.dx[i] * side * widths[i]) / 2,
        dx: walk.dx[i],
        dy: walk.dy[i],
        stays: taperAt(walk, widths, i, Math.max(LEAST_SPAN_PX, limitOf(i))) < TAPERS,
      });
    }
  }
  return gather(thin, limits, mmPerPx);
}

/** How fast the width changes along the boundary within `spanPx` of step `i`, either way; what is not thin there says nothing. */
function taperAt(walk: Walk, widths: Float64Array, i: number, spanPx: number): number {
  let taper = 0;
  for (const to of [1, -1]) {
    let way = 0;
    let j = i;
    while (walk.boundary[j + to] === walk.boundary[i] && way < spanPx) {
      way += (walk.length[j] + walk.length[j + to]) / 2;
      j += to;
    }
    if (j !== i && Number.isFinite(widths[j])) taper = Math.max(taper, Math.abs(widths[j] - widths[i]) / spanPx);
  }
  return taper;
}

function walkBoundaries(boundaries: readonly Boundary[], stepPx: number): Walk {
  const walk: Walk = { x: [], y: [], dx: [], dy: [], length: [], left: [], right: [], boundary: [] };
  boundaries.forEach(({ path, left, right }, boundary) => {
    if (left === right) return;
    const points = flattenPath(path, 0.02);
    for (let i = 2; i < points.length; i += 2) {
      const ax = points[i - 2];
      const ay = points[i - 1];
      const length = Math.hypot(points[i] - ax, points[i + 1] - ay);
      const steps = Math.max(1, Math.round(length / stepPx));
      if (length === 0) continue;
      for (let s = 0; s < steps; s++) {
        const t = (s + 0.5) / steps;
        walk.x.push(ax + (points[i] - ax) * t);
        walk.y.push(ay + (points[i + 1] - ay) * t);
        walk.dx.push((points[i] - ax) / length);
        walk.dy.push((points[i + 1] - ay) / length);
        walk.length.push(length / steps);
        walk.left.push(left);
        walk.right.push(right);
        walk.boundary.push(boundary);
      }
    }
  });
  return walk;
}

/** Steps of one boundary that follow each other, from `from` up to `to`, and the box round them. */
interface Run extends Bounds {
  readonly from: number;
  readonly to: number;
}

function cutRuns({ x, y, boundary }: Walk): Run[] {
  const runs: Run[] = [];
  for (let from = 0, to = 0; from < x.length; from = to) {
    let [left, top, right, bottom] = [x[from], y[from], x[from], y[from]];
    for (; to < x.length && to < from + TOGETHER && boundary[to] === boundary[from]; to++) {
      left = Math.min(left, x[to]);
      right = Math.max(right, x[to]);
      top = Math.min(top, y[to]);
      bottom = Math.max(bottom, y[to]);
    }
    runs.push({ from, to, left, top, right, bottom });
  }
  return runs;
}

/** Steps that may be within reach of a run, its own among them. */
function stepsNear(runs: readonly Run[], index: Flatbush, { left, top, right, bottom }: Run, reach: number): number[] {
  const near: number[] = [];
  for (const found of index.search(left - reach, top - reach, right + reach, bottom + reach))
    for (let i = runs[found].from; i < runs[found].to; i++) near.push(i);
  return near;
}

/** Distance from step `i` along its normal to the boundary on the other side of its ground, among steps near it, as far as `most`. */
function measureAcross(
  walk: Walk,
  near: readonly number[],
  i: number,
  own: number,
  nx: number,
  ny: number,
  stepPx: number,
  most: number,
): number {
  const x = walk.x[i];
  const y = walk.y[i];
  const left = Math.min(x, x + nx * most) - stepPx;
  const right = Math.max(x, x + nx * most) + stepPx;
  const top = Math.min(y, y + ny * most) - stepPx;
  const bottom = Math.max(y, y + ny * most) + stepPx;
  let best = Number.POSITIVE_INFINITY;
  for (let k = 0; k < near.length; k++) {
    const j = near[k];
    if (walk.x[j] < left || walk.x[j] > right || walk.y[j] < top || walk.y[j] > bottom) continue;
    const along = (walk.x[j] - x) * nx + (walk.y[j] - y) * ny;
    if (along < SELF_PX || along >= best) continue;
    const aside = Math.abs((walk.x[j] - x) * ny - (walk.y[j] - y) * nx);
    if (aside > stepPx) continue;
    // The side of j that looks back: its normal against ours.
    const facing = walk.dy[j] * nx - walk.dx[j] * ny;
    const isBack = facing <= FACING ? walk.left[j] === own : facing >= -FACING && walk.right[j] === own;
    if (isBack) best = along;
  }
  return best;
}

/** Thin steps that lie together make one place, if it stays thin for long enough. */
function gather(thin: readonly ThinStep[], limits: ThinLimits, mmPerPx: number): GroundPlace[] {
  const cellPx = Math.max(1.5, (2 * Math.max(limits.lineMm, limits.gapMm)) / mmPerPx);
  const cells = new Map<string, number[]>();
  const cellOf = ({ x, y }: { x: number; y: number }) => [Math.floor(x / cellPx), Math.floor(y / cellPx)];
  thin.forEach((step, k) => {
    const [u, v] = cellOf(step);
    const key = `${step.ground} ${u} ${v}`;
    const cell = cells.get(key);
    if (cell) cell.push(k);
    else cells.set(key, [k]);
  });
  const places: GroundPlace[] = [];
  const seen = new Set<string>();
  for (const key of cells.keys()) {
    if (seen.has(key)) continue;
    seen.add(key);
    const stack = [key];
    const members: number[] = [];
    for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
      members.push(...(cells.get(at) ?? []));
      const [g, u, v] = at.split(" ").map(Number);
      for (let du = -1; du <= 1; du++)
        for (let dv = -1; dv <= 1; dv++) {
          const next = `${g} ${u + du} ${v + dv}`;
          if (!cells.has(next) || seen.has(next)) continue;
          seen.add(next);
          stack.push(next);
        }
    }
    // Both sides of a stretch were walked.
    const lengthPx = (steps: readonly number[]) => steps.reduce((sum, k) => sum + thin[k].lengthPx, 0) / 2;
    const steady = members.filter((k) => thin[k].stays).sort((a, b) => thin[a].widthPx - thin[b].widthPx);
    if (steady.length === 0) continue;
    const { ground, x, y, widthPx } = thin[steady[Math.floor(steady.length * TYPICAL)]];
    const limitMm = ground < 0 ? limits.gapMm : limits.lineMm;
    if (lengthPx(steady) * mmPerPx < LONG * limitMm) continue;
    places.push({
      ground,
      x,
      y,
      widthMm: widthPx * mmPerPx,
      lengthMm: lengthPx(members) * mmPerPx,
      steps: members.map((k) => thin[k]),
    });
  }
  return places.sort((a, b) => a.widthMm - b.widthMm);
}
