// Fills: an area covered by rows, sewn cell by cell so that the needle never has to be lifted where the area hangs together.
// Cells are sewn from the far ends of a tree inwards: every way leads through cells that are covered only later. Our own method.
import { fromFrame, insetRings, nearestFirst, type Ring, toFrame } from "../area/index.ts";
import { lengthOf } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";
import { type Spot, wayInside } from "./inside.ts";
import { divideLine, LEAST_STITCH_MM, NeedleRow } from "./needle.ts";
import { cutRows, heightOf, nearestSegment, type Rows, within } from "./rows.ts";
import { PULL_LOOK_MM, type PullAt } from "./satin.ts";
import { type PieceKind, Sewing, type Strand } from "./thread.ts";

export interface RowNumbers {
  /** Of rows, and of ways under them. */
  readonly stitchMm: number;
  readonly pullAt: PullAt;
  /** Whether rows turn where the next lies under them: far apart, what leads from end to end would leave the area. */
  readonly turnsInside: boolean;
}

export interface FillNumbers extends RowNumbers {
  readonly angleDeg: number;
  readonly spacingMm: number;
  /** Of the run inside the edge. */
  readonly runMm: number;
  /** A run inside the edge, and an open lattice across the rows, before they are sewn; null: nothing. */
  readonly underlay: { readonly latticeMm: number } | null;
}

/** How far inside the edge underlay runs, and how long the stitches of its lattice are, mm (from memory). */
const UNDER_INSET_MM = 0.6;
const LATTICE_STITCH_MM = 3.5;
/** A lattice lies where an area is wider, mm (our own). */
const LATTICE_FROM_MM = 5;
/** Needle points move from row to row by this share of a stitch, the golden section: no two of near rows lie side by side (our own). */
const STAGGER = 0.381966;
/** A row begins beside the end of another if it is no farther away than so many times from row to row (our own). */
const BESIDE = 2.5;
/** No needle goes down so near to a row's end. */
const CLEAR_MM = 0.9;

/** Sews an area from near one place to near another. */
export function sewFill(rings: readonly Ring[], numbers: FillNumbers, from: Point, to: Point): readonly Strand[] {
  const rows = cutRows(rings, numbers.angleDeg, numbers.spacingMm);
  const sewing = new Sewing();
  const inner = numbers.underlay ? insetRings(rings, UNDER_INSET_MM) : [];
  if (inner.length > 0) sewEdges(sewing, rows, inner, numbers, from);
  // What is narrow is held by the line inside its edge: a lattice there would be more way than thread.
  const wide = numbers.underlay
    ? insetRings(insetRings(rings, LATTICE_FROM_MM / 2), UNDER_INSET_MM - LATTICE_FROM_MM / 2)
    : [];
  if (numbers.underlay && wide.length > 0) {
    const lattice = cutRows(wide, numbers.angleDeg + 90, numbers.underlay.latticeMm);
    const own = { stitchMm: LATTICE_STITCH_MM, pullAt: () => 0, turnsInside: true };
    const begin = sewing.at ?? from;
    for (const strand of sewRows(lattice, own, "underlay", begin, from))
      for (const { kind, needles } of strand) {
        // Its own ways know nothing of what lies between its rows.
        if (kind === "way") continue;
        goTo(sewing, rows, { x: needles[0], y: needles[1] }, numbers.stitchMm);
        sewing.add(kind, needles);
      }
  }
  const begin = sewing.at ?? from;
  for (const strand of sewRows(rows, numbers, "cover", begin, to)) {
    goTo(sewing, rows, { x: strand[0].needles[0], y: strand[0].needles[1] }, numbers.stitchMm);
    for (const { kind, needles } of strand) sewing.add(kind, needles);
  }
  return sewing.strands;
}

/** Goes to a place inside the area, under what is sewn later, if it can be reached; lifts the needle if not. */
function goTo(sewing: Sewing, rows: Rows, place: Point, stitchMm: number): void {
  if (!sewing.at) return;
  const [from, to] = [nearestSegment(rows, sewing.at, 0), nearestSegment(rows, place, 0)];
  const way = from && to && wayInside(rows, from, to, () => true);
  if (way) sewing.add("way", divideLine(fromFrameAll(rows, way), stitchMm).slice(2));
  else sewing.lift();
}

/** A run along each of the rings, the nearest first. */
function sewEdges(sewing: Sewing, rows: Rows, rings: readonly Ring[], numbers: FillNumbers, from: Point): void {
  for (const line of nearestFirst(rings, sewing.at ?? from)) {
    goTo(sewing, rows, { x: line[0], y: line[1] }, numbers.stitchMm);
    sewing.add("underlay", divideLine(line, numbers.runMm));
  }
}

/** The area's rows, each strand as far as cells hang together. */
function sewRows(rows: Rows, numbers: RowNumbers, kind: PieceKind, from: Point, to: Point): readonly Strand[] {
  const sewing = new Sewing();
  const isSewn = new Uint8Array(rows.cells.length);
  for (const group of groupCells(rows)) {
    sewing.lift();
    sewGroup(new RowSewer(rows, numbers, kind, sewing, isSewn), group, sewing.at ?? from, to);
  }
  return sewing.strands;
}

/** Cells that hang together. */
function groupCells({ cells }: Rows): readonly (readonly number[])[] {
  const isSeen = new Uint8Array(cells.length);
  return cells.flatMap((_, first) => {
    if (isSeen[first] === 1) return [];
    isSeen[first] = 1;
    const group = [first];
    for (let k = 0; k < group.length; k++)
      for (const next of [...cells[group[k]].above, ...cells[group[k]].below])
        if (isSeen[next] === 0) {
          isSeen[next] = 1;
          group.push(next);
        }
    return [group];
  });
}

/** Cells of a group, its tree's root where the needle is to come out. */
function sewGroup(sewer: RowSewer, group: readonly number[], from: Point, to: Point): void {
  const { rows } = sewer;
  const { cells, cell } = rows;
  const [start, end] = [nearestIn(rows, group, from), nearestIn(rows, group, to)];
  const root = cell[end.segment];
  const { parent, children } = growTree(rows, root);
  // What the needle begins in is sewn first.
  const isFirst = new Set<number>();
  for (let one = cell[start.segment]; one >= 0; one = parent.get(one) ?? -1) isFirst.add(one);
  sewer.begin(start);
  const visit = (one: number) => {
    const left = [...(children.get(one) ?? [])];
    while (left.length > 0) {
      const next = left.findIndex((child) => isFirst.has(child));
      const [child] = left.splice(next >= 0 ? next : sewer.nearest(left), 1);
      visit(child);
    }
    const { segments, above } = cells[one];
    const last = segments.length - 1;
    const over = parent.get(one) ?? -1;
    if (over >= 0) sewer.sew(one, above.includes(over) ? last : 0, above.includes(over) ? 0 : last);
    else {
      // From both ends towards the row at which it is left.
      const exit = rows.row[end.segment] - rows.row[segments[0]];
      if (exit > 0 && exit < last) sewer.sew(one, 0, exit - 1);
      sewer.sew(one, exit < last ? last : 0, exit, end.x);
    }
  };
  visit(root);
  sewer.finish();
}

/**
 * A tree of cells, depth first, on through each cell before back on its own side: so that most cells are sewn where the one
 * before ends, and few ways are needed.
 */
function growTree(
  { cells }: Rows,
  root: number,
): { readonly parent: ReadonlyMap<number, number>; readonly children: ReadonlyMap<number, readonly number[]> } {
  const parent = new Map<number, number>();
  const children = new Map<number, number[]>();
  const open: { cell: number; from: number }[] = [{ cell: root, from: -1 }];
  for (let next = open.pop(); next; next = open.pop()) {
    const { cell, from } = next;
    if (parent.has(cell)) continue;
    parent.set(cell, from);
    if (from >= 0) children.set(from, [...(children.get(from) ?? []), cell]);
    const { above, below } = cells[cell];
    const [back, on] = above.includes(from) ? [above, below] : [below, above];
    // The last that is put there is gone into first.
    for (const other of [...back, ...on]) if (!parent.has(other)) open.push({ cell: other, from: cell });
  }
  return { parent, children };
}

function nearestIn(rows: Rows, group: readonly number[], place: Point): Spot {
  const { x, y } = toFrame(rows, place);
  let best = { segment: rows.cells[group[0]].segments[0], x: 0, away: Number.POSITIVE_INFINITY };
  for (const cell of group)
    for (const segment of rows.cells[cell].segments) {
      const at = within(rows, [segment], x, 0);
      const away = (at - x) ** 2 + (heightOf(rows, rows.row[segment]) - y) ** 2;
      if (away < best.away) best = { segment, x: at, away };
    }
  return best;
}

function fromFrameAll(rows: Rows, points: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = 0; i < points.length; i += 2) out.push(...fromFrame(rows, points[i], points[i + 1]));
  return out;
}

/** Sews cells of rows, and knows where it is. */
class RowSewer {
  private at: Spot = { segment: 0, x: 0 };
  /** Rows that are sewn in one go, also from cell to cell where one begins beside the other's end. */
  private strand = new NeedleRow();

  constructor(
    readonly rows: Rows,
    private readonly numbers: RowNumbers,
    private readonly kind: PieceKind,
    private readonly sewing: Sewing,
    private readonly isSewn: Uint8Array,
  ) {}

  begin(at: Spot): void {
    this.at = at;
  }

  /** Which of some cells begins or ends nearest. */
  nearest(cells: readonly number[]): number {
    const { rows } = this;
    const y = heightOf(rows, rows.row[this.at.segment]);
    const aways = cells.map((cell) => {
      const { segments } = rows.cells[cell];
      return Math.min(
        ...[segments[0], segments[segments.length - 1]].map((segment) =>
          lengthOf(within(rows, [segment], this.at.x, 0) - this.at.x, heightOf(rows, rows.row[segment]) - y),
        ),
      );
    });
    return aways.indexOf(Math.min(...aways));
  }

  /**
   * Goes to one end of a cell and sews its rows up to another, by their numbers in it: from the nearer end of the first row, or
   * from the one from which it comes out near `endX`.
   */
  sew(cell: number, from: number, to: number, endX?: number): void {
    const { rows, numbers } = this;
    const { left, right } = rows;
    const { segments } = rows.cells[cell];
    const first = segments[from];
    const middleOf = (segment: number) => (left[segment] + right[segment]) / 2;
    let isForward = this.at.x <= middleOf(first);
    // Each row turns it round.
    if (endX !== undefined) isForward = endX > middleOf(segments[to]) === (Math.abs(to - from) % 2 === 0);
    const start = { segment: first, x: isForward ? left[first] : right[first] };
    if (!this.isBeside(start)) {
      this.finish();
      const way = wayInside(rows, this.at, start, (one) => this.isSewn[one] === 0) ?? [];
      // Its last point is where the row begins.
      this.sewing.add("way", divideLine(fromFrameAll(rows, way), numbers.stitchMm).slice(0, -2));
    }
    this.isSewn[cell] = 1;
    const step = from <= to ? 1 : -1;
    for (let i = from; ; i += step) {
      this.sewRow(segments[i], isForward, i === to ? null : segments[i + step]);
      isForward = !isForward;
      if (i === to) break;
    }
    const last = segments[to];
    this.at = { segment: last, x: isForward ? left[last] : right[last] };
  }

  /** Whether a row begins beside the end of what is sewn, as the next row of a cell does. */
  private isBeside({ segment, x }: Spot): boolean {
    const { rows, at, strand, numbers } = this;
    // Rows far apart end where the next of their own cell lies under them.
    if (numbers.turnsInside) return false;
    const down = rows.row[segment] - rows.row[at.segment];
    const overlap =
      Math.min(rows.right[segment], rows.right[at.segment]) - Math.max(rows.left[segment], rows.left[at.segment]);
    const away = lengthOf(x - at.x, down * rows.spacingMm);
    return strand.points.length > 0 && Math.abs(down) === 1 && overlap > 0 && away < BESIDE * rows.spacingMm;
  }

  /** Hands over what was sewn in one go. */
  finish(): void {
    this.sewing.add(this.kind, fromFrameAll(this.rows, this.strand.points));
    this.strand = new NeedleRow();
  }

  private sewRow(segment: number, isForward: boolean, next: number | null): void {
    const { rows, numbers, strand } = this;
    const { left, right } = rows;
    const y = heightOf(rows, rows.row[segment]);
    let [l, r] = [left[segment] - this.pullOf(segment, -1), right[segment] + this.pullOf(segment, 1)];
    if (numbers.turnsInside) {
      const lastX = strand.points.at(-2);
      if (isForward) [l, r] = [lastX ?? l, next === null ? r : Math.min(r, right[next])];
      else [l, r] = [next === null ? l : Math.max(l, left[next]), lastX ?? r];
    }
    const [x1, x2, onward] = isForward ? [l, r, 1] : [r, l, -1];
    this.goFar(x1, y, onward);
    strand.turnTo(x1, y, onward, x2);
    const { stitchMm } = numbers;
    const row = rows.row[segment];
    const off = (row * STAGGER - Math.floor(row * STAGGER)) * stitchMm;
    const inner: number[] = [];
    for (let x = Math.ceil((l + CLEAR_MM - off) / stitchMm) * stitchMm + off; x < r - CLEAR_MM; x += stitchMm)
      inner.push(x);
    for (const x of isForward ? inner : inner.reverse()) strand.to(x, y);
    strand.to(x2, y);
  }

  /**
   * Goes near the beginning x of the next row where it lies far from the end of the last, along the longer of both: what leads
   * straight from end to end would leave an area whose edge bends between them.
   */
  private goFar(x: number, y: number, onward: number): void {
    const { points } = this.strand;
    const [lastX, lastY] = points.slice(-2);
    const { stitchMm } = this.numbers;
    if (points.length === 0 || Math.abs(x - lastX) <= stitchMm) return;
    const out = Math.sign(x - lastX);
    const isLonger = out !== onward;
    for (let at = lastX + out * CLEAR_MM; (x - at) * out >= CLEAR_MM; at += out * stitchMm)
      this.strand.to(at, isLonger ? y : lastY);
  }

  /** How much longer a row is sewn at one end: never so far that it meets the next of its line. */
  private pullOf(segment: number, side: 1 | -1): number {
    const { rows } = this;
    const { left, right, row } = rows;
    const x = side === 1 ? right[segment] : left[segment];
    const pull = this.numbers.pullAt(...fromFrame(rows, x + side * PULL_LOOK_MM, heightOf(rows, row[segment])));
    const next = segment + side;
    if (row[next] !== row[segment]) return pull;
    const gap = side === 1 ? left[next] - right[segment] : left[segment] - right[next];
    return Math.max(0, Math.min(pull, gap / 2 - LEAST_STITCH_MM / 5));
  }
}
