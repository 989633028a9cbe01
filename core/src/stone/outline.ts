// Stones along the outlines of areas: on them, or inside by half a stone; where two areas meet, one row and not two.
import { closed, insetRings, measureLine, type Ring } from "../area/index.ts";
import { flattenPath } from "../geometry/index.ts";
import { halfEdgePath, type PlanarMap } from "../trace/index.ts";
import { diameterOf, type StoneSize } from "../trade/index.ts";
import type { Row } from "./stones.ts";

/** How finely curves are followed, mm. */
const FLATTEN_MM = 0.01;

/** An area whose outline is set. */
export interface Outlined {
  readonly face: number;
  readonly spotId: string;
  readonly size: StoneSize;
}

/**
 * The rows on the outlines of some areas: of a boundary between two of them the first's alone; none round a face that stones in it
 * stand for.
 */
export function rowsOnOutlines(
  map: PlanarMap,
  widthMm: number,
  areas: readonly Outlined[],
  standing: ReadonlySet<number>,
): Row[] {
  const mmPerPx = widthMm / map.width;
  const isSet = Uint8Array.from(map.edges, ({ left, right }) => (standing.has(left) || standing.has(right) ? 1 : 0));
  return areas.flatMap(({ face, spotId, size }) =>
    (map.faces[face]?.rings ?? []).flatMap((ring) =>
      openRuns(ring, isSet).map(({ halves, isClosed }): Row => {
        for (const half of halves) isSet[half >> 1] = 1;
        const points = halves.flatMap((half, k) => {
          const line = flattenPath(halfEdgePath(map, half), FLATTEN_MM / mmPerPx);
          return Array.from(k === 0 ? line : line.slice(2), (px) => px * mmPerPx);
        });
        return { line: measureLine(points), isClosed, size, spotId, fixed: [] };
      }),
    ),
  );
}

/** Of a ring of half-edges what is not set yet: all of it, or runs between what is. */
function openRuns(ring: Int32Array, isSet: Uint8Array): { halves: number[]; isClosed: boolean }[] {
  const n = ring.length;
  const first = ring.findIndex((half) => isSet[half >> 1] === 1);
  if (first < 0) return [{ halves: [...ring], isClosed: true }];
  const runs: number[][] = [];
  for (let k = 1, isOpen = false; k < n; k++) {
    const half = ring[(first + k) % n];
    if (isSet[half >> 1] === 1) isOpen = false;
    else if (isOpen) runs[runs.length - 1].push(half);
    else {
      runs.push([half]);
      isOpen = true;
    }
  }
  return runs.map((halves) => ({ halves, isClosed: false }));
}

/** The rows inside an area's outlines, stones touching them. */
export function rowsInside(rings: readonly Ring[], spotId: string, size: StoneSize): Row[] {
  const inner = insetRings(rings, diameterOf(size) / 2);
  return inner.map((ring) => ({ line: measureLine(closed(ring)), isClosed: true, size, spotId, fixed: [] }));
}
