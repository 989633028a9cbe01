// Which boundaries are as they were: where nothing near them has changed, what was read of them holds. So an area given
// another spot costs what lies round it, and not the whole picture.
import { eachDifference, type LabelMap } from "../../raster/index.ts";
import type { BoundaryPoints } from "./boundary.ts";
import type { Chain, ChainGraph } from "./chains.ts";
import type { LabelReading } from "./label-reading.ts";
import { isOnPictureEdge } from "./picture-edge.ts";
import type { TracedPicture } from "./traced-picture.ts";

/** Side of the tiles in which changes are noted, px: more than a boundary is read to either side. */
const TILE_PX = 16;

/** The chains of the last reading that a picture's chains equal, by number, or -1. */
export interface SameChains {
  /** Those that run along the same cracks. */
  readonly walked: Int32Array;
  /** Of them those near which nothing has changed. */
  readonly untouched: Int32Array;
}

/** Compares chains with those of the last reading; null if that was of another picture. */
export function findSameChains(picture: TracedPicture, graph: ChainGraph, last: LabelReading): SameChains | null {
  const before = last.picture;
  const isSamePicture =
    picture.raster === before.raster &&
    picture.found === before.found &&
    picture.noise === before.noise &&
    picture.spots.data.length === before.spots.data.length &&
    JSON.stringify(picture.spotColours) === JSON.stringify(before.spotColours);
  if (!isSamePicture) return null;
  const changed = markChanges(picture, before);
  const { width, height } = picture.spots;
  const across = Math.ceil(width / TILE_PX);
  const known = new Map<string, number>();
  for (const [e, chain] of last.graph.chains.entries()) known.set(nameOf(chain), e);
  const walked = Int32Array.from(graph.chains, (chain) => {
    const e = known.get(nameOf(chain)) ?? -1;
    if (e < 0) return -1;
    const { corners } = chain;
    const old = last.graph.chains[e].corners;
    // On the picture's own edge nothing is read.
    if (isOnPictureEdge(chain, width, height) !== isOnPictureEdge(last.graph.chains[e], width, height)) return -1;
    for (let i = 0; i < corners.length; i++) if (corners[i] !== old[i]) return -1;
    return e;
  });
  const untouched = walked.map((e, i) => {
    const { corners } = graph.chains[i];
    for (let k = 0; e >= 0 && k < corners.length; k += 2) {
      const tile = Math.floor(corners[k + 1] / TILE_PX) * (across + 1) + Math.floor(corners[k] / TILE_PX);
      if (changed[tile] === 1) return -1;
    }
    return e;
  });
  return { walked, untouched };
}

/** The last reading of a boundary, if the new one says the same: then its curve need not be fitted again. */
export function sameReading(now: BoundaryPoints, last: BoundaryPoints): BoundaryPoints {
  const isSame =
    now.isHard === last.isHard &&
    now.isExact === last.isExact &&
    now.points.length === last.points.length &&
    now.points.every((v, i) => v === last.points[i]);
  return isSame ? last : now;
}

/** Whether a chain's ends lie where they lay; a loop has none. */
export function hasSameEnds(chain: Chain, vertices: Float64Array, last: LabelReading, e: number): boolean {
  const before = last.graph.chains[e];
  const isSame = (now: number, old: number) =>
    now < 0
      ? old < 0
      : old >= 0 &&
        vertices[now * 2] === last.vertices[old * 2] &&
        vertices[now * 2 + 1] === last.vertices[old * 2 + 1];
  return isSame(chain.start, before.start) && isSame(chain.end, before.end);
}

/** Where a chain begins and how it goes on; two of a picture never share all of it. */
function nameOf({ corners, start }: Chain): string {
  return `${corners[0]} ${corners[1]} ${corners[2]} ${corners[3]} ${corners.length} ${start < 0}`;
}

/** 1 for every tile with a changed pixel in it or in a tile beside it; a column and a row more than the picture needs. */
function markChanges(picture: TracedPicture, before: TracedPicture): Uint8Array {
  const { width, height } = picture.spots;
  const across = Math.ceil(width / TILE_PX) + 1;
  const down = Math.ceil(height / TILE_PX) + 1;
  const changed = new Uint8Array(across * down);
  const mark = (a: LabelMap, b: LabelMap) => {
    if (a.data === b.data) return;
    eachDifference(a, b, (p) => {
      const x = p % width;
      changed[Math.floor((p - x) / width / TILE_PX) * across + Math.floor(x / TILE_PX)] = 1;
    });
  };
  mark(picture.spots, before.spots);
  mark(picture.assigned, before.assigned);
  const near = new Uint8Array(changed.length);
  for (let t = 0; t < changed.length; t++) {
    if (changed[t] === 0) continue;
    for (const beside of [0, -1, 1, -across, across, -across - 1, -across + 1, across - 1, across + 1])
      if (t + beside >= 0 && t + beside < near.length) near[t + beside] = 1;
  }
  return near;
}
