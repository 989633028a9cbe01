// The design's edge: stones lie over it by no more than a share of their width.
import Flatbush from "flatbush";
import { type Area, measureLine, type Ring } from "../area/index.ts";
import { densify, growRegion, lengthOf, linesOf, polygonPath, toPolygons } from "../geometry/index.ts";
import { diameterOf, type StoneSize } from "../trade/index.ts";
import type { Row } from "./stones.ts";

/** How exactly edges are moved, mm; and by how much areas are grown so that neighbours become one. */
const MOVE_MM = 0.02;
const SEAM_MM = 0.05;
/** How finely rows are looked at, mm. */
const LOOK_MM = 0.1;
/** Segments that are asked for the nearest: boxes of some lie nearer than their lines. */
const ASKED = 8;

type Nearest = (x: number, y: number) => { x: number; y: number; away: number };

/** Moves rows as far inwards from the design's edge as their stones have to be; where a design is too narrow for that they part. */
export function makeKeepInside(areas: readonly Area[], overShare: number): (row: Row) => Row[] {
  if (overShare >= 0.5) return (row) => [row];
  const polygons = toPolygons(
    areas.flatMap(({ rings }) => rings.map((ring) => polygonPath(Array.from(ring)))),
    MOVE_MM,
  );
  const grown = growRegion(polygons, SEAM_MM, MOVE_MM);
  const edge = nearestOn(linesOf(growRegion(grown, -SEAM_MM, MOVE_MM)).map((line) => Float64Array.from(line)));
  const limits = new Map<StoneSize, Nearest>();
  return (row) => {
    const insetMm = diameterOf(row.size) * (0.5 - overShare);
    const limit =
      limits.get(row.size) ??
      nearestOn(linesOf(growRegion(grown, -SEAM_MM - insetMm, MOVE_MM)).map((line) => Float64Array.from(line)));
    limits.set(row.size, limit);
    const points = densify(Array.from(row.line.points), LOOK_MM);
    const parts: number[][] = [[]];
    for (let i = 0; i < points.length; i += 2) {
      const [x, y] = [points[i], points[i + 1]];
      const kept = edge(x, y).away >= insetMm ? { x, y, away: 0 } : limit(x, y);
      if (kept.away > 2 * insetMm + MOVE_MM) parts.push([]);
      else parts[parts.length - 1].push(kept.x, kept.y);
    }
    const lines = parts.filter((part) => part.length > 2);
    return lines.map((part) => ({ ...row, line: measureLine(part), isClosed: row.isClosed && parts.length === 1 }));
  };
}

function nearestOn(rings: readonly Ring[]): Nearest {
  const segments: number[] = [];
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
      segments.push(ring[j], ring[j + 1], ring[i], ring[i + 1]);
  if (segments.length === 0) return (x, y) => ({ x, y, away: Number.POSITIVE_INFINITY });
  const index = new Flatbush(segments.length / 4);
  for (let s = 0; s < segments.length; s += 4) {
    const [ax, ay, bx, by] = segments.slice(s, s + 4);
    index.add(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by));
  }
  index.finish();
  return (x, y) => {
    let best = { x, y, away: Number.POSITIVE_INFINITY };
    for (const s of index.neighbors(x, y, ASKED)) {
      const [ax, ay, bx, by] = segments.slice(s * 4, s * 4 + 4);
      const [dx, dy] = [bx - ax, by - ay];
      const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
      const [px, py] = [ax + t * dx, ay + t * dy];
      const away = lengthOf(px - x, py - y);
      if (away < best.away) best = { x: px, y: py, away };
    }
    return best;
  };
}
