// How a sheet is cut: contours in millimetres on the cutter's sheet, in the order in which the blade takes them.
import { type CubicPath, flattenPath, lengthAlong, lengthOf, pathArea } from "../geometry/index.ts";

/** One cut, from where the blade goes down to where it is lifted. */
export interface Contour {
  /** x, y pairs, mm from the lower left corner, y up, unless said otherwise; outlines and holes end where they begin. */
  readonly points: Float64Array;
  readonly kind: "hole" | "outline" | "line";
}

/** Words that a pen writes. */
export interface PenText {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  /** Counterclockwise. */
  readonly turnDeg: number;
  readonly heightMm: number;
}

export interface CutPlan {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Holes come before the outline round them. */
  readonly contours: readonly Contour[];
  /** Of all contours, overcuts not counted. */
  readonly cutLengthMm: number;
  readonly words: readonly PenText[];
}

/** Curves are cut as lines that stay this near, mm: half a step of the plotter language. */
const FLATTEN_MM = 0.0125;

/** The sheet that a region is cut from. */
export interface CutSheet {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly mmPerPx: number;
  readonly isMirrored: boolean;
}

/**
 * Plans the cutting of a region (closed paths in source pixels). Pieces are taken in turn, each the nearest to where the blade
 * was lifted; a piece's holes first, for what is cut round on all sides may slip. Every contour begins at its sharpest corner.
 */
export function planCuts(region: readonly CubicPath[], sheet: CutSheet): CutPlan {
  const { widthPx, heightPx, mmPerPx } = sheet;
  const lines = region.map((path) => ({ path, points: toSheet(path, sheet) }));
  const turn = Math.sign(region.reduce((sum, path) => sum + pathArea(path), 0));
  const isOutline = (path: CubicPath) => Math.sign(pathArea(path)) === turn;
  const pieces = lines
    .filter(({ path }) => isOutline(path))
    .map(({ points }) => ({ outline: points, holes: [] as Float64Array[], area: Math.abs(areaOf(points)) }))
    .sort((a, b) => a.area - b.area);
  for (const { path, points } of lines)
    if (!isOutline(path)) pieces.find(({ outline }) => isInside(outline, points[0], points[1]))?.holes.push(points);
  const contours: Contour[] = [];
  let at: readonly [number, number] = [0, 0];
  const cut = (points: Float64Array, kind: Contour["kind"]) => {
    contours.push({ points, kind });
    at = [points[0], points[1]];
  };
  takeNearest(
    pieces,
    ({ outline }) => outline,
    () => at,
    ({ outline, holes }) => {
      takeNearest(
        holes,
        (hole) => hole,
        () => at,
        (hole) => cut(hole, "hole"),
      );
      cut(outline, "outline");
    },
  );
  return planOf(widthPx * mmPerPx, heightPx * mmPerPx, contours);
}

/** Contours in the order in which they are cut, as a plan. */
export function planOf(
  widthMm: number,
  heightMm: number,
  contours: readonly Contour[],
  words: readonly PenText[] = [],
): CutPlan {
  const cutLengthMm = contours.reduce((sum, { points }) => sum + lengthAlong(points), 0);
  return { widthMm, heightMm, contours, cutLengthMm, words };
}

/** Takes all of a list, the nearest first. */
function takeNearest<T>(
  all: readonly T[],
  pointsOf: (one: T) => Float64Array,
  from: () => readonly [number, number],
  take: (one: T) => void,
): void {
  const left = new Set(all);
  while (left.size > 0) {
    const [x, y] = from();
    let nearest: T | null = null;
    let least = Number.POSITIVE_INFINITY;
    for (const one of left) {
      const points = pointsOf(one);
      const away = lengthOf(points[0] - x, points[1] - y);
      if (away < least) [nearest, least] = [one, away];
    }
    if (nearest === null) return;
    left.delete(nearest);
    take(nearest);
  }
}

/** A path as points on the sheet, from its sharpest corner on. What a curve leaves the art by, at its very edge, is not cut. */
function toSheet(path: CubicPath, { widthPx, heightPx, mmPerPx, isMirrored }: CutSheet): Float64Array {
  const flat = flattenPath(path, FLATTEN_MM / mmPerPx);
  const count = flat.length / 2 - 1;
  const first = sharpestCorner(flat, count);
  const points = new Float64Array(flat.length);
  for (let k = 0; k <= count; k++) {
    const i = ((first + k) % count) * 2;
    const [x, y] = [within(flat[i], widthPx), within(flat[i + 1], heightPx)];
    points[k * 2] = (isMirrored ? widthPx - x : x) * mmPerPx;
    points[k * 2 + 1] = (heightPx - y) * mmPerPx;
  }
  return points;
}

const within = (value: number, most: number) => Math.min(most, Math.max(0, value));

/** The point of a closed line (`count` points and the first again) at which it turns most. */
function sharpestCorner(flat: readonly number[], count: number): number {
  let sharpest = 0;
  let least = 2;
  for (let i = 0; i < count; i++) {
    const before = ((i + count - 1) % count) * 2;
    const ax = flat[i * 2] - flat[before];
    const ay = flat[i * 2 + 1] - flat[before + 1];
    const bx = flat[i * 2 + 2] - flat[i * 2];
    const by = flat[i * 2 + 3] - flat[i * 2 + 1];
    const cosine = (ax * bx + ay * by) / (lengthOf(ax, ay) * lengthOf(bx, by));
    if (cosine < least - 1e-9) [sharpest, least] = [i, cosine];
  }
  return sharpest;
}

/** Whether a place lies inside a closed line, by even-odd. */
function isInside(points: Float64Array, x: number, y: number): boolean {
  let inside = false;
  for (let i = 0; i + 3 < points.length; i += 2)
    if (points[i + 1] > y !== points[i + 3] > y) {
      const t = (y - points[i + 1]) / (points[i + 3] - points[i + 1]);
      if (points[i] + t * (points[i + 2] - points[i]) > x) inside = !inside;
    }
  return inside;
}

function areaOf(points: Float64Array): number {
  let twice = 0;
  for (let i = 0; i + 3 < points.length; i += 2) twice += points[i] * points[i + 3] - points[i + 2] * points[i + 1];
  return twice / 2;
}

/** Points that go on along a closed line, from its start, for a length (mm): what a blade that trails cuts twice. */
export function overcutOf(points: Float64Array, lengthMm: number): number[] {
  const over: number[] = [];
  let left = lengthMm;
  for (let i = 2; i < points.length && left > 0; i += 2) {
    const dx = points[i] - points[i - 2];
    const dy = points[i + 1] - points[i - 1];
    const length = lengthOf(dx, dy);
    if (length === 0) continue;
    const share = Math.min(1, left / length);
    over.push(points[i - 2] + dx * share, points[i - 1] + dy * share);
    left -= length;
  }
  return over;
}
