// Cells: the areas that an arrangement divides the picture into, each with the face that was there and how often every outline
// winds round it.
import { type Bounds, boundsOf, flattenPath, isInLine, pathArea, reversePath } from "../geometry/index.ts";
import { BARE, faceAt, type PlanarMap } from "../trace/index.ts";
import { type Arc, type Arrangement, pathOfArc } from "./arrange.ts";

export interface Cells {
  /** The cell on the left of every half. */
  readonly ofHalf: Int32Array;
  /** The old face of every cell, or BARE. */
  readonly faces: readonly number[];
  readonly windings: readonly (readonly number[])[];
  /** The rings of every cell: halves in their order. */
  readonly rings: readonly (readonly (readonly number[])[])[];
}

/** A closed walk along halves. */
interface Ring {
  readonly halves: readonly number[];
  /** The face on its left; null where nothing of the map borders on it. */
  readonly face: number | null;
  readonly area: number;
  /** Whether it is a hole in what is on its left, rather than going round it. */
  readonly isHole: boolean;
}

/** The cells; null where the curves lie so that they contradict each other, which a nudge of what is laid puts right. */
export function findCells(map: PlanarMap, arrangement: Arrangement, next: Int32Array, outlines: number): Cells | null {
  const rings = walkRings(arrangement, next);
  if (!rings) return null;
  const located = rings.map((ring) => ({ ...ring, face: ring.face ?? locate(map, arrangement, ring) }));
  const grouped = groupRings(located, arrangement);
  if (!grouped) return null;
  const ofHalf = new Int32Array(next.length).fill(-1);
  const cellRings: (readonly number[])[][] = grouped.faces.map(() => []);
  rings.forEach(({ halves }, r) => {
    cellRings[grouped.cellOf[r]].push(halves);
    for (const half of halves) ofHalf[half] = grouped.cellOf[r];
  });
  const windings = windFrom(grouped.outside, arrangement.arcs, ofHalf, cellRings, outlines);
  return windings && { ofHalf, faces: grouped.faces, windings, rings: cellRings };
}

function walkRings({ arcs, vertices }: Arrangement, next: Int32Array): Ring[] | null {
  const rings: Omit<Ring, "isHole">[] = [];
  const seen = new Uint8Array(next.length);
  const areas = arcs.map((arc) => pathArea(pathOfArc(arc, vertices)));
  for (let first = 0; first < next.length; first++) {
    if (seen[first]) continue;
    const halves: number[] = [];
    let face: number | null = null;
    let area = 0;
    for (let half = first; !seen[half]; half = next[half]) {
      if (next[half] < 0) return null;
      seen[half] = 1;
      halves.push(half);
      const isBack = (half & 1) === 1;
      area += isBack ? -areas[half >> 1] : areas[half >> 1];
      const { edge } = arcs[half >> 1].strand;
      if (!edge) continue;
      const own = isBack ? edge.right : edge.left;
      if (face !== null && face !== own) return null;
      face = own;
    }
    rings.push({ halves, face, area });
  }
  return tellHoles(rings, arcs);
}

/**
 * Of all rings of curves that hang together one is a hole, in what lies around them: that of the largest area. The sign of the
 * area alone does not tell it of slivers, whose curves may lie otherwise than the lines that decided their order.
 */
function tellHoles(rings: readonly Omit<Ring, "isHole">[], arcs: readonly Arc[]): Ring[] {
  const parent = new Map<number, number>();
  const root = (vertex: number): number => {
    let own = vertex;
    for (let up = parent.get(own); up !== undefined && up !== own; up = parent.get(own)) own = up;
    parent.set(vertex, own);
    return own;
  };
  for (const { start, end } of arcs) if (start >= 0) parent.set(root(start), root(end));
  const largest = new Map<number, number>();
  const groupOf = (r: number) => {
    const { start } = arcs[rings[r].halves[0] >> 1];
    return start >= 0 ? root(start) : -1 - (rings[r].halves[0] >> 1);
  };
  rings.forEach(({ area }, r) => {
    const group = groupOf(r);
    const best = largest.get(group);
    if (best === undefined || area > rings[best].area) largest.set(group, r);
  });
  return rings.map((ring, r) => ({ ...ring, isHole: largest.get(groupOf(r)) === r }));
}

/** The face in which a ring lies that meets nothing of the map. */
function locate(map: PlanarMap, { arcs, vertices }: Arrangement, { halves }: Ring): number {
  const [x, y] = midOf(arcs[halves[0] >> 1], vertices);
  const face = faceAt(map, { x, y });
  return face < 0 ? BARE : face;
}

function midOf(arc: Arc, vertices: Arrangement["vertices"]): readonly [number, number] {
  const line = flattenPath(pathOfArc(arc, vertices), 0.01);
  const k = Math.floor((line.length / 2 - 1) / 2) * 2;
  return [(line[k] + line[k + 2]) / 2, (line[k + 1] + line[k + 3]) / 2];
}

interface Grouped {
  /** Of every ring. */
  readonly cellOf: readonly number[];
  readonly faces: readonly number[];
  /** The cell that goes on for ever. */
  readonly outside: number;
}

/** Gives every hole to the area that it is a hole of. */
function groupRings(rings: readonly Ring[], arrangement: Arrangement): Grouped | null {
  const cellOf: number[] = new Array(rings.length).fill(-1);
  const outside = 0;
  const faces: number[] = [BARE];
  const outers = new Map<number, number[]>();
  rings.forEach(({ isHole, face }, r) => {
    if (isHole || face === null) return;
    cellOf[r] = faces.length;
    faces.push(face);
    const list = outers.get(face);
    if (list) list.push(r);
    else outers.set(face, [r]);
  });
  const outlines = new Map<number, Outline>();
  const outlineOf = (r: number) => {
    const found = outlines.get(r) ?? outlineRing(rings[r], arrangement);
    outlines.set(r, found);
    return found;
  };
  for (let r = 0; r < rings.length; r++) {
    const { area, face, halves, isHole } = rings[r];
    if (!isHole || face === null) continue;
    const around = outers.get(face) ?? [];
    if (face !== BARE && around.length === 1) cellOf[r] = cellOf[around[0]];
    else {
      const [x, y] = midOf(arrangement.arcs[halves[0] >> 1], arrangement.vertices);
      const inside = around.filter((outer) => -rings[outer].area > area && isInside(outlineOf(outer), x, y));
      const smallest = inside.sort((a, b) => rings[b].area - rings[a].area)[0];
      if (smallest === undefined && face !== BARE) return null;
      cellOf[r] = smallest === undefined ? outside : cellOf[smallest];
    }
  }
  return { cellOf, faces, outside };
}

interface Outline {
  readonly line: readonly number[];
  readonly box: Bounds;
}

function outlineRing({ halves }: Ring, { arcs, vertices }: Arrangement): Outline {
  const line = halves.flatMap((half) => {
    const path = pathOfArc(arcs[half >> 1], vertices);
    return flattenPath((half & 1) === 0 ? path : reversePath(path), 0.01).slice(2);
  });
  return { line, box: boundsOf(line) };
}

function isInside({ line, box }: Outline, x: number, y: number): boolean {
  return x >= box.left && x <= box.right && y >= box.top && y <= box.bottom && isInLine(line, x, y);
}

/** Windings of every cell, from the outside inwards; null where two ways to one cell do not agree. */
function windFrom(
  outside: number,
  arcs: readonly Arc[],
  ofHalf: Int32Array,
  rings: readonly (readonly (readonly number[])[])[],
  outlines: number,
): (readonly number[])[] | null {
  const windings: (readonly number[] | null)[] = rings.map(() => null);
  windings[outside] = new Array(outlines).fill(0);
  const queue = [outside];
  for (let q = 0; q < queue.length; q++) {
    const own = windings[queue[q]] ?? [];
    for (const ring of rings[queue[q]])
      for (const half of ring) {
        const beyond = ofHalf[half ^ 1];
        const sign = (half & 1) === 0 ? -1 : 1;
        const { windings: step } = arcs[half >> 1];
        const known = windings[beyond];
        if (known === null) {
          windings[beyond] = own.map((w, k) => w + sign * step[k]);
          queue.push(beyond);
        } else if (known.some((w, k) => w !== own[k] + sign * step[k])) return null;
      }
  }
  const all = windings.filter((one) => one !== null);
  return all.length === windings.length ? all : null;
}
