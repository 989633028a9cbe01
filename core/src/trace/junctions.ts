// Where three or more boundaries meet: each is followed as a line to the meeting point they agree on best.
import type { BoundaryPoints } from "./boundary.ts";
import type { ChainGraph } from "./chains.ts";
import { fitLine } from "./line-fit.ts";

/** Points of each boundary that show its direction at the junction: as many as lie on one line. */
const END_POINTS = [24, 16, 11, 8, 5, 4, 3];
/** Points that lie this near to a line, root mean square, are on it. */
const STRAIGHT_PX = 0.05;
/** Weight that keeps the solution near the pixels when all boundaries are parallel. */
const HOLD = 0.05;
/** No junction lies farther from its grid corner than this along either axis, px. */
const MAX_SHIFT_PX = 1.2;
/** Beside a boundary of one or two cracks, so near that two neighbouring junctions cannot pass each other. */
const NEAR_SHIFT_PX = 0.45;
const SHORT_CRACKS = 2;

/** Positions of all vertices (x, y pairs), given the points read for each chain. Vertices on the picture's edge stay on it. */
export function placeJunctions(
  graph: ChainGraph,
  boundaries: readonly BoundaryPoints[],
  width: number,
  height: number,
): Float64Array {
  const { vertices, leaving } = graph;
  const out = new Float64Array(vertices.length);
  for (let v = 0; v < vertices.length / 2; v++) {
    const x = vertices[v * 2];
    const y = vertices[v * 2 + 1];
    // Normal equations of the point nearest to all lines, relative to the grid corner.
    let a = 0;
    let b = 0;
    let c = 0;
    let p = 0;
    let q = 0;
    let meanX = 0;
    let meanY = 0;
    let lines = 0;
    let limit = MAX_SHIFT_PX;
    for (let d = 0; d < 4; d++) {
      const half = leaving[v * 4 + d];
      if (half < 0) continue;
      if (graph.chains[half >> 1].corners.length / 2 - 1 <= SHORT_CRACKS) limit = NEAR_SHIFT_PX;
      const line = endLine(boundaries[half >> 1].points, (half & 1) === 1);
      if (!line) continue;
      const [lx, ly, nx, ny] = line;
      const offset = nx * (lx - x) + ny * (ly - y);
      a += nx * nx;
      b += nx * ny;
      c += ny * ny;
      p += nx * offset;
      q += ny * offset;
      meanX += nx * offset;
      meanY += ny * offset;
      lines++;
    }
    let sx = 0;
    let sy = 0;
    if (lines > 0) {
      a += HOLD;
      c += HOLD;
      p += (HOLD * meanX) / lines;
      q += (HOLD * meanY) / lines;
      const determinant = a * c - b * b;
      sx = (p * c - q * b) / determinant;
      sy = (q * a - p * b) / determinant;
      sx = Math.min(limit, Math.max(-limit, sx));
      sy = Math.min(limit, Math.max(-limit, sy));
    }
    out[v * 2] = x === 0 || x === width ? x : Math.min(width, Math.max(0, x + sx));
    out[v * 2 + 1] = y === 0 || y === height ? y : Math.min(height, Math.max(0, y + sy));
  }
  return out;
}

/**
 * A point on the line through one end of a boundary and the line's unit normal: x, y, nx, ny; null for fewer than two
 * points. As many of the end's points are used as lie on one line: the boundary may turn a corner soon.
 */
function endLine(points: Float64Array, fromEnd: boolean): readonly [number, number, number, number] | null {
  const count = points.length / 2;
  if (count < 2) return null;
  for (const n of END_POINTS) {
    if (n > count) continue;
    const first = fromEnd ? count - n : 0;
    const line = fitLine(points, n, (k) => first + k);
    if (line.offLinePx <= STRAIGHT_PX) return [line.x, line.y, -line.dy, line.dx];
  }
  const first = fromEnd ? count - 2 : 0;
  const line = fitLine(points, 2, (k) => first + k);
  return [line.x, line.y, -line.dy, line.dx];
}
