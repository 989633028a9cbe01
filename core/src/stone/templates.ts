// Templates: what stones are brushed into. A hole for each, a little wider than the stone, and holes by which templates are laid on
// each other.
import type { Rgb } from "../colour/index.ts";
import type { ShapeDrawing } from "../formats/index.ts";
import type { CubicPath } from "../geometry/index.ts";
import { circlePath } from "../trace/index.ts";
import { diameterOf, STONE_SIZES } from "./sizes.ts";
import type { Stone } from "./stones.ts";

/** A hole is so much wider than its stone, mm (from memory). */
export const HOLE_MM = 0.25;
/** Outside the design so much of the template is left, and in it lie holes of this width, mm (our own). */
const MARGIN_MM = 14;
const REGISTER_MM = 4;
/** Where those holes lie, from the margin's middle at the top left, as shares of its width and height: no turn or flip looks alike. */
const REGISTERS = [
  [0, 0],
  [1, 0],
  [0, 1],
  [0.5, 0],
] as const;
const CUT: Rgb = [255, 0, 255];

/** One template for all stones, or for each size or colour. */
export const TEMPLATE_SPLITS = ["one", "sizes", "colours"] as const;
export type TemplateSplit = (typeof TEMPLATE_SPLITS)[number];

export interface Template {
  /** What it holds, as a file's name says it. */
  readonly name: string;
  readonly stones: number;
  /** In millimetres; the design's corner lies MARGIN_MM inside it. */
  readonly drawing: ShapeDrawing;
}

/** The templates of a design, each with the same outline and the same holes to lay it by. Mirrored they are cut from behind. */
export function layTemplates(
  stones: readonly Stone[],
  { widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number },
  split: TemplateSplit,
  isMirrored: boolean,
  nameOf: (spotId: string) => string,
): Template[] {
  const [width, height] = [widthMm + 2 * MARGIN_MM, heightMm + 2 * MARGIN_MM];
  const hole = (x: number, y: number, diameterMm: number): CubicPath =>
    circlePath(isMirrored ? width - x : x, y, diameterMm / 2, true);
  const registers = REGISTERS.map(([across, down]) =>
    hole(MARGIN_MM / 2 + across * (width - MARGIN_MM), MARGIN_MM / 2 + down * (height - MARGIN_MM), REGISTER_MM),
  );
  return partStones(stones, split, nameOf).map(({ name, own }) => ({
    name,
    stones: own.length,
    drawing: {
      ...{ widthPx: width, heightPx: height, mmPerPx: 1, groups: [] },
      lines: [
        // Holes by size: each is a layer of its own.
        ...STONE_SIZES.flatMap((size) => {
          const holes = own.filter((stone) => stone.size === size);
          const lines = holes.map(({ x, y }) => hole(x + MARGIN_MM, y + MARGIN_MM, diameterOf(size) + HOLE_MM));
          return lines.length > 0 ? [{ use: `holes ${size}`, rgb: CUT, lines }] : [];
        }),
        { use: "register", rgb: CUT, lines: registers },
      ],
    },
  }));
}

function partStones(
  stones: readonly Stone[],
  split: TemplateSplit,
  nameOf: (spotId: string) => string,
): { name: string; own: readonly Stone[] }[] {
  if (split === "one") return [{ name: "all", own: stones }];
  const keyOf = ({ size, spotId }: Stone) => (split === "sizes" ? size : spotId);
  const keys = [...new Set(stones.map(keyOf))];
  return keys.map((key) => ({
    name: split === "sizes" ? key : nameOf(key),
    own: stones.filter((stone) => keyOf(stone) === key),
  }));
}
