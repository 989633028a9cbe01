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
  const columns = Math.max(1, Math.ceil(plan.widthMm / LAYER_CELL_MM));
  const rows = Math.max(1, Math.ceil(plan.heightMm / LAYER_CELL_MM));
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
      const [column, row] = [Math.floor((x + t * dx) / LAYER_CELL_MM), Math.floor((y + t * dy) / LAYER_CELL_MM)];
      if (column < 0 || row < 0 || column >= columns || row >= rows) continue;
      const cell = row * columns + column;
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
