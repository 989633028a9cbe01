// What is laid, without segments that are no longer than what counts as one place.
import { boundsOf, type CubicPath, segmentCount } from "../geometry/index.ts";
import { SNAP_PX } from "./strand.ts";

/** The path without its dots; empty where nothing of it is left. */
export function dropDots(path: CubicPath): CubicPath {
  const out: number[] = [path[0], path[1]];
  for (let s = 0; s < segmentCount(path); s++) {
    const part = path.subarray(s * 6, s * 6 + 8);
    const { left, top, right, bottom } = boundsOf(part);
    // The next segment begins where this dot does.
    if (right - left > 2 * SNAP_PX || bottom - top > 2 * SNAP_PX) out.push(...part.subarray(2));
  }
  if (out.length === 2) return new Float64Array(0);
  if (out.length === path.length) return path;
  const isClosed = path[0] === path[path.length - 2] && path[1] === path[path.length - 1];
  const n = path.length;
  // Whatever was left out, it ends where it ended: others may begin there.
  [out[out.length - 2], out[out.length - 1]] = isClosed ? [out[0], out[1]] : [path[n - 2], path[n - 1]];
  const tidy = Float64Array.from(out);
  // Straight segments whose ends have moved a little are straight still.
  for (let s = 0; s < segmentCount(tidy); s++) straighten(tidy, s);
  return tidy;
}

function straighten(path: CubicPath, s: number): void {
  const o = s * 6;
  const isAt = (a: number, b: number) =>
    Math.abs(path[a] - path[b]) <= 2 * SNAP_PX && Math.abs(path[a + 1] - path[b + 1]) <= 2 * SNAP_PX;
  if (!isAt(o, o + 2) || !isAt(o + 4, o + 6)) return;
  path.copyWithin(o + 2, o, o + 2);
  path.copyWithin(o + 4, o + 6, o + 8);
}
