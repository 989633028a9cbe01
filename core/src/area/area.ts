// Areas: what is sewn as one, in millimetres from the design's top left corner.
import { flattenPath, growRegion, lengthAlong, linesOf, polygonPath, toPolygons } from "../geometry/index.ts";
import type { Design } from "../process/index.ts";
import type { Point } from "../raster/index.ts";

/** Outlines are followed to this, mm: a tenth of a thread. */
const FLATTEN_MM = 0.04;

/** A closed line x0 y0 x1 y1 ..., mm; its first point is not repeated. */
export type Ring = Float64Array;

/** A region of one spot that hangs together. */
export interface Area {
  /** Its place among the faces of the traced picture. */
  readonly face: number;
  readonly spotId: string;
  /** Its outline, turning from y to x as delaunator's triangles do, and its holes, turning the other way. */
  readonly rings: readonly Ring[];
  readonly areaMm2: number;
  /** Length round outline and holes. */
  readonly aroundMm: number;
}

/** The areas of all spots that are made, in the order of the picture's faces. */
export function listAreas({ map, spots, widthMm }: Pick<Design, "map" | "spots" | "widthMm">): readonly Area[] {
  const mmPerPx = widthMm / map.width;
  const isSewn = new Set(spots.filter(({ role }) => role === "ink").map(({ id }) => id));
  return map.faces.flatMap(({ spotId, paths }, face): Area[] => {
    if (!isSewn.has(spotId)) return [];
    const rings = paths.map((path) =>
      Float64Array.from(flattenPath(path, FLATTEN_MM / mmPerPx).slice(0, -2), (px) => px * mmPerPx),
    );
    return [withoutSlivers(makeArea(face, spotId, rings))];
  });
}

/** An area of outlines that all turn one way, and holes that turn the other. */
export function makeArea(face: number, spotId: string, outlines: readonly Ring[]): Area {
  const rings = turnAlike(outlines);
  return {
    ...{ face, spotId, rings },
    areaMm2: Math.abs(rings.reduce((sum, ring) => sum + ringArea(ring), 0)),
    aroundMm: rings.reduce((sum, ring) => sum + lengthAlong(closed(ring)), 0),
  };
}

/** Outlines and holes turn opposite ways already; which way outlines turn shows in the whole. */
function turnAlike(rings: readonly Ring[]): readonly Ring[] {
  return rings.reduce((sum, ring) => sum + ringArea(ring), 0) > 0 ? rings.map(reversed) : rings;
}

function reversed(ring: Ring): Ring {
  const back = new Float64Array(ring.length);
  for (let i = 0; i < ring.length; i += 2) back.set(ring.subarray(i, i + 2), ring.length - 2 - i);
  return back;
}

/** How exactly outlines are moved inwards or outwards, mm. */
const MOVE_MM = 0.02;

/** The rings of an area that is smaller by `byMm` all round, or larger if that is negative. */
export function insetRings(rings: readonly Ring[], byMm: number): Ring[] {
  const region = toPolygons(
    rings.map((ring) => polygonPath(Array.from(ring))),
    MOVE_MM,
  );
  return linesOf(growRegion(region, -byMm, MOVE_MM)).map((line) => Float64Array.from(line));
}

/** The ring with its first point again at its end. */
export function closed(ring: Ring): Float64Array {
  const line = new Float64Array(ring.length + 2);
  line.set(ring);
  line.set(ring.subarray(0, 2), ring.length);
  return line;
}

/** What is thinner than a thread, mm, comes of how edges were traced where it hangs on something wider... */
const SLIVER_MM = 0.3;
/** ... which is what it is if no more than this share of an area goes with it (our own). */
const SLIVER_SHARE = 0.03;

/** An area without what hangs on it and is too thin to be sewn (opening: Matheron 1975); one that is thin altogether stays. */
function withoutSlivers(area: Area): Area {
  const inner = insetRings(area.rings, SLIVER_MM / 2);
  if (inner.length === 0) return area;
  const opened = makeArea(area.face, area.spotId, insetRings(inner, -SLIVER_MM / 2));
  return opened.areaMm2 > (1 - SLIVER_SHARE) * area.areaMm2 ? opened : area;
}

/** Area of a ring with its sign: positive where it turns from x to y. Of an area's rings, outline and holes have opposite ones. */
export function ringArea(ring: Ring): number {
  let twice = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    twice += ring[j] * ring[i + 1] - ring[i] * ring[j + 1];
  return twice / 2;
}

/** Where on a ring or line (x, y pairs) a point lies nearest: the place, how far it is, and the side it is on. */
export function nearestOn(line: Float64Array, { x, y }: Point): { place: Point; away: number; side: number } {
  let best = { place: { x: line[0], y: line[1] }, away: Number.POSITIVE_INFINITY, side: 0 };
  for (let i = 0; i + 3 < line.length; i += 2) {
    const [dx, dy] = [line[i + 2] - line[i], line[i + 3] - line[i + 1]];
    const along = (x - line[i]) * dx + (y - line[i + 1]) * dy;
    const t = Math.min(1, Math.max(0, along / (dx * dx + dy * dy || 1)));
    const place = { x: line[i] + t * dx, y: line[i + 1] + t * dy };
    const away = Math.sqrt((x - place.x) ** 2 + (y - place.y) ** 2);
    if (away < best.away) best = { place, away, side: i / 2 };
  }
  return best;
}

/** A ring as a closed line that begins and ends at a place on it. */
function begunAt(ring: Ring, { place: { x, y }, side }: { place: Point; side: number }): Float64Array {
  const start = ((side + 1) * 2) % ring.length;
  return Float64Array.from([x, y, ...ring.subarray(start), ...ring.subarray(0, start), x, y]);
}

/** Rings as closed lines, each begun where it is nearest to the end of the one before. */
export function nearestFirst(rings: readonly Ring[], from: Point): Float64Array[] {
  const left = [...rings];
  let at = from;
  const lines: Float64Array[] = [];
  while (left.length > 0) {
    const found = left
      .map((ring, i) => ({ i, ...nearestOn(closed(ring), at) }))
      .reduce((best, one) => (one.away < best.away ? one : best));
    const [ring] = left.splice(found.i, 1);
    lines.push(begunAt(ring, found));
    at = found.place;
  }
  return lines;
}

/** Whether a place lies in an area, by even-odd. */
export function holdsPlace(rings: readonly Ring[], { x, y }: Point): boolean {
  let isInside = false;
  for (const ring of rings)
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j], ring[j + 1], ring[i], ring[i + 1]];
      if (ay > y !== by > y && ax + ((y - ay) / (by - ay)) * (bx - ax) > x) isInside = !isInside;
    }
  return isInside;
}
