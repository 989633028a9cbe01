// Where ink or the gap between inks is thinner than prints: measured across, from each boundary to the one opposite.
import Flatbush from "flatbush";
import { flattenPath } from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import { BARE, type PlanarMap } from "../trace/index.ts";

/** One stretch that is too thin. */
export interface ThinPlace {
  /** "line": ink; "gap": open garment between inks. */
  readonly kind: "line" | "gap";
  /** The ink, or null for a gap. */
  readonly spotId: string | null;
  /** Where it is that thin, source pixels. */
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly lengthMm: number;
}

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
/** A tip or a corner narrows to nothing: only what stays thin this many widths long counts. */
const LONG = 2;

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
}

/** All places thinner than the limits, thinnest first. Cost follows the boundaries' length. */
export function findThinPlaces(
  map: PlanarMap,
  spots: readonly Spot[],
  limits: ThinLimits,
  mmPerPx: number,
): ThinPlace[] {
  const roles = new Map(spots.map(({ id, role }) => [id, role]));
  // What a step borders: an ink by its number from 0, or the open garment.
  const inks = [...new Set(map.faces.map(({ spotId }) => spotId))].filter((id) => roles.get(id) === "ink");
  const groundOf = map.faces.map(({ spotId }) => inks.indexOf(spotId));
  const ground = (face: number) => (face === BARE ? -1 : groundOf[face]);
  const stepPx = Math.max(LEAST_STEP_PX, (STEP * Math.min(limits.lineMm, limits.gapMm)) / mmPerPx);
  const walk = walkBoundaries(map, ground, stepPx);
  const count = walk.x.length;
  if (count === 0) return [];
  const index = new Flatbush(count);
  for (let i = 0; i < count; i++) index.add(walk.x[i], walk.y[i], walk.x[i], walk.y[i]);
  index.finish();
  const thin: { lengthPx: number; widthPx: number; ground: number; x: number; y: number }[] = [];
  for (let i = 0; i < count; i++)
    for (const side of [1, -1] as const) {
      const own = side === 1 ? walk.left[i] : walk.right[i];
      const limitPx = (own < 0 ? limits.gapMm : limits.lineMm) / mmPerPx;
      // Left of a direction, y down, is (dy, -dx).
      const nx = walk.dy[i] * side;
      const ny = -walk.dx[i] * side;
      const widthPx = measureAcross(walk, index, i, own, nx, ny, limitPx, stepPx);
      if (widthPx < limitPx)
        thin.push({
          lengthPx: walk.length[i],
          widthPx,
          ground: own,
          x: walk.x[i] + (nx * widthPx) / 2,
          y: walk.y[i] + (ny * widthPx) / 2,
        });
    }
  return gather(thin, limits, mmPerPx, inks);
}

function walkBoundaries(map: PlanarMap, ground: (face: number) => number, stepPx: number): Walk {
  const walk: Walk = { x: [], y: [], dx: [], dy: [], length: [], left: [], right: [] };
  for (const { path, left, right } of map.edges) {
    if (ground(left) === ground(right)) continue;
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
        walk.left.push(ground(left));
        walk.right.push(ground(right));
      }
    }
  }
  return walk;
}

/** Distance from step `i` along its normal to the boundary on the other side of its ground, if it is under `most`. */
function measureAcross(
  walk: Walk,
  index: Flatbush,
  i: number,
  own: number,
  nx: number,
  ny: number,
  most: number,
  stepPx: number,
): number {
  const x = walk.x[i];
  const y = walk.y[i];
  let best = Number.POSITIVE_INFINITY;
  const found = index.search(
    Math.min(x, x + nx * most) - stepPx,
    Math.min(y, y + ny * most) - stepPx,
    Math.max(x, x + nx * most) + stepPx,
    Math.max(y, y + ny * most) + stepPx,
  );
  for (const j of found) {
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

/** Thin steps that lie together make one place. */
function gather(
  thin: readonly { lengthPx: number; widthPx: number; ground: number; x: number; y: number }[],
  limits: ThinLimits,
  mmPerPx: number,
  inks: readonly string[],
): ThinPlace[] {
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
  const places: ThinPlace[] = [];
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
    members.sort((a, b) => thin[a].widthPx - thin[b].widthPx);
    const { ground, x, y, widthPx } = thin[members[Math.floor(members.length * TYPICAL)]];
    // Both sides of a stretch were walked.
    const lengthPx = members.reduce((sum, k) => sum + thin[k].lengthPx, 0) / 2;
    const limitMm = ground < 0 ? limits.gapMm : limits.lineMm;
    if (lengthPx * mmPerPx < LONG * limitMm) continue;
    const facts = { x, y, widthMm: widthPx * mmPerPx, lengthMm: lengthPx * mmPerPx };
    places.push(
      ground < 0 ? { kind: "gap", spotId: null, ...facts } : { kind: "line", spotId: inks[ground], ...facts },
    );
  }
  return places.sort((a, b) => a.widthMm - b.widthMm);
}
