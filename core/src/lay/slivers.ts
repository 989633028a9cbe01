// Slivers: where what is laid runs along a boundary, but not quite on it, areas remain that nobody can see. They go to a neighbour.
import { lengthAlong, pathArea, reversePath } from "../geometry/index.ts";
import { type Arrangement, pathOfArc } from "./arrange.ts";
import type { Labels } from "./build-map.ts";
import type { Cells } from "./cells.ts";

/** An area of less than this mean breadth is none, px: a micrometre at full front. */
const SLIVER_PX = 0.006;

/** The labels, but that slivers which were not there before take that of the neighbour with which they share most boundary. */
export function absorbSlivers(arrangement: Arrangement, cells: Cells, labels: Labels): Labels {
  const { arcs, vertices } = arrangement;
  const out = [...labels];
  cells.faces.forEach((_, cell) => {
    const isLaidOn = cells.rings[cell].some((ring) => ring.some((half) => isLaid(arcs[half >> 1])));
    if (!isLaidOn) return;
    let area = 0;
    let around = 0;
    const shared = new Map<number, number>();
    for (const ring of cells.rings[cell])
      for (const half of ring) {
        const path = pathOfArc(arcs[half >> 1], vertices);
        area += pathArea((half & 1) === 0 ? path : reversePath(path));
        const length = lengthAlong(path);
        around += length;
        const beyond = cells.ofHalf[half ^ 1];
        if (beyond !== cell) shared.set(beyond, (shared.get(beyond) ?? 0) + length);
      }
    if (Math.abs(area) * 2 > around * SLIVER_PX) return;
    const [most] = [...shared].sort((a, b) => b[1] - a[1]);
    if (most) out[cell] = out[most[0]];
  });
  return out;
}

function isLaid({ strand, windings }: Arrangement["arcs"][number]): boolean {
  return strand.edge === null || windings.some((w) => w !== 0);
}
