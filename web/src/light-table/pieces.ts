// Many paths with the boxes they lie in, so that a part of the table draws what reaches into it and no more.
import { type Bounds, boundsOf, boundsOfAll, type CubicPath, drawPath, eachPoint } from "@plain-palette/core/geometry";

/** A part of a path, with what it follows from, so that it can be compared. */
export interface Piece {
  readonly lines: readonly ArrayLike<number>[];
  readonly bounds: Bounds;
  /** Made when first drawn: most of what changes is like it was, and stays as it was painted. */
  path(): Path2D;
}

export function makePiece(lines: Piece["lines"], bounds: Bounds, draw: (path: Path2D) => void): Piece {
  let made: Path2D | null = null;
  const path = () => {
    if (made) return made;
    made = new Path2D();
    draw(made);
    return made;
  };
  return { lines, bounds, path };
}

/** Paths of one colour or line. What lies elsewhere winds round no point of a box, so that it can be left out of it. */
export type Pieces = readonly Piece[];

/** Pieces of closed or open curves. */
export function makePieces(paths: readonly CubicPath[], isClosed: boolean): Pieces {
  return paths.map((path) => makePiece([path], boundsOf(path), (out) => addCurve(path, isClosed, out)));
}

/** Pieces of lines through x, y pairs. */
export function makePolylinePieces(lines: readonly (readonly number[])[], isClosed = false): Pieces {
  return lines.map((line) => makePiece([line], boundsOf(line), (out) => addPolyline(line, isClosed, out)));
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
  return [...squares.values()].map((own) =>
    makePiece(own, boundsOfAll(own), (path) => {
      for (const line of own) {
        path.moveTo(line[0] ?? 0, line[1] ?? 0);
        for (let i = 2; i < line.length; i += 2) path.lineTo(line[i] ?? 0, line[i + 1] ?? 0);
      }
    }),
  );
}

/** What of a path is needed to draw a box, or to say whether a point of it lies inside. */
export function partOf(path: Path2D | Pieces, box: Bounds): Path2D {
  if (path instanceof Path2D) return path;
  const part = new Path2D();
  for (const { path: piece, bounds } of path)
    if (bounds.left <= box.right && bounds.right >= box.left && bounds.top <= box.bottom && bounds.bottom >= box.top)
      part.addPath(piece());
  return part;
}

/** One drawable path of many closed or open ones. */
export function makePath2D(paths: readonly CubicPath[], isClosed: boolean): Path2D {
  const out = new Path2D();
  for (const path of paths) addCurve(path, isClosed, out);
  return out;
}

function addCurve(path: CubicPath, isClosed: boolean, out: Path2D): void {
  drawPath(path, out);
  if (isClosed) out.closePath();
}

/** A path through x, y pairs. */
export function makePolylinePath(points: readonly number[], isClosed: boolean): Path2D {
  const out = new Path2D();
  addPolyline(points, isClosed, out);
  return out;
}

function addPolyline(points: readonly number[], isClosed: boolean, out: Path2D): void {
  eachPoint(points, (x, y) => out.lineTo(x, y));
  if (isClosed) out.closePath();
}
