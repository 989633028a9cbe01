// Trapping: along every boundary where two inks meet, the lighter one spreads into the darker one, so that a press that
// shifts a little shows no garment between them. Never out into bare garment, and thinner where the art is thin.
import Flatbush from "flatbush";
import {
  bufferLine,
  flattenPath,
  intersect,
  type Polygons,
  polygonPath,
  toPolygons,
  unite,
} from "../geometry/index.ts";
import { BARE, facePaths, type PlanarMap } from "../trace/index.ts";

/** Which of two inks is lighter decides the direction; `null` for anything that is not ink. */
export type LightnessOf = (spotId: string) => number | null;

/** The strips of one spot that lie inside its darker neighbours, per spot id; non-overlapping polygons. */
export type Traps = ReadonlyMap<string, Polygons>;

/** Sides of the polygon that stands for a disc where the trap's width changes. */
const DISC_SIDES = 12;

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
    const widths = localWidths(line, widthPx, crossings);
    const bySpot = strips.get(dark) ?? new Map<string, Polygons>();
    strips.set(dark, bySpot);
    const list = bySpot.get(light) ?? [];
    bySpot.set(light, list);
    for (const polygon of stripAlong(line, widths, widthPx, tolerancePx)) list.push(polygon);
  });
  const traps = new Map<string, Polygons>();
  for (const [dark, bySpot] of strips) {
    const face = toPolygons(facePaths(map, map.faces[dark]), tolerancePx);
    for (const [light, polygons] of bySpot) {
      const inside = intersect(unite(polygons), face);
      traps.set(light, [...(traps.get(light) ?? []), ...inside]);
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
    const parts = Math.max(1, Math.ceil(Math.hypot(dx, dy) / step));
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
    const length = Math.hypot(dx, dy);
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

/** Everything within the local width of the line. Runs at full width go to the library whole; the rest disc by disc. */
function stripAlong(line: readonly number[], widths: Float64Array, widthPx: number, tolerancePx: number): Polygons {
  const out: Polygons = [];
  const n = widths.length;
  let runStart = -1;
  for (let i = 0; i <= n; i++) {
    const isFull = i < n && widths[i] > widthPx * 0.999;
    if (isFull && runStart < 0) runStart = i;
    if (!isFull && runStart >= 0) {
      if (i - runStart > 1) out.push(...bufferLine(line.slice(runStart * 2, i * 2), widthPx, tolerancePx));
      runStart = -1;
    }
    if (i > 0 && i < n && (widths[i] <= widthPx * 0.999 || widths[i - 1] <= widthPx * 0.999))
      out.push(...taperedPiece(line, widths, i - 1));
  }
  return out;
}

/** The strip between points i and i + 1 whose widths differ: two discs and the quadrilateral between them. */
function taperedPiece(line: readonly number[], widths: Float64Array, i: number): Polygons {
  const pieces: Float64Array[] = [];
  const x0 = line[i * 2];
  const y0 = line[i * 2 + 1];
  const x1 = line[i * 2 + 2];
  const y1 = line[i * 2 + 3];
  const length = Math.hypot(x1 - x0, y1 - y0);
  const r0 = widths[i];
  const r1 = widths[i + 1];
  if (length > 0) {
    const nx = -(y1 - y0) / length;
    const ny = (x1 - x0) / length;
    pieces.push(
      Float64Array.of(
        x0 - nx * r0,
        y0 - ny * r0,
        x1 - nx * r1,
        y1 - ny * r1,
        x1 + nx * r1,
        y1 + ny * r1,
        x0 + nx * r0,
        y0 + ny * r0,
      ),
    );
  }
  for (const [x, y, r] of [
    [x0, y0, r0],
    [x1, y1, r1],
  ]) {
    const disc = new Float64Array(DISC_SIDES * 2);
    for (let k = 0; k < DISC_SIDES; k++) {
      disc[k * 2] = x + r * Math.cos((2 * Math.PI * k) / DISC_SIDES);
      disc[k * 2 + 1] = y + r * Math.sin((2 * Math.PI * k) / DISC_SIDES);
    }
    pieces.push(disc);
  }
  return toPolygons(pieces.map(polygonPath), 1);
}
