// In which order colours are sewn: what is narrow over what is wide, so that lettering and outlines stand on their ground.
import { flattenPath, lengthAlong } from "../geometry/index.ts";
import type { PlanarMap } from "../trace/index.ts";
import type { MeasuredArea } from "./propose-sewing.ts";

/** How finely a boundary's length is measured, px. */
const FLATTEN_PX = 0.25;

/**
 * Ids of spots in the order in which they are proposed to be sewn. Wherever two areas meet the narrower wants to be later, as
 * much as they meet and as much narrower as it is; the order goes against as little of that as moving one colour at a time can
 * find. Our own.
 */
export function proposeColours(areas: readonly MeasuredArea[], map: PlanarMap): readonly string[] {
  const ids = [...new Set(areas.map(({ spotId }) => spotId))];
  const areaOf = new Map(areas.map((area) => [area.face, area]));
  const wish = new Map<string, number>();
  for (const { left, right, path } of map.edges) {
    const [a, b] = [areaOf.get(left), areaOf.get(right)];
    if (!a || !b || a.spotId === b.spotId) continue;
    const narrower = (a.widthMm - b.widthMm) / (a.widthMm + b.widthMm);
    const weight = lengthAlong(flattenPath(path, FLATTEN_PX)) * narrower;
    add(wish, `${a.spotId} ${b.spotId}`, weight);
    add(wish, `${b.spotId} ${a.spotId}`, -weight);
  }
  /** What is gained by sewing one before the other. */
  const gain = (before: string, after: string) => wish.get(`${before} ${after}`) ?? 0;
  const size = new Map<string, number>();
  for (const { spotId, areaMm2 } of areas) add(size, spotId, areaMm2);
  const order = ids.sort((a, b) => (size.get(b) ?? 0) - (size.get(a) ?? 0) || (a < b ? -1 : 1));
  for (let isBetter = true; isBetter; ) {
    isBetter = false;
    for (let from = 0; from < order.length; from++) {
      const [moved] = order.splice(from, 1);
      // Of all places the one with the most gained before and after it; where it was, if none is better.
      const gains = Array.from({ length: order.length + 1 }, (_, at) =>
        order.reduce((sum, other, i) => sum + (i < at ? gain(other, moved) : gain(moved, other)), 0),
      );
      const best = Math.max(...gains);
      const to = best > gains[from] + 1e-6 ? gains.indexOf(best) : from;
      order.splice(to, 0, moved);
      if (to !== from) isBetter = true;
    }
  }
  return order;
}

function add(sums: Map<string, number>, key: string, value: number): void {
  sums.set(key, (sums.get(key) ?? 0) + value);
}
