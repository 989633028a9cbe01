// What a hand does with nodes and lines, as changes of stretches of boundaries: moved, put in, taken out, straight or curved.
import {
  type CubicPath,
  cosineBetween,
  isLine,
  joinPaths,
  lengthOf,
  linePath,
  partOfPath,
  pointOn,
  segmentCount,
} from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";
import { fitOneSegment } from "../trace/index.ts";
import type { LineChange } from "./edits.ts";
import { directionAt, type HandEdge, type NodeRef } from "./hand-edges.ts";

/** The changes that move nodes, each by its own way, their handles with them. */
export function moveNodes(
  edges: readonly HandEdge[],
  nodes: readonly NodeRef[],
  way: (x: number, y: number) => readonly [number, number],
): LineChange[] {
  const ofEdge = new Map<number, Set<number>>();
  for (const { edge, node } of nodes) ofEdge.set(edge, (ofEdge.get(edge) ?? new Set()).add(node));
  return [...ofEdge].flatMap(([edge, moved]) => {
    const { path, start } = edges[edge];
    const segments = segmentCount(path);
    const now = path.slice();
    const isMoved = (node: number) => moved.has(start < 0 ? node % segments : node);
    for (let node = 0; node <= segments; node++) {
      if (!isMoved(node)) continue;
      const [dx, dy] = way(path[node * 6], path[node * 6 + 1]);
      for (const i of [node * 6 - 2, node * 6, node * 6 + 2]) {
        if (i < 0 || i >= path.length) continue;
        now[i] = path[i] + dx;
        now[i + 1] = path[i + 1] + dy;
      }
    }
    // A straight segment of which one end moves stays straight.
    for (let s = 0; s < segments; s++)
      if (isLine(path, s)) {
        now.copyWithin(s * 6 + 2, s * 6, s * 6 + 2);
        now.copyWithin(s * 6 + 4, s * 6 + 6, s * 6 + 8);
      }
    const isTouched = (s: number) => isMoved(s) || isMoved(s + 1);
    return runsOf(segments, start < 0, isTouched).map(([from, to]) =>
      changeOf(edges[edge], from, to, to - from === segments && start < 0 ? now : partOfPath(now, from, to)),
    );
  });
}

/** Stretches of segments in a row that are touched; of a ring over its first node, too. All of a ring is one. */
function runsOf(segments: number, isRing: boolean, isTouched: (s: number) => boolean): [number, number][] {
  const runs: [number, number][] = [];
  for (let s = 0; s < segments; s++) {
    const last = runs.at(-1);
    if (!isTouched(s)) continue;
    if (last && last[1] === s) last[1] = s + 1;
    else runs.push([s, s + 1]);
  }
  const [first, last] = [runs[0], runs.at(-1)];
  if (isRing && first && last && first !== last && first[0] === 0 && last[1] === segments)
    return [...runs.slice(1, -1), [last[0], segments + first[1]]];
  return runs;
}

function changeOf({ path, left, right }: HandEdge, from: number, to: number, now: CubicPath): LineChange {
  return { was: partOfPath(path, from, to), now, left, right };
}

/** A handle of segment `s`: its first (0) or its second (1). */
export interface HandleRef {
  readonly edge: number;
  readonly s: number;
  readonly which: 0 | 1;
}

/** A joint is smooth where its handles point apart within this (cosine of a degree). */
const SMOOTH_COSINE = 0.99985;

/** The change that puts a handle at a place; the other one of a smooth node turns with it, unless it is to be a corner. */
export function moveHandle(
  edges: readonly HandEdge[],
  { edge, s, which }: HandleRef,
  { x, y }: Point,
  isCorner: boolean,
): LineChange[] {
  const own = edges[edge];
  const { path, start } = own;
  const segments = segmentCount(path);
  const node = s + which;
  const now = path.slice();
  const i = s * 6 + 2 + which * 2;
  now.set([x, y], i);
  const isRing = start < 0;
  const other =
    which === 0 ? (s === 0 ? (isRing ? segments - 1 : -1) : s - 1) : s + 1 < segments ? s + 1 : isRing ? 0 : -1;
  const single = [changeOf(own, s, s + 1, partOfPath(now, s, s + 1))];
  if (other < 0 || other === s || isCorner || isLine(path, other)) return single;
  const k = other * 6 + (which === 0 ? 4 : 2);
  const [nx, ny] = [path[node * 6], path[node * 6 + 1]];
  const [ox, oy] = [path[k] - nx, path[k + 1] - ny];
  if (cosineBetween(nx - path[i], ny - path[i + 1], ox, oy) < SMOOTH_COSINE) return single;
  const [length, reach] = [lengthOf(nx - x, ny - y), lengthOf(ox, oy)];
  if (length === 0) return single;
  now.set([nx + ((nx - x) / length) * reach, ny + ((ny - y) / length) * reach], k);
  const first = which === 0 ? other : s;
  return [changeOf(own, first, first + 2, partOfPath(now, first, first + 2))];
}

/** The change that pulls a segment by a way at its parameter `t`: both handles give, as little as they can. */
export function pullSegment(
  edges: readonly HandEdge[],
  edge: number,
  s: number,
  t: number,
  dx: number,
  dy: number,
): LineChange[] {
  const own = edges[edge];
  const part = curved(partOfPath(own.path, s, s + 1));
  const u = 1 - t;
  const [a, b] = [3 * u * u * t, 3 * u * t * t];
  const weight = a * a + b * b || 1;
  const now = part.slice();
  now[2] += (dx * a) / weight;
  now[3] += (dy * a) / weight;
  now[4] += (dx * b) / weight;
  now[5] += (dy * b) / weight;
  return [changeOf(own, s, s + 1, now)];
}

/** A straight segment as a curve with handles at its thirds. */
function curved(part: CubicPath): CubicPath {
  if (!isLine(part, 0)) return part;
  const [x0, y0, , , , , x1, y1] = part;
  const [dx, dy] = [(x1 - x0) / 3, (y1 - y0) / 3];
  return Float64Array.from([x0, y0, x0 + dx, y0 + dy, x1 - dx, y1 - dy, x1, y1]);
}

/** The change that puts a node in, where the line stays as it is. */
export function addNode(edges: readonly HandEdge[], edge: number, at: number): LineChange[] {
  const own = edges[edge];
  const s = Math.floor(at);
  if (at === s) return [];
  return [changeOf(own, s, s + 1, joinPaths([partOfPath(own.path, s, at), partOfPath(own.path, at, s + 1)]))];
}

/** The changes that take nodes out: what is left of their stretch is drawn again as one curve. Junctions stay. */
export function removeNodes(edges: readonly HandEdge[], nodes: readonly NodeRef[]): LineChange[] {
  return [...new Set(nodes.map(({ edge }) => edge))].flatMap((edge) => {
    const own = edges[edge];
    const { path, start } = own;
    const segments = segmentCount(path);
    const isRing = start < 0;
    const gone = new Set(
      nodes.flatMap((one) =>
        one.edge === edge && (isRing || (one.node > 0 && one.node < segments)) ? [one.node] : [],
      ),
    );
    // Two nodes of a ring are the least that holds an area.
    if (isRing && segments - gone.size < 2) return [];
    const isBetween = (s: number) => gone.has(s) || gone.has((s + 1) % segments);
    return runsOf(segments, isRing, isBetween).flatMap(([from, to]) => {
      // A run may hold several: nodes that stay part it.
      const stops = [from];
      for (let k = from + 1; k < to; k++) if (!gone.has(k % segments)) stops.push(k);
      stops.push(to);
      const parts = stops.slice(1).map((stop, k) => {
        const part = partOfPath(path, stops[k], stop);
        return stop - stops[k] > 1 ? asOneSegment(part) : part;
      });
      return [changeOf(own, from, to, joinPaths(parts))];
    });
  });
}

/** Samples of a segment. */
const SAMPLES = 12;

/** A stretch as one segment that leaves its ends as it did. */
function asOneSegment(part: CubicPath): CubicPath {
  const points: number[] = [];
  const segments = segmentCount(part);
  for (let s = 0; s < segments; s++)
    for (let k = s === 0 ? 0 : 1; k <= SAMPLES; k++)
      points.push(...(k === 0 ? [part[0], part[1]] : pointOn(part, s, k / SAMPLES)));
  if (isStraight(part)) return linePath([part[0], part[1], part[part.length - 2], part[part.length - 1]]);
  return fitOneSegment(Float64Array.from(points), directionAt(part, 0), directionAt(part, 1));
}

function isStraight(part: CubicPath): boolean {
  const [x0, y0, x1, y1] = [part[0], part[1], part[part.length - 2], part[part.length - 1]];
  const length = lengthOf(x1 - x0, y1 - y0);
  for (let i = 2; i < part.length; i += 2)
    if (Math.abs((part[i] - x0) * (y1 - y0) - (part[i + 1] - y0) * (x1 - x0)) > 1e-6 * length * length) return false;
  return true;
}

/** The changes that make the joints at nodes smooth, or corners. */
export function shapeNodes(
  edges: readonly HandEdge[],
  nodes: readonly NodeRef[],
  as: "smooth" | "corner",
): LineChange[] {
  return nodes.flatMap(({ edge, node }) => {
    const own = edges[edge];
    const { path, start } = own;
    const segments = segmentCount(path);
    const isRing = start < 0;
    if (!isRing && (node === 0 || node === segments)) return [];
    const before = node === 0 ? segments - 1 : node - 1;
    const stretch = joinPaths([
      curved(partOfPath(path, before, before + 1)),
      curved(partOfPath(path, node % segments, (node % segments) + 1)),
    ]);
    const [nx, ny] = [stretch[6], stretch[7]];
    const now = stretch.slice();
    const [toBack, toOn] = [
      [stretch[0] - nx, stretch[1] - ny],
      [stretch[12] - nx, stretch[13] - ny],
    ];
    const [back, on] = [lengthOf(toBack[0], toBack[1]), lengthOf(toOn[0], toOn[1])];
    if (back === 0 || on === 0) return [];
    if (as === "corner") {
      now.set([nx + toBack[0] / 3, ny + toBack[1] / 3], 4);
      now.set([nx + toOn[0] / 3, ny + toOn[1] / 3], 8);
    } else {
      const [ux, uy] = [toOn[0] / on - toBack[0] / back, toOn[1] / on - toBack[1] / back];
      const length = lengthOf(ux, uy);
      if (length === 0) return [];
      now.set([nx - (ux / length) * (back / 3), ny - (uy / length) * (back / 3)], 4);
      now.set([nx + (ux / length) * (on / 3), ny + (uy / length) * (on / 3)], 8);
    }
    return [changeOf(own, before, before + 2, now)];
  });
}

/** The changes that make the segments between picked nodes straight, or curves that go on smoothly. */
export function shapeSegments(
  edges: readonly HandEdge[],
  segments: readonly { readonly edge: number; readonly s: number }[],
  as: "straight" | "curved",
): LineChange[] {
  return segments.flatMap(({ edge, s }) => {
    const own = edges[edge];
    const part = partOfPath(own.path, s, s + 1);
    if (as === "straight")
      return isLine(part, 0) ? [] : [changeOf(own, s, s + 1, linePath([part[0], part[1], part[6], part[7]]))];
    if (!isLine(part, 0)) return [];
    const now = curved(part);
    const count = segmentCount(own.path);
    const isRing = own.start < 0;
    const reach = lengthOf(part[6] - part[0], part[7] - part[1]) / 3;
    const before = s > 0 ? s - 1 : isRing ? count - 1 : -1;
    const after = s + 1 < count ? s + 1 : isRing ? 0 : -1;
    const into = before < 0 ? null : directionAt(partOfPath(own.path, before, before + 1), 1);
    const out = after < 0 ? null : directionAt(partOfPath(own.path, after, after + 1), 0);
    if (into) now.set([part[0] - into[0] * reach, part[1] - into[1] * reach], 2);
    if (out) now.set([part[6] - out[0] * reach, part[7] - out[1] * reach], 4);
    return [changeOf(own, s, s + 1, now)];
  });
}
