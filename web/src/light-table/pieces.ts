// Many paths with the boxes they lie in, so that a part of the table draws what reaches into it and no more.
import { type Bounds, boundsOf, boundsOfAll, type CubicPath, drawPath, eachPoint } from "@plain-palette/core/geometry";

/** A path with what it was drawn from, so that it can be compared. */
export interface Piece {
  readonly path: Path2D;
  readonly bounds: Bounds;
  readonly lines: readonly ArrayLike<number>[];
}

/** Paths of one colour or line. What lies elsewhere winds round no point of a box, so that it can be left out of it. */
export type Pieces = readonly Piece[];

/** Pieces of closed or open curves. */
export function makePieces(paths: readonly CubicPath[], isClosed: boolean): Pieces {
  return withBoxes(paths, (path) => makePath2D([path], isClosed));
}

/** Pieces of lines through x, y pairs. */
export function makePolylinePieces(lines: readonly (readonly number[])[], isClosed = false): Pieces {
  return withBoxes(lines, (line) => makePolylinePath(line, isClosed));
}

/** Many short lines by the square of `side` that their first point lies in: a piece for each. */
export function makeSquarePieces(lines: readonly (readonly number[])[], side: number): Pieces {
  const squares = new Map<string, (readonly number[])[]>();
  for (const line of lines) {
    const key = `${Math.floor((line[0] ?? 0) / side)} ${Math.floor((line[1] ?? 0) / side)}`;
    const own = squares.get(key);
    if (own) own.push(line);
    else squares.set(key, [line]);
  }
  return [...squares.values()].map((own) => {
    const path = new Path2D();
    for (const line of own) {
      path.moveTo(line[0] ?? 0, line[1] ?? 0);
      for (let i = 2; i < line.length; i += 2) path.lineTo(line[i] ?? 0, line[i + 1] ?? 0);
    }
    return { path, bounds: boundsOfAll(own), lines: own };
  });
}

function withBoxes<T extends ArrayLike<number>>(lines: readonly T[], draw: (line: T) => Path2D): Pieces {
  return lines.map((line) => ({ path: draw(line), bounds: boundsOf(line), lines: [line] }));
}

/** What of a path is needed to draw a box, or to say whether a point of it lies inside. */
export function partOf(path: Path2D | Pieces, box: Bounds): Path2D {
  if (path instanceof Path2D) return path;
  const part = new Path2D();
  for (const { path: piece, bounds } of path)
    if (bounds.left <= box.right && bounds.right >= box.left && bounds.top <= box.bottom && bounds.bottom >= box.top)
      part.addPath(piece);
  return part;
}

/** One drawable path of many closed or open ones. */
export function makePath2D(paths: readonly CubicPath[], isClosed: boolean): Path2D {
  const out = new Path2D();
  for (const path of paths) {
    drawPath(path, out);
    if (isClosed) out.closePath();
  }
  return out;
}

/** A path through x, y pairs. */
export function makePolylinePath(points: readonly number[], isClosed: boolean): Path2D {
  const out = new Path2D();
  eachPoint(points, (x, y) => out.lineTo(x, y));
  if (isClosed) out.closePath();
  return out;
}
