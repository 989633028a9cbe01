// Where three or more boundaries meet: each is followed to the meeting point they agree on best.
import type { BoundaryPoints } from "./boundary.ts";
import type { ChainGraph } from "./chains.ts";
import { fitSide, type Side, touchingLine } from "./side.ts";
import type { TracedPicture } from "./traced-picture.ts";

/** Points of each boundary that show its way to the junction: as many as lie on one line or parabola. */
const END_POINTS = [24, 16, 11, 8, 5, 4, 3];
/** Points that lie this near to it, root mean square, are on it. */
const ON_SIDE_PX = 0.05;
const STEPS = 3;
/** Weight that keeps the solution near the pixels when all boundaries are parallel. */
const HOLD = 0.05;
/** No junction lies farther from its grid corner than this along either axis, px. */
const MAX_SHIFT_PX = 1.2;
/** Of the way to the next vertex on the picture's edge, a junction takes at most this share. */
const SHARE_OF_WAY = 0.45;
/** A pixel is of its own colour only, if no channel is farther from it than this. */
const PURE = 2;
/** Beside a boundary of one or two cracks, so near that two neighbouring junctions cannot pass each other. */
const NEAR_SHIFT_PX = 0.45;
const SHORT_CRACKS = 2;

/** Positions of all vertices (x, y pairs), given the points read for each chain. Vertices on the picture's edge stay on it. */
export function placeJunctions(
  graph: ChainGraph,
  boundaries: readonly BoundaryPoints[],
  picture: TracedPicture,
): Float64Array {
  const { vertices } = graph;
  const { width, height } = picture.raster;
  const out = new Float64Array(vertices.length);
  for (let v = 0; v < vertices.length / 2; v++) {
    const x = vertices[v * 2];
    const y = vertices[v * 2 + 1];
    const onSide = x === 0 || x === width;
    const onTop = y === 0 || y === height;
    const [sx, sy] =
      onSide !== onTop ? alongPictureEdge(graph, boundaries, picture, v, onTop) : meetingPoint(graph, boundaries, v);
    out[v * 2] = onSide ? x : Math.min(width, Math.max(0, x + sx));
    out[v * 2 + 1] = onTop ? y : Math.min(height, Math.max(0, y + sy));
  }
  return out;
}

/** Where the boundaries that end at a vertex come nearest together, from it. */
function meetingPoint(
  { chains, vertices, leaving }: ChainGraph,
  boundaries: readonly BoundaryPoints[],
  v: number,
): readonly [number, number] {
  const [x, y] = [vertices[v * 2], vertices[v * 2 + 1]];
  const sides: Side[] = [];
  let limit = MAX_SHIFT_PX;
  for (let d = 0; d < 4; d++) {
    const half = leaving[v * 4 + d];
    if (half < 0) continue;
    if (chains[half >> 1].corners.length / 2 - 1 <= SHORT_CRACKS) limit = NEAR_SHIFT_PX;
    const side = endSide(boundaries[half >> 1].points, (half & 1) === 1);
    if (side) sides.push(side);
  }
  let sx = 0;
  let sy = 0;
  if (sides.length === 0) return [sx, sy];
  const weight = 1 + HOLD / sides.length;
  // Sides that bend are followed by the lines that touch them where the last step came to.
  for (let step = 0; step < STEPS; step++) {
    // Normal equations of the point nearest to all lines, relative to the grid corner.
    let a = HOLD;
    let b = 0;
    let c = HOLD;
    let p = 0;
    let q = 0;
    for (const side of sides) {
      const line = touchingLine(side, x + sx, y + sy);
      const nx = -line.dy;
      const ny = line.dx;
      const offset = nx * (line.x - x) + ny * (line.y - y);
      a += nx * nx;
      b += nx * ny;
      c += ny * ny;
      p += nx * offset * weight;
      q += ny * offset * weight;
    }
    const determinant = a * c - b * b;
    sx = Math.min(limit, Math.max(-limit, (p * c - q * b) / determinant));
    sy = Math.min(limit, Math.max(-limit, (q * a - p * b) / determinant));
    if (sides.every(({ bend }) => bend === 0)) break;
  }
  return [sx, sy];
}

/**
 * How far along the picture's edge the one boundary that ends there really meets it. One that comes in flat was lost sight of
 * half a pixel before the edge, and may have far to go: as far as its own bend says, but not beyond the middle of the way to
 * the next vertex. `isLevel`: the edge is the picture's upper or lower one.
 */
function alongPictureEdge(
  { chains, vertices, leaving }: ChainGraph,
  boundaries: readonly BoundaryPoints[],
  picture: TracedPicture,
  v: number,
  isLevel: boolean,
): readonly [number, number] {
  const inwards = isLevel ? [1, 3] : [0, 2];
  const half = inwards.map((d) => leaving[v * 4 + d]).find((h) => h >= 0);
  const side = half === undefined ? null : endSide(boundaries[half >> 1].points, (half & 1) === 1);
  if (!side) return [0, 0];
  const [x, y] = [vertices[v * 2], vertices[v * 2 + 1]];
  // Seen with the edge as the x axis and the vertex as its origin.
  const [px, py] = isLevel ? [side.x - x, side.y - y] : [side.y - y, side.x - x];
  const [dx, dy] = isLevel ? [side.dx, side.dy] : [side.dy, side.dx];
  // Left of the side's direction, as it is seen there.
  const [nx, ny] = isLevel ? [-dy, dx] : [dy, -dx];
  const at = (a: number) => px + a * dx + (side.offset + a * (side.slope + a * side.bend)) * nx;
  const [first, second, third] = [py + side.offset * ny, dy + side.slope * ny, side.bend * ny];
  const meets = roots(first, second, third).map(at);
  const room = (sign: number): number => {
    const along = leaving[v * 4 + (isLevel ? (sign > 0 ? 0 : 2) : sign > 0 ? 1 : 3)];
    const isBehind = px * sign > 0;
    if (along < 0 || isBehind) return MAX_SHIFT_PX;
    const mixed = Math.max(NEAR_SHIFT_PX, mixedAlong(picture, x, y, isLevel, sign));
    const { corners } = chains[along >> 1];
    const other = (along & 1) === 1 ? 0 : corners.length - 2;
    const way = Math.abs(isLevel ? corners[other] - x : corners[other + 1] - y);
    return Math.min(mixed, Math.max(NEAR_SHIFT_PX, SHARE_OF_WAY * way));
  };
  let best = 0;
  let least = Number.POSITIVE_INFINITY;
  for (const meet of meets) {
    if (Math.abs(meet) >= least) continue;
    least = Math.abs(meet);
    best = Math.sign(meet) * Math.min(least, room(Math.sign(meet)));
  }
  return isLevel ? [best, 0] : [0, best];
}

/** Pixels along the picture's edge from a grid corner on it that show more than their own colour: there a boundary still runs. */
function mixedAlong(
  { raster, found, foundColours }: TracedPicture,
  x: number,
  y: number,
  isLevel: boolean,
  sign: number,
): number {
  const { width, height, data } = raster;
  const [px, py] = [Math.min(x, width - 1), Math.min(y, height - 1)];
  const first = isLevel ? py * width + (sign > 0 ? x : x - 1) : (sign > 0 ? y : y - 1) * width + px;
  const step = sign * (isLevel ? 1 : width);
  const most = isLevel ? (sign > 0 ? width - x : x) : sign > 0 ? height - y : y;
  for (let k = 0; k < most; k++) {
    const p = first + k * step;
    const own = foundColours[found.data[p]];
    if (own?.every((value, c) => Math.abs(data[p * 4 + c] - value) <= PURE)) return k;
  }
  return most;
}

/** Where c + b a + q a² vanishes, or where it comes nearest to that. */
function roots(c: number, b: number, q: number): number[] {
  if (Math.abs(q) < 1e-9) return Math.abs(b) < 1e-6 ? [] : [-c / b];
  const under = b * b - 4 * q * c;
  const root = Math.sqrt(Math.max(0, under));
  return [(-b - root) / (2 * q), (-b + root) / (2 * q)];
}

/** One end of a boundary; null for fewer than two points. As many of the end's points are used as lie on one side. */
function endSide(points: Float64Array, fromEnd: boolean): Side | null {
  const count = points.length / 2;
  if (count < 2) return null;
  for (const n of END_POINTS) {
    if (n > count) continue;
    const first = fromEnd ? count - n : 0;
    const side = fitSide(points, n, first);
    if (side.offPx <= ON_SIDE_PX) return side;
  }
  const first = fromEnd ? count - 2 : 0;
  return fitSide(points, 2, first);
}
