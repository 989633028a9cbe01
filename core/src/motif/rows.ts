// Rows: one motif many times, in a line or a grid, or along an arc.
import { turn } from "../raster/index.ts";

/** Lengths in one unit, whichever. */
export type Row =
  /** From the first, in columns and rows; every second row half a step further where it is staggered. */
  | {
      readonly kind: "grid";
      readonly columns: number;
      readonly rows: number;
      readonly stepX: number;
      readonly stepY: number;
      readonly angleDeg: number;
      readonly isStaggered: boolean;
    }
  /** On both sides of the middle of an arc that is arched over its centre, or hangs under it if the radius is negative. */
  | {
      readonly kind: "arc";
      readonly count: number;
      readonly radius: number;
      readonly spanDeg: number;
      readonly angleDeg: number;
      /** Whether each stands on the arc; else all stay upright. */
      readonly isTurned: boolean;
    };

/** Where one of them is, from the place of the row, and how it is turned. */
export interface RowStep {
  readonly dx: number;
  readonly dy: number;
  readonly angleDeg: number;
}

const STILL: RowStep = { dx: 0, dy: 0, angleDeg: 0 };
const WHOLE_DEG = 360;

/** How many a row has. */
export function copiesIn(row: Row | null): number {
  if (!row) return 1;
  return row.kind === "grid" ? row.columns * row.rows : row.count;
}

/** Where each of a row is; one alone, where there is no row. */
export function rowSteps(row: Row | null): RowStep[] {
  if (!row) return [STILL];
  const { sin, cos } = turn(row.angleDeg);
  const along = (x: number, y: number, angleDeg = 0): RowStep => ({
    dx: x * cos - y * sin,
    dy: x * sin + y * cos,
    angleDeg,
  });
  if (row.kind === "grid") {
    const { columns, rows, stepX, stepY, isStaggered } = row;
    return Array.from({ length: columns * rows }, (_, k) => {
      const line = (k - (k % columns)) / columns;
      const shift = isStaggered && line % 2 === 1 ? stepX / 2 : 0;
      return along((k % columns) * stepX + shift, line * stepY);
    });
  }
  const { count, radius, spanDeg, isTurned } = row;
  // All the way round, the last would lie on the first.
  const isRound = Math.abs(spanDeg) >= WHOLE_DEG;
  const step = count > 1 ? spanDeg / (isRound ? count : count - 1) : 0;
  const first = isRound || count === 1 ? 0 : -spanDeg / 2;
  return Array.from({ length: count }, (_, k) => {
    const deg = first + k * step;
    const own = turn(deg);
    const turned = radius < 0 ? -deg : deg;
    return along(Math.abs(radius) * own.sin, radius * (1 - own.cos), isTurned ? turned : 0);
  });
}
