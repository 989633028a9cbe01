// Booleans: cubic regions are flattened, handed to the polygon library on an integer grid, and brought back.
import {
  areaPaths,
  booleanOp,
  ClipType,
  EndType,
  FillRule,
  getBounds,
  inflatePaths,
  JoinType,
  type Path64,
  type Paths64,
  PointInPolygonResult,
  pointInPolygon,
  type Rect64,
  Rect64Utils,
  ramerDouglasPeucker,
} from "clipper2-ts";
import type { Crossings } from "./across.ts";
import { type CubicPath, flattenPath } from "./cubic-path.ts";
import { groupTouching, type RingGroup } from "./groups.ts";
import { indexBounds } from "./index-bounds.ts";

/** Polygons on the library's integer grid; holes by fill rule. */
export type Polygons = Paths64;

/**
 * Grid steps in a source pixel: at 300 dpi a step is a fiftieth of a micrometre. Products of two coordinates of the largest
 * picture taken in still fit a double exactly.
 */
const STEPS_PER_PX = 4096;
/** Mean width of a ring, in grid steps, up to which it is no region and no hole. */
const SLIT_STEPS = 4;
/** Side of the blocks in which what is local is clipped. */
const BLOCK_PX = 32;

/** Flattens closed paths (source pixels) to polygons that stay within `tolerancePx` of them. */
export function toPolygons(paths: readonly CubicPath[], tolerancePx: number): Polygons {
  const polygons: Polygons = [];
  for (const path of paths) {
    const points = flattenPath(path, tolerancePx);
    // A ring's last point is its first, once.
    points.length -= 2;
    polygons.push(layOnGrid(points));
  }
  return polygons;
}

/** A coordinate in source pixels as its grid step, and back. */
export function toGrid(px: number): number {
  return Math.round(px * STEPS_PER_PX);
}
export function fromGrid(step: number): number {
  return step / STEPS_PER_PX;
}

/** Points x0 y0 x1 y1 ... in source pixels, on the grid. */
function layOnGrid(points: ArrayLike<number>): Path64 {
  const out: Path64 = [];
  for (let i = 0; i < points.length; i += 2) out.push({ x: toGrid(points[i]), y: toGrid(points[i + 1]) });
  return out;
}

/** Rings as points x, y, ... in source pixels; the first is not repeated. */
export function linesOf(polygons: Polygons): number[][] {
  return polygons.map((ring) => ring.flatMap(({ x, y }) => [fromGrid(x), fromGrid(y)]));
}

/**
 * Everything that lies in any of the regions, whatever their overlaps. In each region all outlines turn one way and holes the
 * other; which way may differ from region to region, so that they are turned alike first: else they would cancel out.
 */
export function unite(...regions: Polygons[]): Polygons {
  return groupTouching(regions.flatMap(turnPositive).filter((ring) => ring.length > 2))
    .flatMap(uniteGroup)
    .filter((ring) => !isSlit(ring));
}

/** How far a frame lies off what it is drawn round, in grid steps. */
const FRAME_STEPS = 4096;

/** The outlines that a group makes where all others lie: each part of the plane is filled round which any outline winds. */
function uniteGroup({ rings, winding }: RingGroup): Polygons {
  if (winding === 0) return booleanOp(ClipType.Union, rings, null, FillRule.NonZero);
  const { left, top, right, bottom } = rings.map((ring) => getBounds(ring)).reduce(around);
  const [x0, y0, x1, y1] = [left - FRAME_STEPS, top - FRAME_STEPS, right + FRAME_STEPS, bottom + FRAME_STEPS];
  const corners = [
    { x: x0, y: y0 },
    { x: x1, y: y0 },
    { x: x1, y: y1 },
    { x: x0, y: y1 },
  ];
  const frame = winding > 0 ? corners : corners.reverse();
  const frames = Array.from({ length: Math.abs(winding) }, () => frame);
  const united = booleanOp(ClipType.Union, [...rings, ...frames], null, FillRule.NonZero);
  return united.filter((ring) => !ring.some(({ x }) => x === x0));
}

/** Whether a ring is only what rounding to the grid opened between two edges that are one. */
function isSlit(ring: Path64): boolean {
  return 2 * Math.abs(areaPaths([ring])) < SLIT_STEPS * lengthAround(ring);
}

function lengthAround(ring: Path64): number {
  let around = 0;
  let before = ring[ring.length - 1];
  for (const point of ring) {
    around += Math.sqrt(distance2(point, before));
    before = point;
  }
  return around;
}

/** What lies in both; each right by non-zero winding. Cost grows with the square of what lies side by side. */
export function intersect(subject: Polygons, clip: Polygons): Polygons {
  return booleanOp(ClipType.Intersection, subject, clip, FillRule.NonZero);
}

/**
 * The same for many small regions, each with what of `clip` is near it: cost grows with what there is, not with its square.
 * Where regions overlap, so do their parts.
 */
export function intersectEach(regions: Polygons, clip: Polygons): Polygons {
  const boundsOf: Rect64[] = [];
  for (const ring of clip) boundsOf.push(getBounds(ring));
  const parts: Polygons = [];
  for (let k = 0; k < regions.length; ) {
    let bounds = getBounds(regions[k]);
    const batch = [regions[k]];
    for (k++; k < regions.length; k++) {
      const more = around(bounds, getBounds(regions[k]));
      if (Math.max(Rect64Utils.width(more), Rect64Utils.height(more)) > BLOCK_PX * STEPS_PER_PX) break;
      bounds = more;
      batch.push(regions[k]);
    }
    const near: Polygons = [];
    for (let r = 0; r < clip.length; r++) {
      if (!Rect64Utils.intersects(bounds, boundsOf[r])) continue;
      const ring = shortenOutside(clip[r], bounds);
      if (ring.length > 2) near.push(ring);
    }
    for (const polygon of intersect(batch, near)) parts.push(polygon);
  }
  return parts;
}

/**
 * The ring without points that, with those before and after them, lie on one side of a block: inside it the ring is as it was.
 * No edge is cut, so that none is moved by the grid.
 */
function shortenOutside(ring: Path64, block: Rect64): Path64 {
  const out = [ring[0]];
  let before = sidesBeyond(ring[0], block);
  let own = sidesBeyond(ring[1], block);
  for (let i = 1; i < ring.length; i++) {
    const after = sidesBeyond(ring[i + 1 < ring.length ? i + 1 : 0], block);
    if ((before & own & after) === 0) {
      out.push(ring[i]);
      before = own;
    }
    own = after;
  }
  return out;
}

/** A bit for each side of a block beyond which a point lies. */
function sidesBeyond({ x, y }: Path64[number], { left, top, right, bottom }: Rect64): number {
  return (x < left ? 1 : 0) | (x > right ? 2 : 0) | (y < top ? 4 : 0) | (y > bottom ? 8 : 0);
}

function around(a: Rect64, b: Rect64): Rect64 {
  return Rect64Utils.create(
    Math.min(a.left, b.left),
    Math.min(a.top, b.top),
    Math.max(a.right, b.right),
    Math.max(a.bottom, b.bottom),
  );
}

/**
 * The rings of a region whose bounds come within `reachPx` of indexed lines, and the others. Within that reach, and where an
 * outline goes with its holes, the first are all that matters.
 */
export function partByReach(
  region: Polygons,
  { index }: Crossings,
  reachPx: number,
): { readonly near: Polygons; readonly far: Polygons } {
  const near: Polygons = [];
  const far: Polygons = [];
  for (const ring of region) {
    const { left, top, right, bottom } = getBounds(ring);
    const found = index?.search(
      fromGrid(left) - reachPx,
      fromGrid(top) - reachPx,
      fromGrid(right) + reachPx,
      fromGrid(bottom) + reachPx,
    );
    (found && found.length > 0 ? near : far).push(ring);
  }
  return { near, far };
}

/** What lies in the first and not in the second; each right by non-zero winding. */
export function subtract(subject: Polygons, clip: Polygons): Polygons {
  return booleanOp(ClipType.Difference, subject, clip, FillRule.NonZero);
}

/**
 * Everything within `byPx` of lines x, y, ... (cut off at their ends, or round them), and the gaps in between that are narrower than `gapPx`
 * (closing: Matheron 1975); drawn within `tolerancePx`.
 */
export function widenLines(
  lines: readonly (readonly number[])[],
  byPx: number,
  gapPx: number,
  tolerancePx: number,
  ends: "round" | "cut off" = "round",
): Polygons {
  const share = tolerancePx / 2;
  const spread = (polygons: Polygons, px: number, end: EndType) =>
    inflatePaths(polygons, toGrid(px), JoinType.Round, end, 2, toGrid(share)).map((ring) => thinRing(ring, share));
  const end = ends === "round" ? EndType.Round : EndType.Butt;
  // Each alone first: all at once cost grows with their square.
  const wide = lines.map((line) => spread([dropIdlePoints(layOnGrid(line), share)], byPx + gapPx / 2, end));
  const united = unite(...wide);
  return gapPx > 0 ? spread(united, -gapPx / 2, EndType.Polygon) : united;
}

/** Of what a grown region may be off, the share that points may lie beside it that are left out: half would shrink outlines visibly. */
const IDLE_SHARE = 1 / 8;

/** A region grown by `byPx` on all sides, or smaller if that is negative, within `tolerancePx`; sharp corners are cut off at twice that. */
export function growRegion(
  region: Polygons,
  byPx: number,
  tolerancePx: number,
  corners: "round" | "sharp" = "round",
): Polygons {
  const join = corners === "round" ? JoinType.Round : JoinType.Miter;
  // As many points again lie at corners that are hardly any: whoever works on with it would pay for them.
  const share = tolerancePx * IDLE_SHARE;
  return inflatePaths(unite(region), toGrid(byPx), join, EndType.Polygon, 2, toGrid(tolerancePx - share)).flatMap(
    (ring) => {
      const thin = thinRing(ring, share);
      return thin.length < 3 ? [] : [thin];
    },
  );
}

/** A ring without those of its points that lie within `tolerancePx` of it anyway. */
function thinRing(ring: Path64, tolerancePx: number): Path64 {
  return dropIdlePoints([...ring, ring[0]], tolerancePx).slice(0, -1);
}

/**
 * A line of grid points without those that lie within `tolerancePx` of it anyway (Douglas & Peucker 1973); its ends stay,
 * and of a ring the point farthest from them.
 */
export function dropIdlePoints(line: Path64, tolerancePx: number): Path64 {
  if (line.length < 3) return line;
  const [first, last] = [line[0], line[line.length - 1]];
  if (first.x !== last.x || first.y !== last.y) return ramerDouglasPeucker(line, tolerancePx * STEPS_PER_PX);
  let far = 0;
  for (let i = 1; i < line.length; i++) if (distance2(line[i], first) > distance2(line[far], first)) far = i;
  if (far === 0) return line;
  const halves = [line.slice(0, far + 1), line.slice(far)];
  const [there, back] = halves.map((half) => ramerDouglasPeucker(half, tolerancePx * STEPS_PER_PX));
  return [...there, ...back.slice(1)];
}

function distance2(a: Path64[number], b: Path64[number]): number {
  return (a.x - b.x) ** 2 + (a.y - b.y) ** 2;
}

/** The region with its outlines turning the positive way: outlines enclose more than holes take away. */
export function turnPositive(region: Polygons): Polygons {
  return areaPaths(region) < 0 ? region.map((polygon) => [...polygon].reverse()) : region;
}

/**
 * A united region with those of its holes filled that are small by their area and the length round them (source pixels): wholly,
 * or as far as they lie in `within`, polygons right by non-zero winding, which is asked for only if there are such holes.
 */
export function fillHoles(
  region: Polygons,
  isSmall: (areaPx: number, aroundPx: number) => boolean,
  within?: () => Polygons,
): Polygons {
  const areas = region.map((ring) => areaPaths([ring]));
  const holes = region.filter(
    (ring, i) => areas[i] < 0 && isSmall(-areas[i] / STEPS_PER_PX ** 2, lengthAround(ring) / STEPS_PER_PX),
  );
  if (holes.length === 0) return region;
  const largest = holes.reduce((most, hole) => Math.max(most, -areaPaths([hole])), 0);
  const clip = within?.();
  const filled: Polygons = [];
  // Most lie in it as they are, and go with their ring and what lies in them.
  const gone = holes.filter((hole) => {
    if (!clip) return true;
    const inside = intersectEach(turnPositive([hole]), clip);
    if (areaPaths(inside) >= -areaPaths([hole])) return true;
    for (const ring of inside) filled.push(ring);
    return false;
  });
  const isGone = (ring: Path64, i: number) =>
    areas[i] < 0 ? gone.includes(ring) : areas[i] < largest && gone.some((hole) => liesIn(ring, hole));
  const kept = region.filter((ring, i) => !isGone(ring, i));
  return filled.length > 0 ? unite(kept, filled) : kept;
}

/** Of a united region the pieces that hold one of the rings of `seeds`, which lie in it, with their holes. */
export function keepHolding(region: Polygons, seeds: Polygons): Polygons {
  const outlines = region.filter((ring) => areaPaths([ring]) > 0);
  if (outlines.length < 2) return region;
  const index = indexBounds(outlines.map((ring) => getBounds(ring)));
  const isHeld = new Uint8Array(outlines.length);
  for (const [first] of seeds)
    for (const k of index.search(first.x, first.y, first.x, first.y))
      if (pointInPolygon(first, outlines[k]) !== PointInPolygonResult.IsOutside) isHeld[k] = 1;
  const gone = outlines.filter((_, k) => isHeld[k] === 0);
  if (gone.length === 0) return region;
  return region.filter(
    (ring) => !gone.some((other) => ring === other || (areaPaths([ring]) < 0 && liesIn(ring, other))),
  );
}

/** Whether a ring that does not cross another lies inside it. */
function liesIn(ring: Path64, other: Path64): boolean {
  return ring.every((point) => pointInPolygon(point, other) !== PointInPolygonResult.IsOutside);
}

/** Area in square source pixels; holes count against. */
export function polygonsArea(polygons: Polygons): number {
  return Math.abs(areaPaths(polygons)) / (STEPS_PER_PX * STEPS_PER_PX);
}
