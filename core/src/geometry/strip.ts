// A strip along one side of a boundary, as wide at each point as is said: what a trap or a lap spreads, and what a choke takes.
import { polygonPath } from "./cubic-path.ts";
import { type Polygons, toPolygons, turnPositive } from "./polygons.ts";
import { arcBetween, lengthOf } from "./vector.ts";

/**
 * How far a strip reaches over its boundary to the other side, and its pieces over each other, px: enough to be cut off along
 * the boundary itself, and for the grid to open no slit between pieces.
 */
const OVERLAP_PX = 0.02;
/** Pieces have at most so many points along the boundary: what is local can be clipped by what is near it alone. */
const MOST_POINTS = 24;
/** Of a side's length so much may be taken up by a mitre on the inside of a turn; more would fold the strip over itself. */
const MOST_OF_SIDE = 0.9;

/**
 * The strip on one side of a polyline `way` x, y, ... (`side` 1: on the right looking along it, y down; -1: left), with rounded
 * corners and, unless the line closes on itself, rounded ends. `widthsAlong` are source pixels, one for each point. It is a list of
 * overlapping pieces that all turn the positive way, so that by non-zero winding they are their union; curves of it are
 * within `tolerancePx`. It reaches over the boundary by a hair, for the caller to clip.
 */
export function stripBeside(
  way: readonly number[],
  widthsAlong: ArrayLike<number>,
  side: 1 | -1,
  tolerancePx: number,
): Polygons {
  const { points: line, values: widths } = dropEven(way, widthsAlong);
  const sides = measureSides(line, side);
  if (sides.length === 0) return [];
  const closes = line[0] === line[line.length - 2] && line[1] === line[line.length - 1];
  const strip = new StripPieces(line, widths, side, tolerancePx);
  const first = sides[0];
  const last = sides[sides.length - 1];
  // A closed line's seam is a turn like any other, though the strip is cut there.
  if (closes) strip.fan(first.from, last.nx, last.ny, first.nx, first.ny);
  else strip.fan(first.from, -first.dx, -first.dy, first.nx, first.ny);
  for (let s = 0; s < sides.length; s++) strip.along(sides[s - 1], sides[s], sides[s + 1]);
  strip.end();
  if (!closes) strip.fan(last.to, last.nx, last.ny, last.dx, last.dy);
  const pieces: Polygons = [];
  for (const piece of toPolygons(strip.pieces.map(polygonPath), 1)) pieces.push(turnPositive([piece])[0]);
  return pieces;
}

/** The pieces of a strip, side by side. */
class StripPieces {
  readonly pieces: number[][] = [];
  /** Of the piece under way: its points along the boundary, and those beyond it, which are reversed in the end, pairs included. */
  private near: number[] = [];
  private far: number[] = [];

  constructor(
    private readonly line: readonly number[],
    private readonly widths: readonly number[],
    private readonly side: 1 | -1,
    private readonly tolerancePx: number,
  ) {}

  /** Goes along one side, from the one before it to the one after, where there are any. */
  along(before: Side | undefined, one: Side, after: Side | undefined): void {
    // Where there is no strip the boundary is not to be touched.
    if (this.isNothing(one)) {
      this.end();
      return;
    }
    if (!before || this.isNothing(before)) this.addBy(one.from, one, -1);
    else {
      const mitre = mitreOf(before, one, this.widths[one.from], this.side, this.tolerancePx);
      if (mitre) this.add(one.from, mitre[0], mitre[1]);
      else {
        this.addBy(one.from, before, 1);
        this.end();
        this.fan(one.from, before.nx, before.ny, one.nx, one.ny);
        this.addBy(one.from, one, -1);
      }
    }
    if (this.near.length >= 2 * MOST_POINTS && this.isLong(one)) this.part(one);
    if (!after || this.isNothing(after)) this.addBy(one.to, one, 1);
  }

  /** Ends the piece under way. */
  end(): void {
    if (this.near.length >= 4) this.pieces.push([...this.near, ...this.far.reverse()]);
    this.near = [];
    this.far = [];
  }

  /** A sector round point `i`, from one direction to another. */
  fan(i: number, fromX: number, fromY: number, toX: number, toY: number): void {
    const radius = this.widths[i];
    if (radius <= 0) return;
    const x = this.line[i * 2];
    const y = this.line[i * 2 + 1];
    const sector = [x, y];
    const arc = arcBetween(fromX, fromY, toX, toY, stepCosine(radius, this.tolerancePx));
    for (let k = 0; k < arc.length; k += 2) sector.push(x + radius * arc[k], y + radius * arc[k + 1]);
    this.pieces.push(sector);
  }

  /** A pair of points across the strip at point `i`. */
  private add(i: number, nx: number, ny: number): void {
    this.addAcross(this.line[i * 2], this.line[i * 2 + 1], this.widths[i], nx, ny);
  }

  /** The same where a piece begins or ends at that end of a side: a hair before or after it. */
  private addBy(i: number, { dx, dy, nx, ny }: Side, sign: 1 | -1): void {
    const hair = sign * OVERLAP_PX;
    this.addAcross(this.line[i * 2] + hair * dx, this.line[i * 2 + 1] + hair * dy, this.widths[i], nx, ny);
  }

  private addAcross(x: number, y: number, width: number, nx: number, ny: number): void {
    this.near.push(x - nx * OVERLAP_PX, y - ny * OVERLAP_PX);
    this.far.push(y + ny * width, x + nx * width);
  }

  /** Ends a piece in the middle of a side and begins the next there. */
  private part({ from, to, nx, ny, dx, dy }: Side): void {
    const { line, widths } = this;
    const x = (line[from * 2] + line[to * 2]) / 2;
    const y = (line[from * 2 + 1] + line[to * 2 + 1]) / 2;
    const width = (widths[from] + widths[to]) / 2;
    this.addAcross(x + dx * OVERLAP_PX, y + dy * OVERLAP_PX, width, nx, ny);
    this.end();
    this.addAcross(x - dx * OVERLAP_PX, y - dy * OVERLAP_PX, width, nx, ny);
  }

  private isNothing({ from, to }: Side): boolean {
    return this.widths[from] <= 0 && this.widths[to] <= 0;
  }

  /** Whether mitres at both its ends leave something of a side's middle. */
  private isLong({ from, to, length }: Side): boolean {
    const width = Math.max(this.widths[from], this.widths[to]);
    const cosine = stepCosine(width, this.tolerancePx);
    return length > 2 * width * Math.sqrt((1 - cosine) / (1 + cosine)) + 4 * OVERLAP_PX;
  }
}

/** One side of a polyline that has a length: its ends by number, its direction, and its normal towards the strip. */
interface Side {
  readonly from: number;
  readonly to: number;
  readonly length: number;
  readonly dx: number;
  readonly dy: number;
  readonly nx: number;
  readonly ny: number;
}

function measureSides(line: readonly number[], side: 1 | -1): Side[] {
  const sides: Side[] = [];
  let from = 0;
  for (let to = 1; to < line.length / 2; to++) {
    const dx = line[to * 2] - line[from * 2];
    const dy = line[to * 2 + 1] - line[from * 2 + 1];
    const length = lengthOf(dx, dy);
    if (length === 0) continue;
    const [ux, uy] = [dx / length, dy / length];
    sides.push({ from, to, length, dx: ux, dy: uy, nx: -uy * side, ny: ux * side });
    from = to;
  }
  return sides;
}

/** Where two sides' offset lines meet, as a multiple of the width; null where the turn has to be rounded or would fold. */
function mitreOf(before: Side, after: Side, width: number, side: 1 | -1, tolerancePx: number): [number, number] | null {
  const cosine = before.nx * after.nx + before.ny * after.ny;
  if (cosine < stepCosine(width, tolerancePx) || cosine <= 0) return null;
  const turn = (before.dx * after.dy - before.dy * after.dx) * side;
  // On the inside of a turn the offset lines meet before their sides end: by the tangent of half the turn.
  const shortened = turn > 0 ? (width * turn) / (1 + cosine) : 0;
  if (shortened > MOST_OF_SIDE * Math.min(before.length, after.length)) return null;
  return [(before.nx + after.nx) / (1 + cosine), (before.ny + after.ny) / (1 + cosine)];
}

/** Cosine of the largest step of an arc of this radius whose chord stays within the tolerance. */
function stepCosine(radius: number, tolerancePx: number): number {
  const half = Math.max(0.5, 1 - tolerancePx / Math.max(radius, tolerancePx));
  return 2 * half * half - 1;
}

/** How far a point that lies on its line may be off it by rounding, px. */
const ROUNDING_PX = 1e-9;

/** A polyline with a value at each point, without the points inside a straight part along which the value stays the same. */
function dropEven(
  line: readonly number[],
  values: ArrayLike<number>,
): { readonly points: readonly number[]; readonly values: readonly number[] } {
  const points: number[] = [];
  const kept: number[] = [];
  const last = line.length / 2 - 1;
  for (let i = 0; i <= last; i++) {
    const isEven = i > 0 && i < last && values[i] === values[i - 1] && values[i] === values[i + 1];
    if (isEven && isOnWay(line, i)) continue;
    points.push(line[i * 2], line[i * 2 + 1]);
    kept.push(values[i]);
  }
  return { points, values: kept };
}

/** Whether a point lies on the straight way from the one before it to the next. */
function isOnWay(line: readonly number[], i: number): boolean {
  const o = i * 2;
  const [ux, uy] = [line[o] - line[o - 2], line[o + 1] - line[o - 1]];
  const [vx, vy] = [line[o + 2] - line[o], line[o + 3] - line[o + 1]];
  const length = lengthOf(ux + vx, uy + vy);
  return ux * vx + uy * vy > 0 && Math.abs(ux * vy - uy * vx) <= ROUNDING_PX * length;
}
