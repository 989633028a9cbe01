// Cracks between pixels of different labels, followed into chains from junction to junction. Topology only: where the
// boundary runs inside the pixels is boundary.ts's matter.
import { type Components, grow, type LabelMap, NONE, regionAt } from "../../raster/index.ts";

/** Directions along cracks, y down: 0 right, 1 down, 2 left, 3 up. */
const STEP_X = [1, 0, -1, 0] as const;
const STEP_Y = [0, 1, 0, -1] as const;
/** The pixels to the left and right of a step in each direction, from the corner where it begins. */
const LEFT_X = [0, 0, -1, -1] as const;
const LEFT_Y = [-1, 0, 0, -1] as const;
const RIGHT_X = [0, -1, -1, 0] as const;
const RIGHT_Y = [0, 0, -1, -1] as const;

/** The face number of everything that is not a spot: transparent, dropped, or outside the picture. */
export const BARE = -1;

const IS_VERTEX = 4;

/** One boundary as a walk over grid corners. `corners` holds x, y pairs; a loop ends where it starts and has no vertex. */
export interface Chain {
  readonly corners: Int32Array;
  /** Vertex numbers at start and end, or -1 for a loop. */
  readonly start: number;
  readonly end: number;
  /** Component on the left and right of the walk, or BARE. */
  readonly left: number;
  readonly right: number;
}

/** The boundaries of a label map. */
export interface ChainGraph {
  readonly chains: readonly Chain[];
  /** Grid corner x, y of every vertex: where three or more cracks meet. */
  readonly vertices: Int32Array;
  /** For vertex v and direction d, at v * 4 + d: the half-edge that leaves there (2 * chain, + 1 if against it), or -1. */
  readonly leaving: Int32Array;
}

/** Follows every crack once; linear in the length of boundaries. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one walk over flat arrays that all its parts share; apart, each would be handed ten of them
export function followChains(map: LabelMap, components: Components): ChainGraph {
  const { width, height, data } = map;
  const labelAt = (x: number, y: number): number =>
    x < 0 || y < 0 || x >= width || y >= height ? NONE : data[y * width + x];
  const faceAt = (x: number, y: number): number => {
    if (x < 0 || y < 0 || x >= width || y >= height) return BARE;
    const p = y * width + x;
    return data[p] === NONE ? BARE : regionAt(components, p);
  };
  const hasCrack = (x: number, y: number, d: number): boolean => {
    if (d === 0) return x < width && labelAt(x, y - 1) !== labelAt(x, y);
    if (d === 1) return y < height && labelAt(x - 1, y) !== labelAt(x, y);
    if (d === 2) return x > 0 && labelAt(x - 1, y - 1) !== labelAt(x - 1, y);
    return y > 0 && labelAt(x - 1, y - 1) !== labelAt(x, y - 1);
  };
  const degreeOf = (x: number, y: number): number => {
    const before = labelAt(x - 1, y - 1);
    const above = labelAt(x, y - 1);
    const beside = labelAt(x - 1, y);
    const own = labelAt(x, y);
    return (
      (above !== own ? 1 : 0) + (beside !== own ? 1 : 0) + (before !== beside ? 1 : 0) + (before !== above ? 1 : 0)
    );
  };

  // Bit 1: the crack to the right of a corner is walked; bit 2: the one below it; bit 4: the corner is a vertex.
  const walked = new Uint8Array((width + 1) * (height + 1));
  const crackBit = (d: number): number => (d === 0 || d === 2 ? 1 : 2);
  const crackIndex = (x: number, y: number, d: number): number =>
    (d === 3 ? y - 1 : y) * (width + 1) + (d === 2 ? x - 1 : x);
  const isWalked = (x: number, y: number, d: number) => (walked[crackIndex(x, y, d)] & crackBit(d)) !== 0;

  const vertexAt = new Map<number, number>();
  const vertices: number[] = [];
  const leaving: number[] = [];
  const chains: Chain[] = [];
  let buffer = new Int32Array(4096);

  const follow = (x0: number, y0: number, d0: number, fromVertex: boolean): void => {
    const leftX = x0 + LEFT_X[d0];
    const leftY = y0 + LEFT_Y[d0];
    const rightX = x0 + RIGHT_X[d0];
    const rightY = y0 + RIGHT_Y[d0];
    const leftLabel = labelAt(leftX, leftY);
    const rightLabel = labelAt(rightX, rightY);
    let x = x0;
    let y = y0;
    let d = d0;
    let n = 0;
    buffer[n++] = x;
    buffer[n++] = y;
    let end = -1;
    for (;;) {
      walked[crackIndex(x, y, d)] |= crackBit(d);
      x += STEP_X[d];
      y += STEP_Y[d];
      if (n + 2 > buffer.length) buffer = grow(buffer);
      buffer[n++] = x;
      buffer[n++] = y;
      const at = y * (width + 1) + x;
      end = (walked[at] & IS_VERTEX) === 0 ? -1 : (vertexAt.get(at) ?? -1);
      if (end >= 0 || (!fromVertex && x === x0 && y === y0)) break;
      // Two cracks meet here: the walk keeps its labels on either side.
      if (labelAt(x + LEFT_X[d], y + LEFT_Y[d]) !== leftLabel) d = (d + 3) & 3;
      else if (labelAt(x + RIGHT_X[d], y + RIGHT_Y[d]) !== rightLabel) d = (d + 1) & 3;
    }
    const chain = chains.length;
    const start = fromVertex ? (vertexAt.get(y0 * (width + 1) + x0) ?? -1) : -1;
    chains.push({
      corners: buffer.slice(0, n),
      start,
      end: fromVertex ? end : -1,
      left: faceAt(leftX, leftY),
      right: faceAt(rightX, rightY),
    });
    if (fromVertex) {
      leaving[start * 4 + d0] = 2 * chain;
      leaving[end * 4 + ((d + 2) & 3)] = 2 * chain + 1;
    }
  };

  // Every corner where cracks meet has one above or below it, and every loop is met first at its topmost, leftmost corner,
  // with a crack below it: runs of pixels start there, or the row ends.
  const addVertex = (x: number, y: number) => {
    const at = y * (width + 1) + x;
    if (degreeOf(x, y) < 3 || vertexAt.has(at)) return;
    walked[at] |= IS_VERTEX;
    vertexAt.set(at, vertices.length / 2);
    vertices.push(x, y);
    leaving.push(-1, -1, -1, -1);
  };
  const { pixelRuns, regionOfPixelRun } = components;
  for (let run = 0, y = 0; run < regionOfPixelRun.length; run++) {
    const p = pixelRuns[run];
    while (p >= (y + 1) * width) y++;
    const x = p - y * width;
    // Most runs begin where those above and below them do: nothing meets there.
    const [own, before] = [data[p], data[p - 1]];
    if (x === 0 || data[p - width] !== own || data[p - width - 1] !== before) addVertex(x, y);
    if (x === 0 || data[p + width] !== own || data[p + width - 1] !== before) addVertex(x, y + 1);
  }
  for (let y = 0; y <= height; y++) addVertex(width, y);
  for (let v = 0; v < vertices.length; v += 2)
    for (let d = 0; d < 4; d++)
      if (hasCrack(vertices[v], vertices[v + 1], d) && !isWalked(vertices[v], vertices[v + 1], d))
        follow(vertices[v], vertices[v + 1], d, true);
  for (let run = 0, y = 0; run < regionOfPixelRun.length; run++) {
    const p = pixelRuns[run];
    while (p >= (y + 1) * width) y++;
    if (data[p - width] === data[p]) continue;
    const x = p - y * width;
    if (hasCrack(x, y, 0) && !isWalked(x, y, 0)) follow(x, y, 0, false);
  }
  return { chains, vertices: Int32Array.from(vertices), leaving: Int32Array.from(leaving) };
}
