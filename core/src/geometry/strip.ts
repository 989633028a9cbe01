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
  const pieces: number[][] = [];
  const sides = measureSides(line, side);
  if (sides.length === 0) return [];
  const closes = line[0] === line[line.length - 2] && line[1] === line[line.length - 1];
  let near: number[] = [];
  let far: number[] = [];
  const end = () => {
    if (near.length >= 4) pieces.push([...near, ...far.reverse()]);
    near = [];
    far = [];
  };
  const addAcross = (x: number, y: number, width: number, nx: number, ny: number) => {
    near.push(x - nx * OVERLAP_PX, y - ny * OVERLAP_PX);
    // Reversed as a whole at the end, pairs included.
    far.push(y + ny * width, x + nx * width);
  };
  /** A pair of points across the strip at point `i`; where a piece begins or ends, a hair before or after it. */
  const add = (i: number, nx: number, ny: number, along: readonly [number, number] = [0, 0]) =>
    addAcross(line[i * 2] + along[0], line[i * 2 + 1] + along[1], widths[i], nx, ny);
  /** Ends a piece in the middle of a side and begins the next there. */
  const part = ({ from, to, nx, ny, dx, dy }: Side) => {
    const x = (line[from * 2] + line[to * 2]) / 2;
    const y = (line[from * 2 + 1] + line[to * 2 + 1]) / 2;
    const width = (widths[from] + widths[to]) / 2;
    addAcross(x + dx * OVERLAP_PX, y + dy * OVERLAP_PX, width, nx, ny);
    end();
    addAcross(x - dx * OVERLAP_PX, y - dy * OVERLAP_PX, width, nx, ny);
  };
  const fan = (i: number, fromX: number, fromY: number, toX: number, toY: number) => {
    const radius = widths[i];
    if (radius <= 0) return;
    const [x, y] = [line[i * 2], line[i * 2 + 1]];
    const sector = [x, y];
    const arc = arcBetween(fromX, fromY, toX, toY, stepCosine(radius, tolerancePx));
    for (let k = 0; k < arc.length; k += 2) sector.push(x + radius * arc[k], y + radius * arc[k + 1]);
    pieces.push(sector);
  };
  const isNothing = ({ from, to }: Side) => widths[from] <= 0 && widths[to] <= 0;
  /** Whether mitres at both its ends leave something of a side's middle. */
  const isLong = ({ from, to, length }: Side) => {
    const width = Math.max(widths[from], widths[to]);
    const cosine = stepCosine(width, tolerancePx);
    return length > 2 * width * Math.sqrt((1 - cosine) / (1 + cosine)) + 4 * OVERLAP_PX;
  };
  const first = sides[0];
  const last = sides[sides.length - 1];
  // A closed line's seam is a turn like any other, though the strip is cut there.
  if (closes) fan(first.from, last.nx, last.ny, first.nx, first.ny);
  else fan(first.from, -first.dx, -first.dy, first.nx, first.ny);
  sides.forEach((one, s) => {
    // Where there is no strip the boundary is not to be touched.
    if (isNothing(one)) {
      end();
      return;
    }
    const before = s > 0 ? sides[s - 1] : null;
    if (!before || isNothing(before)) add(one.from, one.nx, one.ny, hair(one, -1));
    else {
      const mitre = mitreOf(before, one, widths[one.from], side, tolerancePx);
      if (mitre) add(one.from, mitre[0], mitre[1]);
      else {
        add(one.from, before.nx, before.ny, hair(before, 1));
        end();
        fan(one.from, before.nx, before.ny, one.nx, one.ny);
        add(one.from, one.nx, one.ny, hair(one, -1));
      }
    }
    if (near.length >= 2 * MOST_POINTS && isLong(one)) part(one);
    const after = sides[s + 1];
    if (!after || isNothing(after)) add(one.to, one.nx, one.ny, hair(one, 1));
  });
  end();
  if (!closes) fan(last.to, last.nx, last.ny, last.dx, last.dy);
  return toPolygons(pieces.map(polygonPath), 1).flatMap((piece) => turnPositive([piece]));
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

function hair({ dx, dy }: Side, sign: 1 | -1): readonly [number, number] {
  return [sign * OVERLAP_PX * dx, sign * OVERLAP_PX * dy];
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
