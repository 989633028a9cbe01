// Where one pile of layers looks otherwise than another: only there the table is painted again.
import { type Bounds, boundsOf, eachPoint } from "@plain-palette/core/geometry";
import type { LayerTransform, TableLayer } from "./layers.ts";
import type { Piece, Pieces } from "./pieces.ts";

/** A box of the table, and how far round it what lies there may show: `reach` screen px and `width` of the table's units. */
export interface ChangedBox extends Bounds {
  readonly width: number;
}

/** Boxes outside which both look the same; null: they may differ anywhere. */
export function changedBoxes(
  before: readonly TableLayer[],
  after: readonly TableLayer[],
): readonly ChangedBox[] | null {
  const boxes: ChangedBox[] = [];
  // In the order in which they lie, each with the next that is drawn alike; whatever has none is all change.
  let from = 0;
  for (const layer of after) {
    const at = before.findIndex((old, k) => k >= from && isAlike(old, layer));
    const old = before[at];
    for (const whole of old ? before.slice(from, at) : [layer]) if (!addWhole(whole, boxes)) return null;
    if (!old) continue;
    addChanged(old, layer, boxes);
    from = at + 1;
  }
  for (const whole of before.slice(from)) if (!addWhole(whole, boxes)) return null;
  return boxes;
}

/** Whether two layers differ at most in where their pieces or points lie. */
function isAlike(a: TableLayer, b: TableLayer): boolean {
  return a === b || styleOf(a) === styleOf(b);
}

const styles = new WeakMap<TableLayer, string>();

/** All of a layer but its pieces and points, as a text. What cannot be told by parts is alike only to itself. */
function styleOf(layer: TableLayer): string {
  const known = styles.get(layer);
  if (known !== undefined) return known;
  const style = describe(layer);
  styles.set(layer, style);
  return style;
}

let numbered = 0;
const numbers = new WeakMap<object, number>();

/** The same number for the same thing. */
function numberOf(thing: object): number {
  const number = numbers.get(thing) ?? ++numbered;
  numbers.set(thing, number);
  return number;
}

function describe(layer: TableLayer): string {
  switch (layer.kind) {
    case "fills":
      return JSON.stringify({ ...layer, fills: layer.fills.map(({ colour, path }) => [colour, pathStyle(path)]) });
    case "strokes":
      return JSON.stringify({ ...layer, path: pathStyle(layer.path) });
    case "grips":
      return layer.kind;
    case "nodes":
      return JSON.stringify({ ...layer, points: null });
    case "bitmap":
      return JSON.stringify({ ...layer, bitmap: numberOf(layer.bitmap) });
    default:
      return JSON.stringify(layer);
  }
}

const pathStyle = (path: Path2D | Pieces) => (path instanceof Path2D ? numberOf(path) : null);

const boundsIn = (pieces: Pieces) => pieces.map(({ bounds }) => bounds);

/** Adds all of a layer; false where nobody knows how far it reaches. */
function addWhole(layer: TableLayer, boxes: ChangedBox[]): boolean {
  switch (layer.kind) {
    case "fills":
      for (const { path } of layer.fills) {
        if (path instanceof Path2D) return false;
        addBoxes(boundsIn(path), layer, boxes);
      }
      return true;
    case "strokes":
      if (layer.path instanceof Path2D) return false;
      addBoxes(boundsIn(layer.path), layer, boxes);
      return true;
    case "grips":
    case "nodes":
      addPoints(Array.from(pointsOf(layer)), boxes);
      return true;
    default:
      return false;
  }
}

/** Adds where two layers that are drawn alike are not the same. */
function addChanged(a: TableLayer, b: TableLayer, boxes: ChangedBox[]): void {
  if (a === b) return;
  if (a.kind === "fills" && b.kind === "fills")
    for (const [k, { path }] of a.fills.entries()) addBoxes(differingBounds(path, b.fills[k]?.path ?? []), a, boxes);
  else if (a.kind === "strokes" && b.kind === "strokes") addBoxes(differingBounds(a.path, b.path), a, boxes);
  else if ((a.kind === "grips" || a.kind === "nodes") && (b.kind === "grips" || b.kind === "nodes"))
    addPoints(differingPoints(pointsOf(a), pointsOf(b)), boxes);
}

/** Adds boxes of a layer's own units. */
function addBoxes(
  bounds: readonly Bounds[],
  { transform, ...more }: { readonly transform?: LayerTransform; readonly width?: number },
  boxes: ChangedBox[],
): void {
  const { scaleX, scaleY, dx, dy } = transform ?? { scaleX: 1, scaleY: 1, dx: 0, dy: 0 };
  const width = (more.width ?? 0) * Math.max(Math.abs(scaleX), Math.abs(scaleY));
  for (const { left, top, right, bottom } of bounds) {
    const x = [left * scaleX + dx, right * scaleX + dx];
    const y = [top * scaleY + dy, bottom * scaleY + dy];
    const box = { left: Math.min(...x), right: Math.max(...x), top: Math.min(...y), bottom: Math.max(...y) };
    boxes.push({ ...box, width });
  }
}

function addPoints(points: readonly number[], boxes: ChangedBox[]): void {
  eachPoint(points, (x, y) => boxes.push({ left: x, right: x, top: y, bottom: y, width: 0 }));
}

function pointsOf(layer: Extract<TableLayer, { kind: "grips" | "nodes" }>): ArrayLike<number> {
  return layer.kind === "nodes" ? layer.points : layer.points.flatMap(({ x, y }) => [x, y]);
}

/** Boxes of what one of two has and the other has not, or has otherwise. */
function differingBounds(a: Path2D | Pieces, b: Path2D | Pieces): Bounds[] {
  if (a === b || a instanceof Path2D || b instanceof Path2D) return [];
  const [start, end] = commonEnds(a.length, b.length, (i, j) => isSamePiece(a[i], b[j]));
  const [mine, theirs] = onlyInOne(a.slice(start, a.length - end), b.slice(start, b.length - end));
  if (mine.length !== theirs.length) return [...mine, ...theirs].map(({ bounds }) => bounds);
  return mine.flatMap((piece, k) => changeOf(piece, theirs[k] ?? piece));
}

/** Of either list the pieces that the other does not have. */
function onlyInOne(mine: Pieces, theirs: Pieces): [Pieces, Pieces] {
  const nameOf = ({ bounds }: Piece) => bounds.left + 1e6 * bounds.top;
  const known = new Map<number, Piece[]>();
  for (const piece of theirs) known.set(nameOf(piece), [...(known.get(nameOf(piece)) ?? []), piece]);
  const inBoth = new Set<Piece>();
  const only = mine.filter((piece) => {
    const found = known.get(nameOf(piece))?.find((one) => !inBoth.has(one) && isSamePiece(piece, one));
    if (found) inBoth.add(found);
    return !found;
  });
  return [only, theirs.filter((piece) => !inBoth.has(piece))];
}

/** Points round a change that belong to its curves: up to the next node. */
const CURVE_POINTS = 3;

/** Boxes of where two pieces run apart. Elsewhere they have the same line, and wind as often round every point. */
function changeOf(a: Piece, b: Piece): Bounds[] {
  const [mine, theirs] = [a.lines[0], b.lines[0]];
  const whole = [a.bounds, b.bounds];
  if (a.lines.length !== 1 || b.lines.length !== 1 || !mine || !theirs) return whole;
  const [start, end] = commonEnds(mine.length / 2, theirs.length / 2, (i, j) => isSamePoint(mine, i, theirs, j));
  // Without a place in common, what is between them may be anything.
  if (start === 0 || end === 0) return whole;
  const between = (line: ArrayLike<number>) =>
    boundsOf(
      Array.from(line).slice(2 * Math.max(0, start - CURVE_POINTS), line.length - 2 * Math.max(0, end - CURVE_POINTS)),
    );
  return [between(mine), between(theirs)];
}

function isSamePiece(a: Piece | undefined, b: Piece | undefined): boolean {
  if (a === b || !a || !b) return a === b;
  return a.lines.length === b.lines.length && a.lines.every((line, k) => isSameLine(line, b.lines[k]));
}

function isSameLine(a: ArrayLike<number>, b: ArrayLike<number> | undefined): boolean {
  if (a === b || !b) return a === b;
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

function isSamePoint(a: ArrayLike<number>, i: number, b: ArrayLike<number>, j: number): boolean {
  return a[2 * i] === b[2 * j] && a[2 * i + 1] === b[2 * j + 1];
}

/** Points of both from the first to the last that differs; of as many in the same order, only those that do. */
function differingPoints(a: ArrayLike<number>, b: ArrayLike<number>): number[] {
  const isSame = (i: number, j: number) => isSamePoint(a, i, b, j);
  const [counted, other] = [a.length / 2, b.length / 2];
  const [start, end] = commonEnds(counted, other, isSame);
  const isKept = (i: number) => counted === other && isSame(i, i);
  const between = (points: ArrayLike<number>) =>
    Array.from(points).filter((_, k) => k >= 2 * start && k < points.length - 2 * end && !isKept(k >> 1));
  return [...between(a), ...between(b)];
}

/** How many are the same at the beginning and, of the others, at the end. */
function commonEnds(a: number, b: number, isSame: (i: number, j: number) => boolean): [number, number] {
  const most = Math.min(a, b);
  let start = 0;
  while (start < most && isSame(start, start)) start++;
  let end = 0;
  while (end < most - start && isSame(a - 1 - end, b - 1 - end)) end++;
  return [start, end];
}
