// The design's edge: stones lie over it by no more than a share of their width.
import Flatbush from "flatbush";
import { closed, insetRings, measureLine, type Ring } from "../area/index.ts";
import { densify, flattenPath, lengthOf } from "../geometry/index.ts";
import { outlinePaths, type PlanarMap } from "../trace/index.ts";
import { diameterOf, type StoneSize } from "../trade/index.ts";
import type { Row } from "./stones.ts";

/** How finely curves are followed, mm. */
const FLATTEN_MM = 0.01;
/** How exactly places are moved, mm. */
const EXACT_MM = 0.03;
/** A place that has to be moved farther than so many times as it should be inside belongs to what is too narrow (our own). */
const FAR = 2.2;
/** How finely rows are looked at, mm. */
const LOOK_MM = 0.1;
/** Edges are looked up in parts of this length, mm, so many of the nearest: boxes of some lie nearer than their lines. */
const PART_MM = 1;
const ASKED = 8;

type Nearest = (x: number, y: number) => { x: number; y: number; away: number };

/** Moves rows as far inwards from the design's edge as their stones have to be; where a design is too narrow for that they part. */
export function makeKeepInside(
  map: PlanarMap,
  widthMm: number,
  isDesign: (face: number) => boolean,
  overShare: number,
): (row: Row) => Row[] {
  if (overShare >= 0.5) return (row) => [row];
  const mmPerPx = widthMm / map.width;
  const rings = outlinePaths(map, isDesign).map((path) =>
    Float64Array.from(flattenPath(path, FLATTEN_MM / mmPerPx).slice(0, -2), (px) => px * mmPerPx),
  );
  const edge = nearestOn(rings);
  const limits = new Map<StoneSize, Nearest>();
  return (row) => {
    const insetMm = diameterOf(row.size) * (0.5 - overShare);
    const limit = limits.get(row.size) ?? nearestOn(insetRings(rings, insetMm));
    limits.set(row.size, limit);
    const moved = (line: readonly number[]): number[][] => {
      const parts: number[][] = [[]];
      for (let i = 0; i < line.length; i += 2) {
        const [x, y] = [line[i], line[i + 1]];
        const kept = edge(x, y).away >= insetMm ? { x, y, away: 0 } : limit(x, y);
        if (kept.away > FAR * insetMm || edge(kept.x, kept.y).away < insetMm - EXACT_MM) parts.push([]);
        else parts[parts.length - 1].push(kept.x, kept.y);
      }
      return parts;
    };
    // Round a corner that bends inwards places part: what lies between them is moved, too.
    const parts = moved(densify(Array.from(row.line.points), LOOK_MM)).flatMap((part) => moved(densify(part, LOOK_MM)));
    const lines = parts.filter((part) => part.length > 2);
    return lines.map((part) => ({ ...row, line: measureLine(part), isClosed: row.isClosed && parts.length === 1 }));
  };
}

function nearestOn(rings: readonly Ring[]): Nearest {
  const segments: number[] = [];
  for (const ring of rings) {
    const line = densify(Array.from(closed(ring)), PART_MM);
    for (let i = 2; i < line.length; i += 2) segments.push(...line.slice(i - 2, i + 2));
  }
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
