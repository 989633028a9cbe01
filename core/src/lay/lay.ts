// Laying outlines into a planar map: the one exact operation behind every edit by hand. A planar map again.
import {
  type CubicPath,
  isClosed,
  isLine,
  pathArea,
  polygonPath,
  reversePath,
  segmentCount,
} from "../geometry/index.ts";
import { type MapFace, type PlanarMap, spotOf } from "../trace/index.ts";
import { arrange, type Laid } from "./arrange.ts";
import { buildMap } from "./build-map.ts";
import { findCells } from "./cells.ts";
import { followHalves } from "./follow.ts";
import { absorbSlivers } from "./slivers.ts";

/** One of the areas into which what is laid and the map's boundaries divide the picture. */
export interface Cell {
  /** The face that was there, or BARE. */
  readonly face: number;
  /** Its spot; null where nothing was. */
  readonly spotId: string | null;
  /** How often each outline winds round it, by its number; positive where it turns as the outer rings of faces do. */
  readonly windings: readonly number[];
}

/** What is laid, and what becomes of every area: a spot, or null for the garment. */
export interface Laying {
  readonly laid: readonly Laid[];
  decide(cell: Cell): string | null;
  /** Whether cuts part shapes of this spot; all, if nothing is said. */
  keepsCut?(spotId: string): boolean;
}

/** How far what is laid is nudged, px, where curves lie so that their order cannot be told; each time farther. */
const NUDGE_PX = 0.0013;
const NUDGES = 5;
/** Shares of it for one number after another; eleven, so that no two nodes of a small figure go the same way. */
const NUDGE_WAYS = [0.31, -0.83, 1, 0.57, -0.43, 0.91, -0.67, 0.13, 0.71, -1, 0.37] as const;

/**
 * Lays outlines into a map. What they do not touch keeps its last digit; boundaries that part nothing any more are gone.
 * Outlines end at the picture's edge. Null where they cannot be laid at all.
 */
export function layOutlines<M extends PlanarMap>(map: M, laying: Laying): M | null {
  const { laid } = laying;
  const frame: Laid = { paths: [pictureFrame(map)] };
  for (let nudge = 0; nudge < NUDGES; nudge++) {
    const moved = nudge === 0 ? laid : laid.map((one) => ({ ...one, paths: one.paths.map(nudgeBy(nudge)) }));
    const beyond = reachesOut(map, moved);
    const done = layOnce(map, beyond ? [...moved, frame] : moved, laying, beyond);
    if (done) return done;
  }
  return null;
}

/** Every point a little aside, each another way, so that what ran along itself no longer does. */
function nudgeBy(times: number): (path: CubicPath) => CubicPath {
  return (path) => {
    const out = path.map((v, i) => v + times * NUDGE_PX * NUDGE_WAYS[i % NUDGE_WAYS.length]);
    if (isClosed(path)) out.copyWithin(out.length - 2, 0, 2);
    for (let s = 0; s < segmentCount(path); s++)
      if (isLine(path, s)) {
        out.copyWithin(s * 6 + 2, s * 6, s * 6 + 2);
        out.copyWithin(s * 6 + 4, s * 6 + 6, s * 6 + 8);
      }
    return out;
  };
}

function layOnce<M extends PlanarMap>(
  map: M,
  laid: readonly Laid[],
  { decide, keepsCut = () => true }: Laying,
  hasFrame: boolean,
): M | null {
  const arrangement = arrange(map, laid);
  const next = followHalves(map, arrangement);
  const cells = findCells(map, arrangement, next, laid.length);
  if (!cells) return null;
  const labels = cells.faces.map((face, cell) => {
    const spotId = spotOf(map, face);
    const windings = cells.windings[cell];
    // Beyond the picture's edge nothing is laid.
    if (hasFrame && windings[laid.length - 1] === 0) return null;
    return decide({ face, spotId, windings });
  });
  const made = buildMap(map, arrangement, next, cells, absorbSlivers(arrangement, cells, labels), keepsCut);
  const old = new Set(map.faces.map(({ paths }) => paths));
  return made.faces.every((face) => old.has(face.paths) || hasOneOutline(face)) ? made : null;
}

/** Whether a face has a ring round it, and but one: curves that graze each other can turn a sliver inside out. */
function hasOneOutline({ paths }: MapFace): boolean {
  return paths.filter((path) => pathArea(path) < 0).length === 1;
}

function reachesOut({ width, height }: PlanarMap, laid: readonly Laid[]): boolean {
  return laid.some(({ paths }) =>
    paths.some((path) => path.some((v, i) => v < 0 || v > (i % 2 === 0 ? width : height))),
  );
}

/** The picture's own rectangle, as an outer ring. */
function pictureFrame({ width, height }: PlanarMap): CubicPath {
  return reversePath(polygonPath([0, 0, width, 0, width, height, 0, height]));
}
