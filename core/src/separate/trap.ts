// Trapping: along every boundary where two inks meet, the lighter one spreads into the darker one, so that a press that
// shifts a little shows no garment between them. Never out into bare garment, and thinner where the art is thin.
import Flatbush from "flatbush";
import {
  arcBetween,
  flattenPath,
  intersect,
  lengthOf,
  type Polygons,
  polygonPath,
  toPolygons,
} from "../geometry/index.ts";
import { BARE, facePaths, type PlanarMap } from "../trace/index.ts";

/** Which of two inks is lighter decides the direction; `null` for anything that is not ink. */
export type LightnessOf = (spotId: string) => number | null;

/** The strips of one spot that lie inside its darker neighbours, per spot id; non-overlapping polygons. */
export type Traps = ReadonlyMap<string, Polygons>;

/** A turn sharper than this (20 degrees) is rounded off rather than mitred; an arc's step is no larger. At 20 degrees a mitre is 1.5 % off. */
const ROUNDED_TURN_COSINE = 0.94;

/**
 * Strips for all boundaries between two inks. `widthPx` is the trap in source pixels. Where either ink is narrower than
 * twice the trap, measured across the boundary, the strip is half as wide as that feature: two traps from both sides of a thin line
 * meet in its middle and never pass it. The clip to the darker face keeps every strip off bare garment.
 */
export function spreadTraps(map: PlanarMap, lightnessOf: LightnessOf, widthPx: number, tolerancePx: number): Traps {
  if (widthPx <= 0) return new Map();
  const boundaries = map.edges.map((edge) => flattenPath(edge.path, tolerancePx));
  const crossings = indexBoundaries(boundaries);
  // Strips by darker face, then by lighter spot: one intersection for each such pair.
  const strips = new Map<number, Map<string, Polygons>>();
  map.edges.forEach((edge, e) => {
    if (edge.left === BARE || edge.right === BARE) return;
    const left = map.faces[edge.left].spotId;
    const right = map.faces[edge.right].spotId;
    const leftLightness = lightnessOf(left);
    const rightLightness = lightnessOf(right);
    if (left === right || leftLightness === null || rightLightness === null) return;
    const leftIsLighter = leftLightness > rightLightness || (leftLightness === rightLightness && left < right);
    const dark = leftIsLighter ? edge.right : edge.left;
    const light = leftIsLighter ? left : right;
    const line = densify(boundaries[e], widthPx / 2);
    const side = leftIsLighter ? 1 : -1;
    const widths = localWidths(line, widthPx, crossings);
    const bySpot = strips.get(dark) ?? new Map<string, Polygons>();
    strips.set(dark, bySpot);
    const list = bySpot.get(light) ?? [];
    bySpot.set(light, list);
    for (const polygon of stripBeside(line, widths, side)) list.push(polygon);
  });
  const traps = new Map<string, Polygons>();
  for (const [dark, bySpot] of strips) {
    const face = toPolygons(facePaths(map, map.faces[dark]), tolerancePx);
    for (const [light, polygons] of bySpot) {
      const all = traps.get(light) ?? [];
      traps.set(light, all);
      for (const polygon of intersect(polygons, face)) all.push(polygon);
    }
  }
  return traps;
}

/** All boundary segments, for finding what lies across a feature. */
interface Crossings {
  readonly index: Flatbush | null;
  readonly segments: Float64Array;
}

function indexBoundaries(boundaries: readonly number[][]): Crossings {
  let count = 0;
  for (const line of boundaries) count += line.length / 2 - 1;
  if (count === 0) return { index: null, segments: new Float64Array(0) };
  const segments = new Float64Array(count * 4);
  const index = new Flatbush(count);
  let o = 0;
  for (const line of boundaries) {
    for (let i = 0; i + 3 < line.length; i += 2) {
      segments.set([line[i], line[i + 1], line[i + 2], line[i + 3]], o);
      o += 4;
      index.add(
        Math.min(line[i], line[i + 2]),
        Math.min(line[i + 1], line[i + 3]),
        Math.max(line[i], line[i + 2]),
        Math.max(line[i + 1], line[i + 3]),
      );
    }
  }
  index.finish();
  return { index, segments };
}

/** The polyline with points no farther apart than `step`. */
function densify(line: readonly number[], step: number): number[] {
  const out = [line[0], line[1]];
  for (let i = 2; i < line.length; i += 2) {
    const dx = line[i] - line[i - 2];
    const dy = line[i + 1] - line[i - 1];
    const parts = Math.max(1, Math.ceil(lengthOf(dx, dy) / step));
    for (let k = 1; k < parts; k++) out.push(line[i - 2] + (dx * k) / parts, line[i - 1] + (dy * k) / parts);
    out.push(line[i], line[i + 1]);
  }
  return out;
}

/** For every point of the line: the trap's width there. */
function localWidths(line: readonly number[], widthPx: number, crossings: Crossings): Float64Array {
  const n = line.length / 2;
  const widths = new Float64Array(n).fill(widthPx);
  for (let i = 0; i < n; i++) {
    const a = Math.max(0, i - 1) * 2;
    const b = Math.min(n - 1, i + 1) * 2;
    const dx = line[b] - line[a];
    const dy = line[b + 1] - line[a + 1];
    const length = lengthOf(dx, dy);
    if (length === 0) continue;
    const nx = -dy / length;
    const ny = dx / length;
    const oneSide = featureWidth(line[i * 2], line[i * 2 + 1], nx, ny, 2 * widthPx, crossings);
    const otherSide = featureWidth(line[i * 2], line[i * 2 + 1], -nx, -ny, 2 * widthPx, crossings);
    widths[i] = Math.min(widthPx, oneSide / 2, otherSide / 2);
  }
  return widths;
}

/** Distance from a boundary point along a direction to the next boundary, at most `reach`. */
function featureWidth(
  x: number,
  y: number,
  nx: number,
  ny: number,
  reach: number,
  { index, segments }: Crossings,
): number {
  if (!index) return reach;
  // The boundary the point itself lies on must not be met.
  const skip = reach * 0.02;
  const ex = x + nx * reach;
  const ey = y + ny * reach;
  let nearest = reach;
  for (const s of index.search(Math.min(x, ex), Math.min(y, ey), Math.max(x, ex), Math.max(y, ey))) {
    const ax = segments[s * 4];
    const ay = segments[s * 4 + 1];
    const sx = segments[s * 4 + 2] - ax;
    const sy = segments[s * 4 + 3] - ay;
    const cross = nx * sy - ny * sx;
    if (Math.abs(cross) < 1e-12) continue;
    const t = ((ax - x) * sy - (ay - y) * sx) / cross;
    const u = ((ax - x) * ny - (ay - y) * nx) / cross;
    if (t > skip && t < nearest && u >= 0 && u <= 1) nearest = t;
  }
  return nearest;
}

/**
 * The strip on one side of a line (`side` 1: on the right looking along it, y down; -1: left), as wide at each point as
 * `widths` says, with rounded corners and ends. It comes in overlapping pieces that each turn the same way and never
 * fold over themselves, so that their union by non-zero winding is the strip.
 */
function stripBeside(line: readonly number[], widths: Float64Array, side: 1 | -1): Polygons {
  const pieces: number[][] = [];
  const last = widths.length - 1;
  let near: number[] = [];
  let far: number[] = [];
  const endPiece = () => {
    // The far side is travelled back, so that all pieces turn one way.
    for (let k = far.length - 2; k >= 0; k -= 2) near.push(far[k], far[k + 1]);
    if (near.length >= 6) pieces.push(near);
    near = [];
    far = [];
  };
  const add = (i: number, nx: number, ny: number) => {
    near.push(line[i * 2], line[i * 2 + 1]);
    far.push(line[i * 2] + nx * widths[i], line[i * 2 + 1] + ny * widths[i]);
  };
  let before: readonly [number, number] | null = null;
  for (let i = 0; i < last; i++) {
    const dx = line[i * 2 + 2] - line[i * 2];
    const dy = line[i * 2 + 3] - line[i * 2 + 1];
    const length = lengthOf(dx, dy);
    if (length === 0) continue;
    const nx = (-dy / length) * side;
    const ny = (dx / length) * side;
    const mayLeaveOut = before !== null && isOnStraightStrip(line, widths, i);
    if (!before) pushFan(pieces, line, i, widths[i], -dx / length, -dy / length, nx, ny);
    else if (!mayLeaveOut) {
      const turnSine = before[0] * ny - before[1] * nx;
      const turnCosine = before[0] * nx + before[1] * ny;
      const isFolded = length < widths[i] * Math.abs(turnSine) * 1.5 && turnSine * side < 0;
      if (turnCosine < ROUNDED_TURN_COSINE || isFolded) {
        add(i, before[0], before[1]);
        endPiece();
        pushFan(pieces, line, i, widths[i], before[0], before[1], nx, ny);
      }
    }
    if (!mayLeaveOut) add(i, nx, ny);
    before = [nx, ny];
    if (i === last - 1) {
      add(last, nx, ny);
      pushFan(pieces, line, last, widths[last], nx, ny, dx / length, dy / length);
    }
  }
  endPiece();
  return toPolygons(pieces.map(polygonPath), 1).map((polygon) => (side === 1 ? polygon : polygon.reverse()));
}

/** Whether the strip runs on through point `i` straight and equally wide: such points only measured the width. */
function isOnStraightStrip(line: readonly number[], widths: Float64Array, i: number): boolean {
  if (widths[i] !== widths[i - 1] || widths[i] !== widths[i + 1]) return false;
  const ax = line[i * 2] - line[i * 2 - 2];
  const ay = line[i * 2 + 1] - line[i * 2 - 1];
  const bx = line[i * 2 + 2] - line[i * 2];
  const by = line[i * 2 + 3] - line[i * 2 + 1];
  return Math.abs(ax * by - ay * bx) < 1e-6 * (ax * ax + ay * ay + bx * bx + by * by);
}

/** A sector around point `i` from one direction to another, the short way. */
function pushFan(
  pieces: number[][],
  line: readonly number[],
  i: number,
  radius: number,
  fromX: number,
  fromY: number,
  toX: number,
  toY: number,
): void {
  const x = line[i * 2];
  const y = line[i * 2 + 1];
  const fan = [x, y];
  const arc = arcBetween(fromX, fromY, toX, toY, ROUNDED_TURN_COSINE);
  for (let k = 0; k < arc.length; k += 2) fan.push(x + radius * arc[k], y + radius * arc[k + 1]);
  // On the inside of a turn the sector is swept the other way; all pieces must turn alike.
  pieces.push(fromX * toY - fromY * toX >= 0 ? fan : reversePoints(fan));
}

function reversePoints(points: readonly number[]): number[] {
  const out: number[] = [];
  for (let k = points.length - 2; k >= 0; k -= 2) out.push(points[k], points[k + 1]);
  return out;
}
