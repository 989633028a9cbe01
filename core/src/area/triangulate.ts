// An area in triangles whose corners all lie on its outlines: constrained Delaunay, by library.
import Constrainautor from "@kninnug/constrainautor";
import Delaunator from "delaunator";
import { lengthOf } from "../geometry/index.ts";
import type { Ring } from "./area.ts";

/** Triangles of an area; as in delaunator, side `s` runs from corner `triangles[s]` to the next of its triangle. */
export interface Triangulation {
  /** x, y of each corner. */
  readonly points: Float64Array;
  /** The corner before and after each on its ring; triangles turn as outlines do. */
  readonly before: Int32Array;
  readonly after: Int32Array;
  readonly triangles: Uint32Array;
  /** The same side in the triangle beside it; -1 on an outline. */
  readonly across: Int32Array;
  /** 1 for triangles inside the area. */
  readonly isInside: Uint8Array;
}

/** Triangulates an area's rings with corners at most `stepMm` apart; null where its outline meets itself. */
export function triangulate(rings: readonly Ring[], stepMm: number): Triangulation | null {
  const turned = rings.map((ring) => resample(ring, stepMm)).filter((ring) => ring.length >= 6);
  const count = turned.reduce((sum, ring) => sum + ring.length / 2, 0);
  const points = new Float64Array(count * 2);
  const before = new Int32Array(count);
  const after = new Int32Array(count);
  const sides: [number, number][] = [];
  let first = 0;
  for (const ring of turned) {
    const n = ring.length / 2;
    points.set(ring, first * 2);
    for (let i = 0; i < n; i++) {
      before[first + i] = first + ((i + n - 1) % n);
      after[first + i] = first + ((i + 1) % n);
      sides.push([first + i, first + ((i + 1) % n)]);
    }
    first += n;
  }
  if (count < 3) return null;
  partTouching(points, before, after);
  const mesh = constrain(points, sides);
  if (!mesh) return null;
  const { triangles, halfedges } = mesh;
  const across = Int32Array.from(halfedges);
  const isOutline = (s: number) => {
    const [a, b] = [triangles[s], triangles[nextSide(s)]];
    return after[a] === b || before[a] === b;
  };
  for (let s = 0; s < across.length; s++) if (isOutline(s)) across[s] = -1;
  return { points, before, after, triangles, across, isInside: findInside(triangles, across, after) };
}

/** Corners are stirred by so much, mm, where the library finds one exactly on a side; and as often it is tried. */
const STIRRED_MM = 1e-4;
const TRIES = 4;

/** No sound triangulation takes so many steps to a point. */
const STEPS_A_POINT = 1000;

/** The library goes round for ever on some corners that lie all but exactly on a side: it is stopped, and they are stirred. */
class Bounded extends Constrainautor {
  constructor(
    mesh: Delaunator<Float64Array>,
    private stepsLeft: number,
  ) {
    super(mesh);
  }
  override intersectSegments(p1: number, p2: number, p3: number, p4: number): boolean {
    if (--this.stepsLeft < 0) throw new Error("it goes round for ever");
    return super.intersectSegments(p1, p2, p3, p4);
  }
}

/** Delaunay triangles of points with all sides among them; null where sides cross. */
function constrain(points: Float64Array, sides: [number, number][]): Delaunator<Float64Array> | null {
  for (let attempt = 0; attempt < TRIES; attempt++) {
    // Another pattern each time, and the same everywhere.
    const stirred = points.map((value, i) => value + (((i * (7919 + 2 * attempt)) % 13) - 6) * attempt * STIRRED_MM);
    const mesh = new Delaunator(stirred);
    try {
      new Bounded(mesh, STEPS_A_POINT * points.length).constrainAll(sides);
      return mesh;
    } catch {
      // Tried again.
    }
  }
  return null;
}

/** How far a corner that touches another is drawn towards the middle of its neighbours: the library knows no two in one place. */
const DRAWN = 0.02;

/** Where an outline touches itself, or a hole it, one of both corners gives way. */
function partTouching(points: Float64Array, before: Int32Array, after: Int32Array): void {
  const seen = new Set<string>();
  for (let i = 0; i < before.length; i++) {
    const key = `${points[i * 2]} ${points[i * 2 + 1]}`;
    if (seen.has(key))
      for (const axis of [0, 1]) {
        const middle = (points[before[i] * 2 + axis] + points[after[i] * 2 + axis]) / 2;
        points[i * 2 + axis] += DRAWN * (middle - points[i * 2 + axis]);
      }
    seen.add(key);
  }
}

/** The next side of the same triangle. */
export function nextSide(side: number): number {
  return side % 3 === 2 ? side - 2 : side + 1;
}

/** A triangle whose side is an outline's is inside if it turns as that does; what hangs together with it is, too. */
function findInside(triangles: Uint32Array, across: Int32Array, after: Int32Array): Uint8Array {
  const isInside = new Uint8Array(triangles.length / 3);
  const open: number[] = [];
  const enter = (triangle: number) => {
    if (isInside[triangle] === 1) return;
    isInside[triangle] = 1;
    open.push(triangle);
  };
  for (let s = 0; s < triangles.length; s++)
    if (across[s] < 0 && after[triangles[s]] === triangles[nextSide(s)]) enter(Math.floor(s / 3));
  for (let t = open.pop(); t !== undefined; t = open.pop())
    for (let k = 0; k < 3; k++) if (across[t * 3 + k] >= 0) enter(Math.floor(across[t * 3 + k] / 3));
  return isInside;
}

/** The ring with points at most `stepMm` apart, none nearer to the last than a tenth of it. */
function resample(ring: Ring, stepMm: number): number[] {
  const out: number[] = [];
  const n = ring.length;
  for (let i = 0; i < n; i += 2) {
    const [x, y, toX, toY] = [ring[i], ring[i + 1], ring[(i + 2) % n], ring[(i + 3) % n]];
    const length = lengthOf(toX - x, toY - y);
    if (length < stepMm / 10) continue;
    const parts = Math.ceil(length / stepMm);
    for (let k = 0; k < parts; k++) out.push(x + ((toX - x) * k) / parts, y + ((toY - y) * k) / parts);
  }
  return out;
}
