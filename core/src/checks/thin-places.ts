// Where ink, the gap between inks or any other region is thinner than can be made: measured across, from each boundary to the
// one opposite.
import { type CubicPath, lengthOf, pathArea } from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import { BARE, type PlanarMap } from "../trace/index.ts";
import { type Boundary, findThin, type ThinLimits, type ThinStep } from "./thin-steps.ts";

/** One stretch that is too thin. */
export interface ThinPlace {
  /** "line": ink; "gap": open garment between inks; or what a process calls its own region. */
  readonly kind: string;
  /** The ink, or null where it is of none. */
  readonly spotId: string | null;
  /** Where it is that thin, source pixels. */
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly lengthMm: number;
}

/** Round the end of a strip its boundary turns back: more than this (cosine) from step to step. */
const TURNS_BACK = -0.5;

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
  const boundaries = map.edges.map(({ path, left, right }) => ({ path, left: ground(left), right: ground(right) }));
  return findThin(boundaries, limits, mmPerPx).map(({ ground: own, steps: _, ...place }) =>
    own < 0 ? { kind: "gap", spotId: null, ...place } : { kind: "line", spotId: inks[own], ...place },
  );
}

/**
 * Where a region that is not of one face is thinner than can be made, or open less wide, thinnest first. `region` is its
 * outlines and holes.
 */
export function findThinRegion(
  kinds: { readonly line: string; readonly gap?: string },
  region: readonly CubicPath[],
  limits: ThinLimits,
  mmPerPx: number,
): ThinPlace[] {
  return findThin(boundariesOf(region), limits, mmPerPx).map(({ ground, steps: _, ...place }) => ({
    kind: ground < 0 ? (kinds.gap ?? "gap") : kinds.line,
    spotId: null,
    ...place,
  }));
}

/**
 * Lines x, y, ... along the middle of all that is thinner than `limitMm` of a region, source pixels. Where its width cannot be
 * measured for a short way, as at a fork, they go straight on.
 */
export function thinMiddles(region: readonly CubicPath[], limitMm: number, mmPerPx: number): number[][] {
  const limits = { lineMm: limitMm, gapMm: 0 };
  const steps = findThin(boundariesOf(region), limits, mmPerPx)
    .filter(({ ground }) => ground >= 0)
    .flatMap((place) => place.steps.filter(({ stays, ground }) => stays && ground >= 0))
    .sort((a, b) => a.at - b.at);
  const limitPx = limitMm / mmPerPx;
  const goesOn = (from: ThinStep, to: ThinStep) =>
    from.boundary === to.boundary &&
    lengthOf(to.x - from.x, to.y - from.y) < limitPx + to.lengthPx &&
    from.dx * to.dx + from.dy * to.dy > TURNS_BACK;
  const runs: ThinStep[][] = [];
  for (const step of steps) {
    const last = runs.at(-1);
    if (last && goesOn(last[last.length - 1], step)) last.push(step);
    else runs.push([step]);
  }
  // A boundary ends where it begins: so may what is thin along it.
  const lines: number[][] = [];
  for (const [k, run] of runs.entries()) {
    const first = runs.findIndex(([{ boundary }]) => boundary === run[0].boundary);
    const isLast = runs[k + 1]?.[0].boundary !== run[0].boundary;
    const closes = isLast && goesOn(run[run.length - 1], runs[first][0]);
    if (closes && first === k && run.length > 2) lines.push([...middlesOf(run), run[0].x, run[0].y]);
    else if (closes && first < k) {
      lines[first] = [];
      lines.push(toEnds([...run, ...runs[first]]));
    } else lines.push(toEnds(run));
  }
  return lines.filter((line) => line.length > 2);
}

const middlesOf = (run: readonly ThinStep[]) => run.flatMap(({ x, y }) => [x, y]);

/** Steps are taken in their middle: what they stand for goes on by half of one at either end. */
function toEnds(run: readonly ThinStep[]): number[] {
  const [first, last] = [run[0], run[run.length - 1]];
  const on = ({ x, y, dx, dy, lengthPx }: ThinStep, way: 1 | -1) => [
    x + (way * dx * lengthPx) / 2,
    y + (way * dy * lengthPx) / 2,
  ];
  return [...on(first, -1), ...middlesOf(run), ...on(last, 1)];
}

/** Outlines turn one way and holes the other: the region lies on the same side of both (y down). */
function boundariesOf(region: readonly CubicPath[]): Boundary[] {
  const area = region.reduce((sum, path) => sum + pathArea(path), 0);
  const [left, right] = area > 0 ? [-1, 0] : [0, -1];
  return region.map((path) => ({ path, left, right }));
}
