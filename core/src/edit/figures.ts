// Figures that are drawn: circles and ellipses, rectangles, polygons, strokes of a width and free outlines, as closed paths.
import {
  type CubicPath,
  cosineBetween,
  flattenPath,
  lengthOf,
  mapPath,
  pathArea,
  polygonPath,
  QUARTER_HANDLE,
  reversePath,
  withEnds,
} from "../geometry/index.ts";
import { type Point, turn } from "../raster/index.ts";
import { circlePath, fitPolyline } from "../trace/index.ts";

/** Lengths and places in one unit, whichever. */
export type Figure =
  | {
      readonly kind: "ellipse";
      readonly at: Point;
      readonly width: number;
      readonly height: number;
      readonly angleDeg: number;
    }
  | {
      readonly kind: "rectangle";
      readonly at: Point;
      readonly width: number;
      readonly height: number;
      /** Of its corners. */
      readonly radius: number;
      readonly angleDeg: number;
    }
  /** A regular polygon, its corners on a circle of this width, the first at the top. */
  | {
      readonly kind: "polygon";
      readonly at: Point;
      readonly width: number;
      readonly corners: number;
      readonly angleDeg: number;
    }
  | { readonly kind: "stroke"; readonly curve: ArrayLike<number>; readonly width: number }
  | { readonly kind: "outline"; readonly curves: readonly ArrayLike<number>[] };

/** A figure's closed paths; their non-zero winding is its area. */
export function figurePaths(figure: Figure): CubicPath[] {
  if (figure.kind === "outline") return figure.curves.map((curve) => closed(Float64Array.from(curve)));
  if (figure.kind === "stroke") return widenStroke(Float64Array.from(figure.curve), figure.width);
  const { at, angleDeg } = figure;
  const { sin, cos } = turn(angleDeg);
  const place = (x: number, y: number) => [at.x + x * cos - y * sin, at.y + x * sin + y * cos] as const;
  return [mapPath(uprightPath(figure), place)];
}

type Upright = Extract<Figure, { readonly at: Point }>;

/** About the origin, turning as outer rings of faces do. */
function uprightPath(figure: Upright): CubicPath {
  const { width } = figure;
  if (figure.kind === "ellipse") return mapPath(circlePath(0, 0, 0.5, false), (x, y) => [x * width, y * figure.height]);
  if (figure.kind === "polygon") {
    const points: number[] = [];
    for (let k = 0; k < figure.corners; k++) {
      const { sin, cos } = turn(-(360 * k) / figure.corners);
      points.push((sin * width) / 2, (-cos * width) / 2);
    }
    return polygonPath(points);
  }
  const [x, y] = [width / 2, figure.height / 2];
  const r = Math.min(figure.radius, x, y);
  if (r <= 0) return polygonPath([-x, -y, -x, y, x, y, x, -y]);
  return roundedPath(x, y, r);
}

function roundedPath(x: number, y: number, r: number): CubicPath {
  const k = r * (1 - QUARTER_HANDLE);
  const out: number[] = [-x, -y + r];
  const line = (px: number, py: number) => out.push(...out.slice(-2), px, py, px, py);
  const corner = (c1x: number, c1y: number, c2x: number, c2y: number, px: number, py: number) =>
    out.push(c1x, c1y, c2x, c2y, px, py);
  line(-x, y - r);
  corner(-x, y - k, -x + k, y, -x + r, y);
  line(x - r, y);
  corner(x - k, y, x, y - k, x, y - r);
  line(x, -y + r);
  corner(x, -y + k, x - k, -y, x - r, -y);
  line(-x + r, -y);
  corner(-x + k, -y, -x, -y + k, -x, -y + r);
  return Float64Array.from(out);
}

function closed(path: CubicPath): CubicPath {
  return withEnds(path, path[0], path[1], path[0], path[1]);
}

/** How often every point of a hand's line is brought to the middle of its neighbours: its tremble goes, its bends stay. */
const CALM_ROUNDS = 3;

/** A line as a hand drew it (x, y pairs), calmed and drawn again within `tolerance`; its ends stay. */
export function calmLine(points: ArrayLike<number>, tolerance: number): CubicPath {
  let line = Float64Array.from(points);
  for (let round = 0; round < CALM_ROUNDS; round++)
    line = line.map((v, i) => (i < 2 || i >= line.length - 2 ? v : (line[i - 2] + 2 * v + line[i + 2]) / 4));
  return fitPolyline(line, tolerance);
}

/** Curves of strokes are followed and drawn again this closely, in the figure's unit. */
const FINE_SHARE = 0.004;
/** Turns of more than this are corners of a stroke: rounded, outside (cosine of 20 degrees). */
const CORNER_COSINE = 0.94;

/** How a stroke looks at its corners and its ends (the words of SVG 2, 13.5: bevel is "cut", butt "flat"). */
export interface StrokeLook {
  readonly corners: "round" | "cut" | { readonly miterLimit: number };
  readonly ends: "flat" | "round" | "square";
}

/** The area within half a width of a line, as overlapping outlines; where it ends where it begins it is closed. */
export function widenStroke(
  curve: CubicPath,
  width: number,
  { corners, ends }: StrokeLook = { corners: "round", ends: "flat" },
): CubicPath[] {
  const fine = Math.max(1e-4, width * FINE_SHARE);
  const line = dropRepeats(flattenPath(curve, fine));
  const half = width / 2;
  if (line.length < 4) return ends === "flat" ? [] : [circlePath(line[0], line[1], half, false)];
  const parts: CubicPath[] = [];
  const turns: CubicPath[] = [];
  const last = line.length / 2 - 1;
  const isRing = line[0] === line[last * 2] && line[1] === line[last * 2 + 1];
  // Round the corner at the place of a ring's beginning, too.
  const turnAt = (i: number) => (i === last ? [...line.slice(-4), line[2], line[3]] : line.slice(i * 2 - 2, i * 2 + 4));
  let first = 0;
  for (let i = 1; i <= last; i++) {
    const isSharpThere = (i < last || isRing) && isSharp(turnAt(i), 1);
    if (isSharpThere) turns.push(cornerPath(turnAt(i), half, corners));
    if (i < last && !isSharpThere) continue;
    parts.push(band(line.slice(first * 2, i * 2 + 2), half, fine));
    first = i;
  }
  const caps = isRing || ends === "flat" ? [] : [capPath(line, half, ends), capPath(backwards(line), half, ends)];
  return [...parts, ...turns, ...caps].map(turnedAsOutline);
}

/** What fills the outside of a corner between the flat ends of two bands; three points of the line. */
function cornerPath(
  [ax, ay, x, y, bx, by]: readonly number[],
  half: number,
  corners: StrokeLook["corners"],
): CubicPath {
  if (corners === "round") return circlePath(x, y, half, false);
  const [inX, inY] = unit(x - ax, y - ay);
  const [outX, outY] = unit(bx - x, by - y);
  // The outside is on the left of the line where it turns right (y down).
  const side = inX * outY - inY * outX > 0 ? half : -half;
  const [fromX, fromY, toX, toY] = [x + inY * side, y - inX * side, x + outY * side, y - outX * side];
  const cosine = inX * outX + inY * outY;
  // Length of the corner over the stroke's width (SVG 2, 13.5.5).
  const miter = Math.sqrt(2 / Math.max(1e-9, 1 + cosine));
  if (corners === "cut" || miter > corners.miterLimit) return polygonPath([x, y, fromX, fromY, toX, toY]);
  const [mx, my] = [(fromX + toX) / 2 - x, (fromY + toY) / 2 - y];
  const reach = (half * miter) / (lengthOf(mx, my) || 1);
  return polygonPath([x, y, fromX, fromY, x + mx * reach, y + my * reach, toX, toY]);
}

/** What goes beyond the first point of a line. */
function capPath([x, y, nextX, nextY]: readonly number[], half: number, ends: "round" | "square"): CubicPath {
  if (ends === "round") return circlePath(x, y, half, false);
  const [ux, uy] = unit(x - nextX, y - nextY);
  const [dx, dy] = [ux * half, uy * half];
  return polygonPath([x - dy, y + dx, x - dy + dx, y + dx + dy, x + dy + dx, y - dx + dy, x + dy, y - dx]);
}

function unit(dx: number, dy: number): readonly [number, number] {
  const length = lengthOf(dx, dy) || 1;
  return [dx / length, dy / length];
}

function backwards(line: readonly number[]): number[] {
  return Array.from({ length: 4 }, (_, k) => line[line.length - 2 - 2 * (k >> 1) + (k & 1)]);
}

/** Turned as outer rings are: parts that overlap must not cancel each other out. */
function turnedAsOutline(path: CubicPath): CubicPath {
  return pathArea(path) > 0 ? reversePath(path) : path;
}

function dropRepeats(line: readonly number[]): number[] {
  const out = [line[0], line[1]];
  for (let i = 2; i + 1 < line.length; i += 2)
    if (line[i] !== out[out.length - 2] || line[i + 1] !== out[out.length - 1]) out.push(line[i], line[i + 1]);
  return out;
}

function isSharp(line: readonly number[], i: number): boolean {
  const o = i * 2;
  return (
    cosineBetween(line[o] - line[o - 2], line[o + 1] - line[o - 1], line[o + 2] - line[o], line[o + 3] - line[o + 1]) <
    CORNER_COSINE
  );
}

/** Both sides of a smooth line, joined at its ends. */
function band(line: readonly number[], half: number, fine: number): CubicPath {
  const n = line.length / 2;
  const left: number[] = [];
  const right: number[] = [];
  for (let i = 0; i < n; i++) {
    const [a, b] = [Math.max(0, i - 1), Math.min(n - 1, i + 1)];
    const [dx, dy] = [line[b * 2] - line[a * 2], line[b * 2 + 1] - line[a * 2 + 1]];
    const length = lengthOf(dx, dy) || 1;
    const [nx, ny] = [(dy / length) * half, (-dx / length) * half];
    left.push(line[i * 2] + nx, line[i * 2 + 1] + ny);
    right.push(line[i * 2] - nx, line[i * 2 + 1] - ny);
  }
  if (n === 2) return polygonPath([left[0], left[1], right[0], right[1], right[2], right[3], left[2], left[3]]);
  const [there, back] = [fitPolyline(right, fine), reversePath(fitPolyline(left, fine))];
  const join = (x0: number, y0: number, x1: number, y1: number) => [x0, y0, x1, y1, x1, y1];
  const out = [...there];
  out.push(...join(out[out.length - 2], out[out.length - 1], back[0], back[1]), ...back.subarray(2));
  out.push(...join(out[out.length - 2], out[out.length - 1], out[0], out[1]));
  return Float64Array.from(out);
}
