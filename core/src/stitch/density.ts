// How closely stitches lie: where too many needle points, or layers of thread, in one place cut the cloth.
import { lengthOf } from "../geometry/index.ts";
import { COMMANDS, STITCH_KINDS, type StitchKind, type StitchPlan } from "./plan.ts";
import { THREAD_MM } from "./stitches-svg.ts";

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
  const { columns, rows, cellAt } = squaresOf(plan, DENSITY_CELL_MM);
  const perMm2 = new Float32Array(columns * rows);
  plan.command.forEach((code, i) => {
    if (COMMANDS[code] !== "stitch") return;
    const cell = cellAt(plan.x[i], plan.y[i]);
    if (cell >= 0) perMm2[cell] += 1 / DENSITY_CELL_MM ** 2;
  });
  return { columns, rows, perMm2 };
}

/** A design in squares, row by row from its top left corner; -1 for what lies outside. */
function squaresOf(
  { widthMm, heightMm }: StitchPlan,
  sideMm: number,
): { columns: number; rows: number; cellAt(x: number, y: number): number } {
  const columns = Math.max(1, Math.ceil(widthMm / sideMm));
  const rows = Math.max(1, Math.ceil(heightMm / sideMm));
  return {
    ...{ columns, rows },
    cellAt: (x, y) => {
      const [column, row] = [Math.floor(x / sideMm), Math.floor(y / sideMm)];
      return column < 0 || row < 0 || column >= columns || row >= rows ? -1 : row * columns + column;
    },
  };
}

/** Layers are counted in squares of this side, mm. One is full where thread covers half of the square or more (our own). */
export const LAYER_CELL_MM = 0.5;
const FULL_MM = (LAYER_CELL_MM * LAYER_CELL_MM) / THREAD_MM / 2;
/** Thread is followed in steps of this length, mm. */
const STEP_MM = 0.2;
/** What lies on the cloth as a layer of its own. */
const LAYING: ReadonlySet<StitchKind> = new Set(["cover", "border"]);

/** Full layers of thread in each square, row by row from the design's top left corner: areas and borders, underlay apart. */
export interface Layers {
  readonly columns: number;
  readonly rows: number;
  readonly layers: Uint8Array;
}

export function measureLayers(plan: StitchPlan): Layers {
  const { columns, rows, cellAt } = squaresOf(plan, LAYER_CELL_MM);
  const layers = new Uint8Array(columns * rows);
  const laid = new Float32Array(columns * rows);
  const last = new Int32Array(columns * rows).fill(-1);
  for (let i = 1; i < plan.command.length; i++) {
    const kind = STITCH_KINDS[plan.kind[i]];
    if (!LAYING.has(kind) || COMMANDS[plan.command[i]] !== "stitch" || COMMANDS[plan.command[i - 1]] !== "stitch")
      continue;
    const layer = plan.area[i] * 2 + (kind === "border" ? 1 : 0);
    const [x, y, dx, dy] = [plan.x[i - 1], plan.y[i - 1], plan.x[i] - plan.x[i - 1], plan.y[i] - plan.y[i - 1]];
    const steps = Math.max(1, Math.ceil(lengthOf(dx, dy) / STEP_MM));
    const stepMm = lengthOf(dx, dy) / steps;
    for (let k = 0; k < steps; k++) {
      const t = (k + 0.5) / steps;
      const cell = cellAt(x + t * dx, y + t * dy);
      if (cell < 0) continue;
      if (last[cell] !== layer) {
        last[cell] = layer;
        laid[cell] = 0;
      }
      const isFull = laid[cell] >= FULL_MM;
      laid[cell] += stepMm;
      if (!isFull && laid[cell] >= FULL_MM) layers[cell]++;
    }
  }
  return { columns, rows, layers };
}
