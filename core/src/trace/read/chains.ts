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
export function followChains(map: LabelMap, components: Components): ChainGraph {
  const walk = new CrackWalk(map, components);
  walk.markVertices();
  walk.followFromVertices();
  walk.followLoops();
  return walk.finish();
}

/**
 * A walk along all cracks of a label map. Its methods outlive it, and stay compiled; closures would be compiled anew for each
 * walk (docs/decisions/0040).
 */
class CrackWalk {
  private readonly width: number;
  private readonly height: number;
  private readonly labels: Uint8Array;
  private readonly components: Components;
  /** Bit 1: the crack to the right of a corner is walked; bit 2: the one below it; bit 4: the corner is a vertex. */
  private readonly walked: Uint8Array;
  private readonly vertexAt = new Map<number, number>();
  private readonly vertices: number[] = [];
  private readonly leaving: number[] = [];
  private readonly chains: Chain[] = [];
  private buffer = new Int32Array(4096);

  constructor({ width, height, data }: LabelMap, components: Components) {
    this.width = width;
    this.height = height;
    this.labels = data;
    this.components = components;
    this.walked = new Uint8Array((width + 1) * (height + 1));
  }

  /**
   * Every corner where cracks meet has one above or below it, and every loop is met first at its topmost, leftmost corner,
   * with a crack below it: runs of pixels start there, or the row ends.
   */
  markVertices(): void {
    const { width, height, labels } = this;
    const { pixelRuns, regionOfPixelRun } = this.components;
    for (let run = 0, y = 0; run < regionOfPixelRun.length; run++) {
      const p = pixelRuns[run];
      while (p >= (y + 1) * width) y++;
      const x = p - y * width;
      // Most runs begin where those above and below them do: nothing meets there.
      const own = labels[p];
      const before = labels[p - 1];
      if (x === 0 || labels[p - width] !== own || labels[p - width - 1] !== before) this.addVertex(x, y);
      if (x === 0 || labels[p + width] !== own || labels[p + width - 1] !== before) this.addVertex(x, y + 1);
    }
    for (let y = 0; y <= height; y++) this.addVertex(width, y);
  }

  followFromVertices(): void {
    const { vertices } = this;
    for (let v = 0; v < vertices.length; v += 2)
      for (let d = 0; d < 4; d++)
        if (this.hasCrack(vertices[v], vertices[v + 1], d) && !this.isWalked(vertices[v], vertices[v + 1], d))
          this.follow(vertices[v], vertices[v + 1], d, true);
  }

  followLoops(): void {
    const { width, labels } = this;
    const { pixelRuns, regionOfPixelRun } = this.components;
    for (let run = 0, y = 0; run < regionOfPixelRun.length; run++) {
      const p = pixelRuns[run];
      while (p >= (y + 1) * width) y++;
      if (labels[p - width] === labels[p]) continue;
      const x = p - y * width;
      if (this.hasCrack(x, y, 0) && !this.isWalked(x, y, 0)) this.follow(x, y, 0, false);
    }
  }

  finish(): ChainGraph {
    return {
      chains: this.chains,
      vertices: Int32Array.from(this.vertices),
      leaving: Int32Array.from(this.leaving),
    };
  }

  private labelAt(x: number, y: number): number {
    const { width } = this;
    return x < 0 || y < 0 || x >= width || y >= this.height ? NONE : this.labels[y * width + x];
  }

  private faceAt(x: number, y: number): number {
    if (x < 0 || y < 0 || x >= this.width || y >= this.height) return BARE;
    const p = y * this.width + x;
    return this.labels[p] === NONE ? BARE : regionAt(this.components, p);
  }

  private hasCrack(x: number, y: number, d: number): boolean {
    if (d === 0) return x < this.width && this.labelAt(x, y - 1) !== this.labelAt(x, y);
    if (d === 1) return y < this.height && this.labelAt(x - 1, y) !== this.labelAt(x, y);
    if (d === 2) return x > 0 && this.labelAt(x - 1, y - 1) !== this.labelAt(x - 1, y);
    return y > 0 && this.labelAt(x - 1, y - 1) !== this.labelAt(x, y - 1);
  }

  private isWalked(x: number, y: number, d: number): boolean {
    return (this.walked[crackIndex(x, y, d, this.width)] & crackBit(d)) !== 0;
  }

  private addVertex(x: number, y: number): void {
    const before = this.labelAt(x - 1, y - 1);
    const above = this.labelAt(x, y - 1);
    const beside = this.labelAt(x - 1, y);
    const own = this.labelAt(x, y);
    const degree =
      (above !== own ? 1 : 0) + (beside !== own ? 1 : 0) + (before !== beside ? 1 : 0) + (before !== above ? 1 : 0);
    const at = y * (this.width + 1) + x;
    if (degree < 3 || this.vertexAt.has(at)) return;
    this.walked[at] |= IS_VERTEX;
    this.vertexAt.set(at, this.vertices.length / 2);
    this.vertices.push(x, y);
    this.leaving.push(-1, -1, -1, -1);
  }

  private follow(x0: number, y0: number, d0: number, fromVertex: boolean): void {
    const { chains, leaving, vertexAt } = this;
    const leftX = x0 + LEFT_X[d0];
    const leftY = y0 + LEFT_Y[d0];
    const rightX = x0 + RIGHT_X[d0];
    const rightY = y0 + RIGHT_Y[d0];
    const { corners, end, lastStep } = this.walkOn(x0, y0, d0, fromVertex);
    const chain = chains.length;
    const start = fromVertex ? (vertexAt.get(y0 * (this.width + 1) + x0) ?? -1) : -1;
    chains.push({
      corners,
      start,
      end: fromVertex ? end : -1,
      left: this.faceAt(leftX, leftY),
      right: this.faceAt(rightX, rightY),
    });
    if (fromVertex) {
      leaving[start * 4 + d0] = 2 * chain;
      leaving[end * 4 + ((lastStep + 2) & 3)] = 2 * chain + 1;
    }
  }

  /** Walks from a corner in a direction to the next vertex, or round to where it began. */
  private walkOn(
    x0: number,
    y0: number,
    d0: number,
    fromVertex: boolean,
  ): { readonly corners: Int32Array; readonly end: number; readonly lastStep: number } {
    const { width, walked, vertexAt } = this;
    const leftLabel = this.labelAt(x0 + LEFT_X[d0], y0 + LEFT_Y[d0]);
    const rightLabel = this.labelAt(x0 + RIGHT_X[d0], y0 + RIGHT_Y[d0]);
    let { buffer } = this;
    let x = x0;
    let y = y0;
    let d = d0;
    let n = 0;
    buffer[n++] = x;
    buffer[n++] = y;
    let end = -1;
    for (;;) {
      walked[crackIndex(x, y, d, width)] |= crackBit(d);
      x += STEP_X[d];
      y += STEP_Y[d];
      if (n + 2 > buffer.length) {
        buffer = grow(buffer);
        this.buffer = buffer;
      }
      buffer[n++] = x;
      buffer[n++] = y;
      const at = y * (width + 1) + x;
      end = (walked[at] & IS_VERTEX) === 0 ? -1 : (vertexAt.get(at) ?? -1);
      if (end >= 0 || (!fromVertex && x === x0 && y === y0)) break;
      // Two cracks meet here: the walk keeps its labels on either side.
      if (this.labelAt(x + LEFT_X[d], y + LEFT_Y[d]) !== leftLabel) d = (d + 3) & 3;
      else if (this.labelAt(x + RIGHT_X[d], y + RIGHT_Y[d]) !== rightLabel) d = (d + 1) & 3;
    }
    return { corners: buffer.slice(0, n), end, lastStep: d };
  }
}

function crackBit(d: number): number {
  return d === 0 || d === 2 ? 1 : 2;
}

function crackIndex(x: number, y: number, d: number, width: number): number {
  return (d === 3 ? y - 1 : y) * (width + 1) + (d === 2 ? x - 1 : x);
}
