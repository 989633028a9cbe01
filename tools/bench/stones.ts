// Stones set along the outlines of open icons: are they apart, even, on corners, inside? Measured by an index and by arithmetic that
// are not the setter's.
import { listAreas, measureLine } from "@plain-palette/core/area";
import { flattenPath, segmentCount } from "@plain-palette/core/geometry";
import { makeRecipe } from "@plain-palette/core/recipe";
import { assignSpots, findColours, reduceColours, type Spot } from "@plain-palette/core/reduce";
import {
  type ChosenArea,
  fillFromEdge,
  fillInRows,
  Setting,
  type Stone,
  setAreas,
  setRows,
} from "@plain-palette/core/stone";
import { type Drawing, type PlanarMap, tracePicture } from "@plain-palette/core/trace";
import { diameterOf } from "@plain-palette/core/trade";
import Flatbush from "flatbush";
import { type Icon, renderIcon } from "./icons.ts";

const SIDE = 512;
/** Six inches. */
const WIDTH_MM = 152.4;
const SIZE = "SS6";
const GAPS = { gapMm: 0.4, leastMm: 0.3 };
/** From a stone's middle to the next one's. */
const ROOM_MM = diameterOf(SIZE) + GAPS.gapMm;
/** A corner is what turns over so much of a line, to both sides, mm: less is a kink that a stone covers. */
const SEEN_MM = 0.4;
/** A corner turns by so many degrees: inside it is 60 to 300, and not nearly straight. */
const TURNS = [30, 120] as const;
/** A stone lies on a corner if it is no farther away, mm. */
const ON_CORNER_MM = 0.05;

export interface TracedIcon {
  readonly map: Drawing;
  readonly spots: readonly Spot[];
}

interface SetIcon {
  readonly map: PlanarMap;
  /** Faces that are outlined. */
  readonly outlined: ReadonlySet<number>;
  readonly stones: readonly Stone[];
}

export function traceIcon(svg: string): TracedIcon {
  const findings = findColours(renderIcon(svg, SIDE));
  const recipe = makeRecipe({ colours: { count: null } });
  const reduction = reduceColours(findings, recipe.colours, [255, 255, 255]);
  const map = tracePicture(findings, reduction, assignSpots(findings, reduction, []), recipe.shapes);
  return { map, spots: reduction.spots };
}

/** Every area outlined on its line, stones over the design's edge by no more than a share of their width. */
export function setIcon({ map, spots }: TracedIcon, overShare = 0.5): SetIcon {
  const areas = listAreas({ map, spots, widthMm: WIDTH_MM });
  const outlined = areas.map((area): ChosenArea => {
    const numbers = { as: "outline", size: SIZE, pattern: "hexagons", angleDeg: 0, isMixed: false } as const;
    return {
      ...area,
      columns: { columns: [], joints: [] },
      numbers: { ...numbers, isInside: false, thinning: 1 },
      ...{ isUnread: false, sizes: [SIZE] },
    };
  });
  const { stones } = setAreas(outlined, map, WIDTH_MM, { gaps: GAPS, overShare });
  return { map, outlined: new Set(areas.map(({ face }) => face)), stones };
}

/** How far a stone reaches over the design's edge at most, mm: by the map's own boundaries, and even-odd. */
export function mostOver({ map: { edges, width }, outlined, stones }: SetIcon): number {
  const mm = WIDTH_MM / width;
  const segments = edges.flatMap(({ path, left, right }) => {
    if (outlined.has(left) === outlined.has(right)) return [];
    const line = Array.from(flattenPath(path, 0.01), (px) => px * mm);
    return Array.from({ length: line.length / 2 - 1 }, (_, i) => line.slice(i * 2, i * 2 + 4));
  });
  return stones.reduce((most, { x, y, size }) => {
    let [least, isInside] = [Number.POSITIVE_INFINITY, false];
    for (const [ax = 0, ay = 0, bx = 0, by = 0] of segments) {
      if (ay > y !== by > y && ax + ((y - ay) / (by - ay)) * (bx - ax) > x) isInside = !isInside;
      const [dx, dy] = [bx - ax, by - ay];
      const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
      least = Math.min(least, Math.hypot(ax + t * dx - x, ay + t * dy - y));
    }
    return Math.max(most, diameterOf(size) / 2 + (isInside ? -least : least));
  }, Number.NEGATIVE_INFINITY);
}

/** The least gap between stones, by an index that is not the setter's. */
function leastGap(stones: readonly Stone[], index: Flatbush): number {
  return stones.reduce((least, { x, y }, i) => {
    const other = index.neighbors(x, y, 2).find((k) => k !== i);
    const near = other === undefined ? undefined : stones[other];
    return near ? Math.min(least, Math.hypot(near.x - x, near.y - y) - diameterOf(SIZE)) : least;
  }, Number.POSITIVE_INFINITY);
}

interface Turn {
  readonly x: number;
  readonly y: number;
  readonly deg: number;
}

/** Where outlines turn, node by node: by the tangents of their curves, and as far as it is seen a little way off. */
function turnsOf({ map: { faces, width }, outlined }: SetIcon): Turn[] {
  const mm = WIDTH_MM / width;
  return faces.flatMap(({ paths }, face) =>
    (outlined.has(face) ? paths : []).flatMap((path) => {
      const n = segmentCount(path);
      const parts = Array.from({ length: n }, (_, s) =>
        flattenPath(path.slice(s * 6, s * 6 + 8), 0.01 / mm).slice(0, -2),
      );
      const line = parts.flatMap((part) => Array.from(part, (px) => px * mm));
      const starts = parts.map((_, s) => parts.slice(0, s).reduce((sum, part) => sum + part.length, 0));
      const at = (i: number) =>
        [line[(i + line.length) % line.length] ?? 0, line[(i + 1 + line.length) % line.length] ?? 0] as const;
      /** Where the line goes from a node, looked at from so far off, mm. */
      const direction = (from: number, step: 2 | -2, farMm: number) => {
        const [x, y] = at(from);
        for (let i = from + step; Math.abs(i - from) < line.length; i += step) {
          const [px, py] = at(i);
          if (Math.hypot(px - x, py - y) > farMm) return Math.atan2(py - y, px - x);
        }
        return 0;
      };
      return starts.map((start): Turn => {
        const turns = [0.01, SEEN_MM].map((farMm) => {
          const [comes, goes] = [direction(start, -2, farMm) + Math.PI, direction(start, 2, farMm)];
          return Math.abs(((((goes - comes) * 180) / Math.PI + 540) % 360) - 180);
        });
        const [x, y] = at(start);
        return { x, y, deg: Math.min(...turns) };
      });
    }),
  );
}

/** Of the corners that are far enough from every other how many have a stone. */
export function cornersSet(set: SetIcon, stones: Flatbush): { wanted: number; missed: readonly Turn[] } {
  const turns = turnsOf(set).filter(({ deg }) => deg >= 15);
  const index = new Flatbush(Math.max(1, turns.length));
  for (const { x, y } of turns) index.add(x, y, x, y);
  if (turns.length === 0) index.add(-1e3, -1e3, -1e3, -1e3);
  index.finish();
  let wanted = 0;
  const missed: Turn[] = [];
  for (const turn of turns) {
    const { x, y, deg } = turn;
    if (deg < TURNS[0] || deg > TURNS[1]) continue;
    const isAlone = index
      .neighbors(x, y, 12, ROOM_MM)
      .every((k) => Math.hypot((turns[k]?.x ?? x) - x, (turns[k]?.y ?? y) - y) < 0.02);
    if (!isAlone) continue;
    wanted++;
    const near = set.stones[stones.neighbors(x, y, 1)[0] ?? -1];
    if (!near || Math.hypot(near.x - x, near.y - y) > ON_CORNER_MM) missed.push(turn);
  }
  return { wanted, missed };
}

/** Where two boundaries leave a place so near to each other that not both have room for the next stone: every such place, mm. */
function sharpPlaces({ edges, width }: PlanarMap): Flatbush {
  const mm = WIDTH_MM / width;
  const legs = new Map<string, { x: number; y: number; ways: number[] }>();
  for (const { path } of edges) {
    const line = Array.from(flattenPath(path, 0.01), (px) => px * mm);
    const leave = (i: number, step: 2 | -2) => {
      const [x = 0, y = 0] = [line[i], line[i + 1]];
      let k = i;
      while (line[k + step] !== undefined && Math.hypot((line[k] ?? 0) - x, (line[k + 1] ?? 0) - y) < 1) k += step;
      const key = `${x.toFixed(3)} ${y.toFixed(3)}`;
      const place = legs.get(key) ?? { x, y, ways: [] };
      place.ways.push(Math.atan2((line[k + 1] ?? 0) - y, (line[k] ?? 0) - x));
      legs.set(key, place);
    };
    const last = line.length - 2;
    leave(0, 2);
    leave(last, -2);
    for (let i = 2; i < last; i += 2) {
      leave(i, 2);
      leave(i, -2);
    }
  }
  const isSharp = (ways: readonly number[]) =>
    ways.some((one, i) => ways.slice(i + 1).some((other) => Math.cos(one - other) > 0.5));
  const sharp = [...legs.values()].filter(({ ways }) => isSharp(ways));
  const index = new Flatbush(Math.max(1, sharp.length));
  for (const { x, y } of sharp.length > 0 ? sharp : [{ x: -1e3, y: -1e3 }]) index.add(x, y, x, y);
  index.finish();
  return index;
}

/**
 * How unevenly stones lie along each boundary between its turns: standard deviation by mean, of stretches with four steps or more.
 * Steps from a stone from which two boundaries leave under less than 60 degrees do not count.
 */
export function variations(map: PlanarMap, stones: readonly Stone[], index: Flatbush): number[] {
  const { edges, width } = map;
  const mm = WIDTH_MM / width;
  const sharp = sharpPlaces(map);
  return edges.flatMap(({ path }) => {
    const line = Array.from(flattenPath(path, 0.01), (px) => px * mm);
    const on: { at: number; stone: Stone }[] = [];
    let at = 0;
    const turns: number[] = [0];
    for (let i = 0; i + 3 < line.length; i += 2) {
      const [ax = 0, ay = 0, bx = 0, by = 0] = line.slice(i, i + 4);
      const length = Math.hypot(bx - ax, by - ay);
      for (const k of index.search(
        Math.min(ax, bx) - 0.02,
        Math.min(ay, by) - 0.02,
        Math.max(ax, bx) + 0.02,
        Math.max(ay, by) + 0.02,
      )) {
        const stone = stones[k];
        if (!stone) continue;
        const t = ((stone.x - ax) * (bx - ax) + (stone.y - ay) * (by - ay)) / length ** 2;
        const off = Math.abs((stone.x - ax) * (by - ay) - (stone.y - ay) * (bx - ax)) / length;
        if (t >= 0 && t < 1 && off < 0.01 && on.every((one) => one.stone !== stone))
          on.push({ at: at + t * length, stone });
      }
      at += length;
      const [cx = bx, cy = by] = line.slice(i + 4, i + 6);
      const turn = Math.abs(
        Math.atan2((bx - ax) * (cy - by) - (by - ay) * (cx - bx), (bx - ax) * (cx - bx) + (by - ay) * (cy - by)),
      );
      if (turn > (20 * Math.PI) / 180) turns.push(at);
    }
    turns.push(at);
    return turns.slice(1).flatMap((end, k) => {
      const own = on
        .filter((one) => one.at >= (turns[k] ?? 0) - 0.05 && one.at <= end + 0.05)
        .filter(({ stone: { x, y } }) => sharp.search(x - 0.05, y - 0.05, x + 0.05, y + 0.05).length === 0)
        .sort((a, b) => a.at - b.at);
      // Where another row passes, or stands in the way of the next stone, there is a break.
      const runs: number[][] = [[]];
      own.slice(1).forEach(({ stone: { x, y } }, i) => {
        const before = own[i]?.stone ?? { x, y };
        const step = Math.hypot(x - before.x, y - before.y);
        // A step on from either stone another's is nearer than the least gap.
        const isBlocked = [ROOM_MM / step, 1 - ROOM_MM / step].some((t) =>
          index.neighbors(before.x + (x - before.x) * t, before.y + (y - before.y) * t, 6, ROOM_MM).some((k) => {
            const other = stones[k];
            const place = [before.x + (x - before.x) * t, before.y + (y - before.y) * t] as const;
            if (!other || other === own[i]?.stone || other === own[i + 1]?.stone) return false;
            return Math.hypot(other.x - place[0], other.y - place[1]) < diameterOf(SIZE) + GAPS.leastMm;
          }),
        );
        if (step > 1.5 * ROOM_MM || (isBlocked && step > 1.02 * ROOM_MM)) runs.push([]);
        else runs.at(-1)?.push(step);
      });
      return runs
        .filter((run) => run.length >= 4)
        .map((run) => {
          const mean = run.reduce((sum, step) => sum + step, 0) / run.length;
          return Math.sqrt(run.reduce((sum, step) => sum + (step - mean) ** 2, 0) / run.length) / mean;
        });
    });
  });
}

export async function measureStones(icons: readonly Icon[], tell: (line: string) => void = () => {}): Promise<void> {
  let [count, gap, wanted, missed, stretches, uneven, worst] = [0, Number.POSITIVE_INFINITY, 0, 0, 0, 0, 0];
  const over: Record<string, number> = { 0.5: 0, 0.25: 0, 0: 0 };
  for (const { name, svg } of icons) {
    await new Promise(setImmediate);
    const traced = traceIcon(svg);
    const set = setIcon(traced);
    for (const share of Object.keys(over))
      over[share] = Math.max(over[share] ?? 0, mostOver(setIcon(traced, Number(share))));
    const { map, stones } = set;
    if (stones.length < 2) continue;
    const index = new Flatbush(stones.length);
    for (const { x, y } of stones) index.add(x, y, x, y);
    index.finish();
    count += stones.length;
    gap = Math.min(gap, leastGap(stones, index));
    const corners = cornersSet(set, index);
    wanted += corners.wanted;
    missed += corners.missed.length;
    const all = variations(map, stones, index);
    stretches += all.length;
    uneven += all.filter((one) => one > 0.08).length;
    worst = Math.max(worst, ...all);
    if (corners.missed.length > 0 || all.some((one) => one > 0.08))
      tell(
        `${name}: ${corners.missed.length} of ${corners.wanted} corners without a stone; unevenness up to ${Math.max(0, ...all).toFixed(3)}`,
      );
  }
  console.table({
    [`stones (${SIZE}) on ${icons.length} icons, 6 in wide`]: count,
    "least gap between two, mm": Number(gap.toFixed(4)),
    "corners far enough from every other": wanted,
    "... without a stone within 0.05 mm": missed,
    "stretches between turns": stretches,
    "... uneven by more than 0.08": uneven,
    "most uneven": Number(worst.toFixed(3)),
    ...Object.fromEntries(
      Object.entries(over).map(([share, mm]) => [
        `over the design's edge at most, mm, where ${Number(share) * diameterOf(SIZE)} are allowed`,
        Number(mm.toFixed(3)),
      ]),
    ),
  });
}

/** A field and its outline with so many stones: how much longer eight times as many take. */
export function measureStoneGrowth(): void {
  const set = (side: number) => {
    const from = performance.now();
    const setting = new Setting(GAPS.leastMm);
    const ring = Float64Array.from([0, 0, side, 0, side, side, 0, side]);
    const numbers = { size: SIZE, spotId: "aa0000", angleDeg: 0, gaps: GAPS } as const;
    const line = measureLine([...ring, 0, 0]);
    setRows([{ line, isClosed: true, size: SIZE, spotId: "aa0000", fixed: [] }], setting, GAPS);
    fillInRows([ring], "hexagons", numbers, setting);
    const second = new Setting(GAPS.leastMm);
    fillFromEdge([ring], numbers, second);
    return { stones: setting.stones.length, took: performance.now() - from };
  };
  set(60);
  const [few, many] = [110, 311].map((side) => {
    const runs = [set(side), set(side), set(side)].sort((a, b) => a.took - b.took);
    return runs[1] ?? { stones: 0, took: 1 };
  });
  if (few && many)
    console.table({
      "stones, few": few.stones,
      many: many.stones,
      "times the time": (many.took / few.took).toFixed(1),
    });
}
