// Where the upright picture lies on the client's: turns, flips, straightening, cropping and keystone as one projective map,
// so that however many of them there are, pixels are resampled once.

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** Projective map in row order: x' = (m0 x + m1 y + m2) / (m6 x + m7 y + m8), y' likewise with m3, m4, m5. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

/** An upright picture of `width` x `height` pixels; `toSource` maps its coordinates to the client's picture's. */
export interface Frame {
  readonly width: number;
  readonly height: number;
  readonly toSource: Homography;
}

const IDENTITY: Homography = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** The frame of a picture as it came. */
export function wholeFrame(width: number, height: number): Frame {
  return { width, height, toSource: IDENTITY };
}

/** The map that does `inner` first, then `outer`. */
export function composeMaps(outer: Homography, inner: Homography): Homography {
  const [a, b, c, d, e, f, g, h, i] = outer;
  const [j, k, l, m, n, o, p, q, r] = inner;
  return [
    a * j + b * m + c * p,
    a * k + b * n + c * q,
    a * l + b * o + c * r,
    d * j + e * m + f * p,
    d * k + e * n + f * q,
    d * l + e * o + f * r,
    g * j + h * m + i * p,
    g * k + h * n + i * q,
    g * l + h * o + i * r,
  ];
}

/** The inverse map (adjugate; a projective map needs no division by the determinant). */
export function invertMap([a, b, c, d, e, f, g, h, i]: Homography): Homography {
  return [
    e * i - f * h,
    c * h - b * i,
    b * f - c * e,
    f * g - d * i,
    a * i - c * g,
    c * d - a * f,
    d * h - e * g,
    b * g - a * h,
    a * e - b * d,
  ];
}

/** A point under a map. */
export function mapPoint([a, b, c, d, e, f, g, h, i]: Homography, { x, y }: Point): Point {
  const w = g * x + h * y + i;
  return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w };
}

/** A line under a map, x, y pairs. */
export function mapLine(map: Homography, line: readonly number[]): number[] {
  const mapped: number[] = [];
  for (let i = 0; i + 1 < line.length; i += 2) {
    const { x, y } = mapPoint(map, { x: line[i], y: line[i + 1] });
    mapped.push(x, y);
  }
  return mapped;
}

/** How many units of the map's result one unit at `at` becomes, as the root of its area's growth. */
export function scaleAt(map: Homography, at: Point): number {
  const o = mapPoint(map, at);
  const u = mapPoint(map, { x: at.x + 0.5, y: at.y });
  const v = mapPoint(map, { x: at.x, y: at.y + 0.5 });
  return 2 * Math.sqrt(Math.abs((u.x - o.x) * (v.y - o.y) - (u.y - o.y) * (v.x - o.x)));
}

/** Turned clockwise by quarters. */
export function turnFrame({ width, height, toSource }: Frame, quarters: 1 | 2 | 3): Frame {
  if (quarters === 2) return { width, height, toSource: composeMaps(toSource, [-1, 0, width, 0, -1, height, 0, 0, 1]) };
  const turn: Homography = quarters === 1 ? [0, 1, 0, -1, 0, height, 0, 0, 1] : [0, -1, width, 1, 0, 0, 0, 0, 1];
  return { width: height, height: width, toSource: composeMaps(toSource, turn) };
}

/** Mirrored, left for right or top for bottom. */
export function flipFrame({ width, height, toSource }: Frame, axis: "left-right" | "top-bottom"): Frame {
  const flip: Homography = axis === "left-right" ? [-1, 0, width, 0, 1, 0, 0, 0, 1] : [1, 0, 0, 0, -1, height, 0, 0, 1];
  return { width, height, toSource: composeMaps(toSource, flip) };
}

/**
 * Sine and cosine of an angle within +-90 degrees by their power series: an engine's own sines differ in the last bits, and
 * the same recipe must give the same pixels everywhere (docs/decisions/0005).
 */
export function sineAndCosine(angleDeg: number): { readonly sin: number; readonly cos: number } {
  const t = (angleDeg * Math.PI) / 180;
  let sin = 0;
  let cos = 0;
  let term = 1;
  for (let n = 0; n < 28; n += 2) {
    cos += term;
    term = (term * t) / (n + 1);
    sin += term;
    term = (-term * t) / (n + 2);
  }
  return { sin, cos };
}

/** Turned clockwise by `angleDeg` (within +-90) about its middle; the frame grows to hold all of it. */
export function straightenFrame({ width, height, toSource }: Frame, angleDeg: number): Frame {
  const { sin, cos } = sineAndCosine(angleDeg);
  // A hair of a pixel is not worth a row of its own.
  const grownWidth = Math.max(1, Math.ceil(Math.abs(width * cos) + Math.abs(height * sin) - 0.01));
  const grownHeight = Math.max(1, Math.ceil(Math.abs(width * sin) + Math.abs(height * cos) - 0.01));
  const cx = grownWidth / 2;
  const cy = grownHeight / 2;
  const back: Homography = [
    cos,
    sin,
    width / 2 - cos * cx - sin * cy,
    -sin,
    cos,
    height / 2 + sin * cx - cos * cy,
    0,
    0,
    1,
  ];
  return { width: grownWidth, height: grownHeight, toSource: composeMaps(toSource, back) };
}

/** Whole pixels of a frame. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The part of a frame inside `box`; null if they do not overlap. */
export function cropFrame(frame: Frame, box: Box): Frame | null {
  const x = Math.max(0, Math.round(box.x));
  const y = Math.max(0, Math.round(box.y));
  const width = Math.min(frame.width, Math.round(box.x + box.width)) - x;
  const height = Math.min(frame.height, Math.round(box.y + box.height)) - y;
  if (width < 1 || height < 1) return null;
  return { width, height, toSource: composeMaps(frame.toSource, [1, 0, x, 0, 1, y, 0, 0, 1]) };
}

/** Four corners of a sheet: top left, top right, bottom right, bottom left. */
export type Corners = readonly [Point, Point, Point, Point];

/**
 * The sheet between four corners, laid flat. Its proportion is `ratio` (width to height), or as the sides appear. Null if the
 * corners do not go round a convex sheet.
 * Source: P. Heckbert, "Fundamentals of Texture Mapping and Image Warping" (1989), square to quadrilateral.
 */
export function keystoneFrame(frame: Frame, corners: Corners, ratio: number | null): Frame | null {
  if (!goRoundConvex(corners)) return null;
  const [p, q, r, s] = corners;
  const across = (distance(p, q) + distance(s, r)) / 2;
  const down = (distance(p, s) + distance(q, r)) / 2;
  const area = across * down;
  const width = Math.max(1, Math.round(ratio === null ? across : Math.sqrt(area * ratio)));
  const height = Math.max(1, Math.round(ratio === null ? down : Math.sqrt(area / ratio)));
  const sx = p.x - q.x + r.x - s.x;
  const sy = p.y - q.y + r.y - s.y;
  const dx1 = q.x - r.x;
  const dx2 = s.x - r.x;
  const dy1 = q.y - r.y;
  const dy2 = s.y - r.y;
  const determinant = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / determinant;
  const h = (dx1 * sy - sx * dy1) / determinant;
  const fromUnit: Homography = [
    q.x - p.x + g * q.x,
    s.x - p.x + h * s.x,
    p.x,
    q.y - p.y + g * q.y,
    s.y - p.y + h * s.y,
    p.y,
    g,
    h,
    1,
  ];
  const flat = composeMaps(fromUnit, [1 / width, 0, 0, 0, 1 / height, 0, 0, 0, 1]);
  return { width, height, toSource: composeMaps(frame.toSource, flat) };
}

function distance(a: Point, b: Point): number {
  return Math.sqrt((a.x - b.x) ** 2 + (a.y - b.y) ** 2);
}

function goRoundConvex(corners: Corners): boolean {
  for (let i = 0; i < 4; i++) {
    const a = corners[i];
    const b = corners[(i + 1) % 4];
    const c = corners[(i + 2) % 4];
    if ((b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x) < 1) return false;
  }
  return true;
}

/** Sine and cosine of any angle. */
export function turn(angleDeg: number): { readonly sin: number; readonly cos: number } {
  const rest = angleDeg - 360 * Math.round(angleDeg / 360);
  if (rest >= -90 && rest <= 90) return sineAndCosine(rest);
  const { sin, cos } = sineAndCosine(rest > 0 ? rest - 180 : rest + 180);
  return { sin: -sin, cos: -cos };
}
