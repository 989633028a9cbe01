// What is asked of a map's paths again and again while a hand works on it: kept for as long as a path stays what it is.
import { type Bounds, boundsOf, type CubicPath, flattenPath, pointAlong } from "../geometry/index.ts";

interface Known {
  readonly box: Bounds;
  /** A point of it. */
  readonly inside: readonly [number, number];
  /** As points in a row, x, y pairs; made when first asked for. */
  flat: number[] | null;
}

const known = new WeakMap<CubicPath, Known>();

function knownOf(path: CubicPath): Known {
  const found = known.get(path);
  if (found) return found;
  const made: Known = { box: boundsOf(path), inside: pointAlong(path, 0.5), flat: null };
  known.set(path, made);
  return made;
}

/** The box that a path's nodes and controls lie in. */
export const boxOf = (path: CubicPath): Bounds => knownOf(path).box;

/** A point on a path. */
export const pointOf = (path: CubicPath): readonly [number, number] => knownOf(path).inside;

/** Curves are looked at this closely for crossings, px. */
const NEAR_PX = 0.001;

/** A path as closely as crossings are looked for. */
export function flatOf(path: CubicPath): number[] {
  const own = knownOf(path);
  own.flat ??= flattenPath(path, NEAR_PX);
  return own.flat;
}

export function doTouch(a: Bounds, b: Bounds): boolean {
  return a.left <= b.right && a.right >= b.left && a.top <= b.bottom && a.bottom >= b.top;
}
