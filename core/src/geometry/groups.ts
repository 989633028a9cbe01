// Rings that may be worked on apart: what no edge comes near lies wholly within one part of the plane that the others make.
import { getBounds, type Path64, type Paths64, type Rect64 } from "clipper2-ts";
import { indexBounds } from "./index-bounds.ts";
import type { Bounds } from "./points.ts";

/** Edges of a ring that are looked round together. */
const STRETCH_EDGES = 16;

/** Rings that touch each other, or come near, and how often all others wind round them. */
export interface RingGroup {
  readonly rings: Paths64;
  readonly winding: number;
}

/** Rings in groups of which none comes near another; cost grows with the number of edges. */
export function groupTouching(rings: Paths64): readonly RingGroup[] {
  if (rings.length < 2) return [{ rings, winding: 0 }];
  const parent = joinTouching(rings);
  const members = new Map<number, number[]>();
  for (let r = 0; r < rings.length; r++) {
    const group = rootOf(parent, r);
    const known = members.get(group);
    if (known) known.push(r);
    else members.set(group, [r]);
  }
  const bounds: Rect64[] = [];
  for (const ring of rings) bounds.push(getBounds(ring));
  const groups: RingGroup[] = [];
  for (const [group, own] of members) {
    const [at] = rings[own[0]];
    let winding = 0;
    for (let r = 0; r < rings.length; r++)
      if (rootOf(parent, r) !== group && isInside(bounds[r], at)) winding += windingAt(rings[r], at);
    groups.push({ rings: own.map((r) => rings[r]), winding });
  }
  return groups;
}

function isInside({ left, top, right, bottom }: Rect64, { x, y }: Path64[number]): boolean {
  return x > left && x < right && y > top && y < bottom;
}

/** For each ring one that it touches, or itself: in the end, one that stands for all of its group (union-find, after Tarjan 1975). */
function joinTouching(rings: Paths64): Int32Array {
  const parent = Int32Array.from(rings, (_, r) => r);
  const stretches: Stretch[] = [];
  for (let r = 0; r < rings.length; r++) cutUp(stretches, rings[r], r);
  if (stretches.length === 0) return parent;
  const index = indexBounds(stretches);
  for (const { ring, left, top, right, bottom } of stretches)
    for (const found of index.search(left, top, right, bottom)) {
      const a = rootOf(parent, ring);
      const b = rootOf(parent, stretches[found].ring);
      // The lower number stands for both: groups come in the order of their first rings.
      if (a !== b) parent[Math.max(a, b)] = Math.min(a, b);
    }
  return parent;
}

/** Which ring stands for all that a ring touches. */
function rootOf(parent: Int32Array, ring: number): number {
  let root = ring;
  while (parent[root] !== root) root = parent[root];
  for (let at = ring; parent[at] !== root; ) {
    const next = parent[at];
    parent[at] = root;
    at = next;
  }
  return root;
}

interface Stretch extends Bounds {
  readonly ring: number;
}

function cutUp(out: Stretch[], points: Path64, ring: number): void {
  for (let from = 0; from < points.length; from += STRETCH_EDGES) {
    let { x: left, y: top } = points[from];
    let [right, bottom] = [left, top];
    for (let i = from + 1; i <= Math.min(from + STRETCH_EDGES, points.length); i++) {
      const { x, y } = points[i < points.length ? i : 0];
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
    out.push({ ring, left, top, right, bottom });
  }
}

/** How often a ring winds round a place that is not on it (Sunday 2001, "Inclusion of a point in a polygon"). */
function windingAt(ring: Path64, { x, y }: Path64[number]): number {
  let winding = 0;
  let before = ring[ring.length - 1];
  for (const point of ring) {
    const isBelow = before.y <= y;
    if (isBelow !== point.y <= y) {
      // Products of two coordinates fit a double exactly.
      const side = (point.x - before.x) * (y - before.y) - (x - before.x) * (point.y - before.y);
      if (isBelow && side > 0) winding++;
      else if (!isBelow && side < 0) winding--;
    }
    before = point;
  }
  return winding;
}
