// Stones as an open list: comment lines first, then a row for each; mm from the design's top left corner, x right, y down.
import Papa from "papaparse";
import { formatHex, type Rgb } from "../colour/index.ts";
import { diameterOf } from "../trade/index.ts";
import type { Stone } from "./stones.ts";

const COLUMNS = ["x_mm", "y_mm", "size", "diameter_mm", "colour", "spot_id"];
/** Places are written to a thousandth of a millimetre. */
const DIGITS = 3;

export interface StoneListFacts {
  readonly job: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** What each spot's stones are called, by id: the shelf's code and name, or the spot's. */
  readonly nameOf: (spotId: string) => string;
  /** What colour each spot's stones are. */
  readonly spots: readonly { readonly id: string; readonly rgb: Rgb }[];
}

export function writeStonesCsv(
  stones: readonly Stone[],
  { job, widthMm, heightMm, nameOf, spots }: StoneListFacts,
): string {
  const comments = [
    "Stone list, millimetres from the top left corner of the design, x right, y down",
    `job: ${job}`,
    `size: ${widthMm.toFixed(2)} x ${heightMm.toFixed(2)} mm`,
    `stones: ${stones.length}`,
    ...spots
      .filter(({ id }) => stones.some(({ spotId }) => spotId === id))
      .map(({ id, rgb }, i) => `spot ${i + 1}: ${id} ${formatHex(rgb)}`),
  ].map((line) => `# ${line.replace(/\s+/g, " ")}`);
  const rows = stones.map(({ x, y, size, spotId }) => [
    ...[x.toFixed(DIGITS), y.toFixed(DIGITS), size, diameterOf(size)],
    ...[nameOf(spotId), spotId],
  ]);
  const table = Papa.unparse({ fields: COLUMNS, data: rows }, { newline: "\n", escapeFormulae: true });
  return `${[...comments, table].join("\n")}\n`;
}
