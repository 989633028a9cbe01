// Booleans and offsets: cubic regions are flattened, handed to the polygon library on an integer grid, and brought back.
import {
  areaPaths,
  booleanOp,
  ClipType,
  EndType,
  FillRule,
  inflatePaths,
  JoinType,
  type Path64,
  type Paths64,
} from "clipper2-ts";
import { type CubicPath, flattenPath, polygonPath } from "./cubic-path.ts";

/** Polygons on the library's integer grid; holes by fill rule. */
export type Polygons = Paths64;

/** Grid steps in a source pixel: at 300 dpi a step is a twelfth of a micrometre. */
const STEPS_PER_PX = 1024;

/** Flattens closed paths (source pixels) to polygons that stay within `tolerancePx` of them. */
export function toPolygons(paths: readonly CubicPath[], tolerancePx: number): Polygons {
  return paths.map((path) => toGrid(flattenPath(path, tolerancePx)));
}

/** Points x0 y0 x1 y1 ... in source pixels, on the grid. */
function toGrid(points: ArrayLike<number>): Path64 {
  const out: Path64 = [];
  for (let i = 0; i < points.length; i += 2)
    out.push({ x: Math.round(points[i] * STEPS_PER_PX), y: Math.round(points[i + 1] * STEPS_PER_PX) });
  return out;
}

/** Polygons as closed paths in source pixels. */
export function toPaths(polygons: Polygons): CubicPath[] {
  return polygons.map((polygon) => {
    const flat = new Float64Array(polygon.length * 2);
    polygon.forEach((point, i) => {
      flat[i * 2] = point.x / STEPS_PER_PX;
      flat[i * 2 + 1] = point.y / STEPS_PER_PX;
    });
    return polygonPath(flat);
  });
}

/** Union of polygons that each are right by non-zero winding, whatever their overlaps. */
export function unite(polygons: Polygons): Polygons {
  return booleanOp(ClipType.Union, polygons, null, FillRule.NonZero);
}

/** What lies in both; both right by non-zero winding. */
export function intersect(subject: Polygons, clip: Polygons): Polygons {
  return booleanOp(ClipType.Intersection, subject, clip, FillRule.NonZero);
}

/** Polygons grown (positive) or shrunk (negative) by `distancePx`, corners rounded within `tolerancePx`. */
export function offset(polygons: Polygons, distancePx: number, tolerancePx: number): Polygons {
  return inflatePaths(
    polygons,
    distancePx * STEPS_PER_PX,
    JoinType.Round,
    EndType.Polygon,
    2,
    tolerancePx * STEPS_PER_PX,
  );
}

/** Area in square source pixels; holes count against. */
export function polygonsArea(polygons: Polygons): number {
  return Math.abs(areaPaths(polygons)) / (STEPS_PER_PX * STEPS_PER_PX);
}
