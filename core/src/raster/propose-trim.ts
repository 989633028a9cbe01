// Finding the sheet inside a scan: how crooked it lies, where it ends, and where its shadowed edges do.
import { type Box, type Corners, invertMap, mapPoint, type Point, straightenFrame, wholeFrame } from "./frame.ts";
import { greyOf } from "./grey.ts";
import type { Raster } from "./raster.ts";

export interface TrimProposal {
  /** Turn clockwise by this to lay the sheet level; hundredths of a degree. */
  readonly angleDeg: number;
  /** What to keep of the straightened picture. */
  readonly crop: Box;
  /** Corners of the sheet in the picture as it is, for a photograph taken at an angle; at the picture's edge where no side shows. */
  readonly corners: Corners;
  /** The sides lean against each other by up to this: above a degree the sheet was photographed, not scanned. */
  readonly leanDeg: number;
}

/** A straight side: `across` = `at` + `slope` x `along`, in the picture's pixels. */
interface Side {
  readonly at: number;
  readonly slope: number;
  readonly support: number;
}

type SideName = "left" | "right" | "top" | "bottom";

/** The surround has to be darker than the paper by this to be told from it, levels. */
const LEAST_CONTRAST = 12;
/** A side has to be seen along this share of the picture. */
const LEAST_SEEN = 0.3;
/** Edge places within this of a line support it, px. */
const NEAR_PX = 1.2;
const TRIES = 400;

/** Proposes how to turn and crop a scan to its sheet; null where no edge of a sheet is seen. Our own method. */
export function proposeTrim(raster: Raster): TrimProposal | null {
  const { width, height } = raster;
  const grey = greyOf(raster);
  const paper = paperLevel(grey, width, height);
  const surround = surroundLevel(grey, width, height, paper);
  if (surround === null) return null;
  const threshold = paper - Math.max(LEAST_CONTRAST / 2, (paper - surround) * 0.3);
  const sides = {
    left: fitSide(edgePlaces(grey, width, height, threshold, "left"), height),
    right: fitSide(edgePlaces(grey, width, height, threshold, "right"), height),
    top: fitSide(edgePlaces(grey, width, height, threshold, "top"), width),
    bottom: fitSide(edgePlaces(grey, width, height, threshold, "bottom"), width),
  };
  const angles = Object.entries(sides).flatMap(([name, side]) => {
    if (!side) return [];
    const angle = (Math.atan(side.slope) * 180) / Math.PI;
    // The uncertainty of a fitted direction falls with the third power of the number of points.
    return [{ angle: name === "top" || name === "bottom" ? angle : -angle, weight: side.support ** 3 }];
  });
  if (angles.length === 0) return null;
  const weights = angles.reduce((sum, { weight }) => sum + weight, 0);
  const lies = angles.reduce((sum, { angle, weight }) => sum + angle * weight, 0) / weights;
  const leanDeg = Math.max(...angles.map(({ angle }) => angle)) - Math.min(...angles.map(({ angle }) => angle));
  const angleDeg = Math.round(-lies * 100) / 100;
  const corners = cornersOf(sides, raster);
  return { angleDeg, crop: cropFor(raster, grey, sides, angleDeg), corners, leanDeg };
}

/** The commonest light grey of the middle of the picture. */
function paperLevel(grey: Uint8Array, width: number, height: number): number {
  const counts = new Float64Array(256);
  for (let y = Math.floor(height * 0.2); y < height * 0.8; y++)
    for (let x = Math.floor(width * 0.2); x < width * 0.8; x++) counts[grey[y * width + x]]++;
  let best = 128;
  let most = -1;
  for (let level = 100; level < 256; level++) {
    let around = 0;
    for (let l = Math.max(0, level - 2); l <= Math.min(255, level + 2); l++) around += counts[l];
    if (around > most) {
      most = around;
      best = level;
    }
  }
  return best;
}

/** The middle grey of what is not paper along the picture's border; null if it is nearly all paper. */
function surroundLevel(grey: Uint8Array, width: number, height: number, paper: number): number | null {
  const ring: number[] = [];
  for (let x = 0; x < width; x++) ring.push(grey[x], grey[(height - 1) * width + x]);
  for (let y = 0; y < height; y++) ring.push(grey[y * width], grey[y * width + width - 1]);
  const darker = ring.filter((g) => g < paper - LEAST_CONTRAST).sort((a, b) => a - b);
  return darker.length < ring.length * 0.05 ? null : darker[darker.length >> 1];
}

/** Where paper begins, seen from one side of the picture, for each row (or column): [along, across] pairs. */
function edgePlaces(grey: Uint8Array, width: number, height: number, threshold: number, side: SideName): Point[] {
  const isUpright = side === "left" || side === "right";
  const lines = isUpright ? height : width;
  const depth = isUpright ? width : height;
  const isFromEnd = side === "right" || side === "bottom";
  const run = Math.max(4, Math.round(depth / 150));
  const at = (line: number, d: number) => {
    const across = isFromEnd ? depth - 1 - d : d;
    return grey[isUpright ? line * width + across : across * width + line];
  };
  const places: Point[] = [];
  for (let line = 0; line < lines; line++) {
    let streak = 0;
    for (let d = 0; d < depth * 0.7; d++) {
      streak = at(line, d) >= threshold ? streak + 1 : 0;
      if (streak < run) continue;
      const first = d - run + 1;
      // Paper that touches the picture's border has no edge to see there.
      if (first > 0) {
        const before = at(line, first - 1);
        const share = (threshold - before) / Math.max(1, at(line, first) - before);
        // Between the centres of the two pixels, where the level crosses the threshold.
        const inward = first - 0.5 + Math.min(1, Math.max(0, share));
        places.push({ x: line + 0.5, y: isFromEnd ? depth - inward : inward });
      }
      break;
    }
  }
  return places;
}

/** The line that most places agree on: random pairs, then least squares over the places near it. */
function fitSide(places: readonly Point[], length: number): Side | null {
  if (places.length < length * LEAST_SEEN) return null;
  let seed = 12345;
  const draw = (n: number) => {
    seed = (Math.imul(seed, 1103515245) + 12345) >>> 0;
    return Math.floor((seed / 4294967296) * n);
  };
  const sample = places.length > 800 ? places.filter((_, i) => i % Math.floor(places.length / 400) === 0) : places;
  let best: readonly Point[] = [];
  for (let i = 0; i < TRIES; i++) {
    const a = sample[draw(sample.length)];
    const b = sample[draw(sample.length)];
    if (Math.abs(b.x - a.x) < length * 0.1) continue;
    const slope = (b.y - a.y) / (b.x - a.x);
    if (Math.abs(slope) > 1) continue;
    const near = sample.filter(({ x, y }) => Math.abs(y - a.y - slope * (x - a.x)) < NEAR_PX);
    if (near.length > best.length) best = near;
  }
  if (best.length < 3) return null;
  let line = leastSquares(best);
  for (let i = 0; i < 4; i++) {
    const near = places.filter(({ x, y }) => Math.abs(y - line.at - line.slope * x) < NEAR_PX);
    if (near.length < Math.max(3, length * LEAST_SEEN)) return null;
    line = leastSquares(near);
  }
  return line;
}

function leastSquares(points: readonly Point[]): Side {
  const n = points.length;
  const mx = points.reduce((sum, { x }) => sum + x, 0) / n;
  const my = points.reduce((sum, { y }) => sum + y, 0) / n;
  let xy = 0;
  let xx = 0;
  for (const { x, y } of points) {
    xy += (x - mx) * (y - my);
    xx += (x - mx) * (x - mx);
  }
  const slope = xx === 0 ? 0 : xy / xx;
  return { at: my - slope * mx, slope, support: n };
}

function cornersOf(sides: Record<SideName, Side | null>, { width, height }: Raster): Corners {
  // A side that is not seen lies at the picture's edge, or beyond it.
  const edge = (at: number): Side => ({ at, slope: 0, support: 0 });
  const [left, right] = [sides.left ?? edge(0), sides.right ?? edge(width)];
  const [top, bottom] = [sides.top ?? edge(0), sides.bottom ?? edge(height)];
  return [cross(left, top), cross(right, top), cross(right, bottom), cross(left, bottom)];
}

/** Where x = a + b y meets y = c + d x. */
function cross(upright: Side, level: Side): Point {
  const y = (level.at + level.slope * upright.at) / (1 - level.slope * upright.slope);
  return { x: upright.at + upright.slope * y, y };
}

/** What to keep after straightening: inside every side, and past its shadow. */
function cropFor(raster: Raster, grey: Uint8Array, sides: Record<SideName, Side | null>, angleDeg: number): Box {
  const { width, height } = raster;
  const frame = straightenFrame(wholeFrame(width, height), angleDeg);
  const toFrame = invertMap(frame.toSource);
  const put = (x: number, y: number) => mapPoint(toFrame, { x, y });
  const [tl, tr, br, bl] = [put(0, 0), put(width, 0), put(width, height), put(0, height)];
  const onUpright = (side: Side) => put(side.at + (side.slope * height) / 2, height / 2).x;
  const onLevel = (side: Side) => put(width / 2, side.at + (side.slope * width) / 2).y;
  let left = Math.ceil(sides.left ? onUpright(sides.left) : Math.max(tl.x, bl.x) + 0.5);
  let right = Math.floor(sides.right ? onUpright(sides.right) : Math.min(tr.x, br.x) - 0.5);
  let top = Math.ceil(sides.top ? onLevel(sides.top) : Math.max(tl.y, tr.y) + 0.5);
  let bottom = Math.floor(sides.bottom ? onLevel(sides.bottom) : Math.min(bl.y, br.y) - 0.5);
  const greyAt = (x: number, y: number) => {
    const { x: sx, y: sy } = mapPoint(frame.toSource, { x: x + 0.5, y: y + 0.5 });
    const px = Math.min(width - 1, Math.max(0, Math.floor(sx)));
    const py = Math.min(height - 1, Math.max(0, Math.floor(sy)));
    return grey[py * width + px];
  };
  const [w, h] = [right - left, bottom - top];
  if (w < 20 || h < 20) return { x: 0, y: 0, width: frame.width, height: frame.height };
  // Kept apart from each other's corners: a tenth in from both ends.
  const columns = (x: number) => samples(top + h * 0.1, bottom - h * 0.1, (y) => greyAt(x, Math.floor(y)));
  const rows = (y: number) => samples(left + w * 0.1, right - w * 0.1, (x) => greyAt(Math.floor(x), y));
  const inset = {
    left: shadowDepth(w, (d) => columns(left + d)),
    right: shadowDepth(w, (d) => columns(right - 1 - d)),
    top: shadowDepth(h, (d) => rows(top + d)),
    bottom: shadowDepth(h, (d) => rows(bottom - 1 - d)),
  };
  left += inset.left;
  right -= inset.right;
  top += inset.top;
  bottom -= inset.bottom;
  return { x: left, y: top, width: right - left, height: bottom - top };
}

function samples(from: number, to: number, read: (at: number) => number): number[] {
  const step = Math.max(1, (to - from) / 400);
  const out: number[] = [];
  for (let at = from; at < to; at += step) out.push(read(at));
  return out;
}

/** How deep a shadow lies along a side: from there on, the lighter part of each line is as light as the paper further in. */
function shadowDepth(size: number, line: (depth: number) => number[]): number {
  const reach = Math.max(4, Math.floor(size * 0.12));
  const levels = Array.from({ length: reach }, (_, d) => {
    const sorted = line(d).sort((a, b) => a - b);
    return sorted[Math.floor(sorted.length * 0.7)];
  });
  const inner = levels.slice(Math.floor(reach * 0.7)).sort((a, b) => a - b);
  const paper = inner[inner.length >> 1];
  let depth = reach;
  while (depth > 0 && levels[depth - 1] >= paper - Math.max(3, paper * 0.02)) depth--;
  return depth;
}
