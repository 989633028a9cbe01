// Booleans: cubic regions are flattened, handed to the polygon library on an integer grid, and brought back.
import { areaPaths, booleanOp, ClipType, FillRule, type Path64, type Paths64, ramerDouglasPeucker } from "clipper2-ts";
import { type CubicPath, flattenPath } from "./cubic-path.ts";

/** Polygons on the library's integer grid; holes by fill rule. */
export type Polygons = Paths64;

/**
 * Grid steps in a source pixel: at 300 dpi a step is a fiftieth of a micrometre. Products of two coordinates of the largest
 * picture taken in still fit a double exactly.
 */
const STEPS_PER_PX = 4096;

/** Flattens closed paths (source pixels) to polygons that stay within `tolerancePx` of them. */
export function toPolygons(paths: readonly CubicPath[], tolerancePx: number): Polygons {
  return paths.map((path) => layOnGrid(flattenPath(path, tolerancePx)));
}

/** A coordinate in source pixels as its grid step, and back. */
export function toGrid(px: number): number {
  return Math.round(px * STEPS_PER_PX);
}
export function fromGrid(step: number): number {
  return step / STEPS_PER_PX;
}

/** Points x0 y0 x1 y1 ... in source pixels, on the grid. */
function layOnGrid(points: ArrayLike<number>): Path64 {
  const out: Path64 = [];
  for (let i = 0; i < points.length; i += 2) out.push({ x: toGrid(points[i]), y: toGrid(points[i + 1]) });
  return out;
}

/**
 * Everything that lies in any of the regions, whatever their overlaps. In each region all outlines turn one way and holes the
 * other; which way may differ from region to region, so that they are turned alike first: else they would cancel out.
 */
export function unite(...regions: Polygons[]): Polygons {
  return booleanOp(ClipType.Union, regions.flatMap(turnPositive), null, FillRule.NonZero);
}

/** What lies in both; each right by non-zero winding. */
export function intersect(subject: Polygons, clip: Polygons): Polygons {
  return booleanOp(ClipType.Intersection, subject, clip, FillRule.NonZero);
}

/** What lies in the first and not in the second; each right by non-zero winding. */
export function subtract(subject: Polygons, clip: Polygons): Polygons {
  return booleanOp(ClipType.Difference, subject, clip, FillRule.NonZero);
}

/**
 * A line of grid points without those that lie within `tolerancePx` of it anyway (Douglas & Peucker 1973); its ends stay,
 * and of a ring the point farthest from them.
 */
export function dropIdlePoints(line: Path64, tolerancePx: number): Path64 {
  if (line.length < 3) return line;
  const [first, last] = [line[0], line[line.length - 1]];
  if (first.x !== last.x || first.y !== last.y) return ramerDouglasPeucker(line, tolerancePx * STEPS_PER_PX);
  const far = line.reduce((best, point, i) => (distance2(point, first) > distance2(line[best], first) ? i : best), 0);
  if (far === 0) return line;
  const halves = [line.slice(0, far + 1), line.slice(far)];
  const [there, back] = halves.map((half) => ramerDouglasPeucker(half, tolerancePx * STEPS_PER_PX));
  return [...there, ...back.slice(1)];
}

function distance2(a: Path64[number], b: Path64[number]): number {
  return (a.x - b.x) ** 2 + (a.y - b.y) ** 2;
}

/** The region with its outlines turning the positive way: outlines enclose more than holes take away. */
export function turnPositive(region: Polygons): Polygons {
  return areaPaths(region) < 0 ? region.map((polygon) => [...polygon].reverse()) : region;
}

/** The holes of a united region that are smaller than `area` square source pixels, as regions of their own. */
export function smallHoles(region: Polygons, area: number): Polygons {
  const least = area * STEPS_PER_PX * STEPS_PER_PX;
  return region
    .filter((ring) => areaPaths([ring]) < 0 && areaPaths([ring]) > -least)
    .flatMap((ring) => turnPositive([ring]));
}

/** Area in square source pixels; holes count against. */
export function polygonsArea(polygons: Polygons): number {
  return Math.abs(areaPaths(polygons)) / (STEPS_PER_PX * STEPS_PER_PX);
}
