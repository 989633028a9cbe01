// How closely stitches lie: where too many needle points in one place cut the cloth.
import { COMMANDS, type StitchPlan } from "./plan.ts";

/**
 * Needle points are counted in squares of this side, mm. In one of a millimetre every satin, and every edge where
 * rows turn, would hold more than four: what cuts cloth is closeness over more than one row (our own).
 */
export const DENSITY_CELL_MM = 3;

/** Needle points to a square millimetre in each square, row by row from the design's top left corner. */
export interface Density {
  readonly columns: number;
  readonly rows: number;
  readonly perMm2: Float32Array;
}

export function measureDensity(plan: StitchPlan): Density {
  const columns = Math.max(1, Math.ceil(plan.widthMm / DENSITY_CELL_MM));
  const rows = Math.max(1, Math.ceil(plan.heightMm / DENSITY_CELL_MM));
  const perMm2 = new Float32Array(columns * rows);
  plan.command.forEach((code, i) => {
    if (COMMANDS[code] !== "stitch") return;
    const [column, row] = [Math.floor(plan.x[i] / DENSITY_CELL_MM), Math.floor(plan.y[i] / DENSITY_CELL_MM)];
    if (column < 0 || row < 0 || column >= columns || row >= rows) return;
    perMm2[row * columns + column] += 1 / DENSITY_CELL_MM ** 2;
  });
  return { columns, rows, perMm2 };
}
