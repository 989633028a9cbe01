// Many paths with the boxes they lie in, so that a part of the table draws what reaches into it and no more.
import { type CubicPath, isLine, segmentCount } from "@plain-palette/core/geometry";

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Paths of one colour or line. What lies elsewhere winds round no point of a box, so that it can be left out of it. */
export interface Pieces {
  readonly paths: readonly Path2D[];
  /** Left, top, right, bottom of each path. */
  readonly boxes: Float64Array;
}

/** Pieces of closed or open curves. */
export function makePieces(paths: readonly CubicPath[], isClosed: boolean): Pieces {
  return withBoxes(paths, (path) => makePath2D([path], isClosed));
}

/** Pieces of lines through x, y pairs. */
export function makePolylinePieces(lines: readonly (readonly number[])[]): Pieces {
  return withBoxes(lines, (line) => makePolylinePath(line, false));
}

function withBoxes<T extends ArrayLike<number>>(lines: readonly T[], draw: (line: T) => Path2D): Pieces {
  const boxes = new Float64Array(lines.length * 4);
  lines.forEach((line, k) => {
    let [left, top, right, bottom] = [line[0], line[1], line[0], line[1]];
    // Control points hold the curve between them.
    for (let i = 2; i + 1 < line.length; i += 2) {
      left = Math.min(left, line[i]);
      right = Math.max(right, line[i]);
      top = Math.min(top, line[i + 1]);
      bottom = Math.max(bottom, line[i + 1]);
    }
    boxes.set([left, top, right, bottom], k * 4);
  });
  return { paths: lines.map(draw), boxes };
}

/** What of a path is needed to draw a box, or to say whether a point of it lies inside. */
export function partOf(path: Path2D | Pieces, { left, top, right, bottom }: Box): Path2D {
  if (path instanceof Path2D) return path;
  const { paths, boxes } = path;
  const part = new Path2D();
  for (let k = 0, i = 0; k < paths.length; k++, i += 4)
    if (boxes[i] <= right && boxes[i + 2] >= left && boxes[i + 1] <= bottom && boxes[i + 3] >= top)
      part.addPath(paths[k]);
  return part;
}

/** One drawable path of many closed or open ones. */
export function makePath2D(paths: readonly CubicPath[], isClosed: boolean): Path2D {
  const out = new Path2D();
  for (const path of paths) {
    out.moveTo(path[0], path[1]);
    const segments = segmentCount(path);
    for (let s = 0; s < segments; s++) {
      const o = s * 6 + 2;
      if (isLine(path, s)) out.lineTo(path[o + 4], path[o + 5]);
      else out.bezierCurveTo(path[o], path[o + 1], path[o + 2], path[o + 3], path[o + 4], path[o + 5]);
    }
    if (isClosed) out.closePath();
  }
  return out;
}

/** A path through x, y pairs. */
export function makePolylinePath(points: readonly number[], isClosed: boolean): Path2D {
  const out = new Path2D();
  for (let i = 0; i + 1 < points.length; i += 2) out.lineTo(points[i], points[i + 1]);
  if (isClosed) out.closePath();
  return out;
}
