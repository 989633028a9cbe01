// Boundaries that cross after their curves were loosened: found, and made again closer until they do not.
import Flatbush from "flatbush";
import { type CubicPath, flattenPath } from "../geometry/index.ts";

/** How closely curves are followed when looking for crossings, px. */
const NEAR_PX = 0.02;

interface Edge {
  path: CubicPath;
}

/**
 * Makes edges that cross another, or themselves, again: `remake` gives their path for the first, second ... time, up to
 * `times`, or null where there is no closer one. Paths are replaced in place.
 */
export function untangle(
  edges: readonly Edge[],
  times: number,
  remake: (edge: number, time: number) => CubicPath | null,
): void {
  for (let time = 1; time <= times; time++) {
    const crossing = findCrossing(edges);
    if (crossing.size === 0) return;
    for (const e of crossing) edges[e].path = remake(e, time) ?? edges[e].path;
  }
}

/** Numbers of the edges that cross another one or themselves. */
export function findCrossing(edges: readonly Edge[]): Set<number> {
  const lines = edges.map(({ path }) => flattenPath(path, NEAR_PX));
  const first: number[] = [];
  let count = 0;
  for (const line of lines) {
    first.push(count);
    count += line.length / 2 - 1;
  }
  const crossing = new Set<number>();
  if (count === 0) return crossing;
  const index = new Flatbush(count);
  const edgeOf = new Int32Array(count);
  lines.forEach((line, e) => {
    for (let i = 0; i + 3 < line.length; i += 2) {
      edgeOf[first[e] + i / 2] = e;
      index.add(
        Math.min(line[i], line[i + 2]),
        Math.min(line[i + 1], line[i + 3]),
        Math.max(line[i], line[i + 2]),
        Math.max(line[i + 1], line[i + 3]),
      );
    }
  });
  index.finish();
  lines.forEach((line, e) => {
    for (let i = 0; i + 3 < line.length; i += 2) {
      const own = first[e] + i / 2;
      const [ax, ay, bx, by] = [line[i], line[i + 1], line[i + 2], line[i + 3]];
      index.search(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by), (other) => {
        if (other <= own) return false;
        const o = edgeOf[other];
        const k = (other - first[o]) * 2;
        if (doCross(ax, ay, bx, by, lines[o][k], lines[o][k + 1], lines[o][k + 2], lines[o][k + 3])) {
          crossing.add(e);
          crossing.add(o);
        }
        return false;
      });
    }
  });
  return crossing;
}

/** Whether two segments cross in a point inside both; segments that share an end do not. */
function doCross(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): boolean {
  const side = (px: number, py: number, qx: number, qy: number, x: number, y: number) =>
    (qx - px) * (y - py) - (qy - py) * (x - px);
  const c = side(ax, ay, bx, by, cx, cy);
  const d = side(ax, ay, bx, by, dx, dy);
  const a = side(cx, cy, dx, dy, ax, ay);
  const b = side(cx, cy, dx, dy, bx, by);
  return c * d < 0 && a * b < 0;
}
