// Templates: what stones are brushed into. A hole for each, a little wider than the stone, and holes by which templates are laid on
// each other.
import type { Rgb } from "../colour/index.ts";
import { type Contour, type CutPlan, planOf } from "../cut/index.ts";
import type { ShapeDrawing } from "../formats/index.ts";
import { type CubicPath, flattenPath } from "../geometry/index.ts";
import { circlePath } from "../trace/index.ts";
import { diameterOf, STONE_SIZES } from "../trade/index.ts";
import type { Stone } from "./stones.ts";
import type { TemplateSplit } from "./ways.ts";

/** A hole is so much wider than its stone, mm (from memory). */
export const HOLE_MM = 0.25;
/** Outside the design so much of the template is left, and in it lie holes of this width, mm (our own). */
export const MARGIN_MM = 14;
const REGISTER_MM = 4;
/** Where those holes lie, from the margin's middle at the top left, as shares of its width and height: no turn or flip looks alike. */
const REGISTERS = [
  [0, 0],
  [1, 0],
  [0, 1],
  [0.5, 0],
] as const;
const CUT: Rgb = [255, 0, 255];

export interface Template {
  /** What it holds: "all", a size, or a spot's id. */
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
): Template[] {
  const [width, height] = [widthMm + 2 * MARGIN_MM, heightMm + 2 * MARGIN_MM];
  const hole = (x: number, y: number, diameterMm: number): CubicPath =>
    circlePath(isMirrored ? width - x : x, y, diameterMm / 2, true);
  const registers = REGISTERS.map(([across, down]) =>
    hole(MARGIN_MM / 2 + across * (width - MARGIN_MM), MARGIN_MM / 2 + down * (height - MARGIN_MM), REGISTER_MM),
  );
  return partStones(stones, split).map(({ name, own }) => ({
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

function partStones(stones: readonly Stone[], split: TemplateSplit): { name: string; own: readonly Stone[] }[] {
  if (split === "one") return [{ name: "all", own: stones }];
  const nameOf = ({ size, spotId }: Stone) => (split === "sizes" ? size : spotId);
  return [...new Set(stones.map(nameOf))].map((name) => ({ name, own: stones.filter((one) => nameOf(one) === name) }));
}

/** How wide the strips are in which a cutter goes through the holes, to and fro, mm. */
const STRIP_MM = 12;
/** Holes are cut as lines that stay this near, mm: half a step of the plotter language. */
const FLATTEN_MM = 0.0125;

/** A template's holes in the order in which they are cut, from strip to strip. */
export function planHoles({ drawing: { widthPx, heightPx, lines = [] } }: Template): CutPlan {
  const holes = lines.flatMap(({ lines: paths }) => paths).map((path) => flattenPath(path, FLATTEN_MM));
  const strips = new Map<number, number[][]>();
  for (const hole of holes) {
    const strip = Math.floor(hole[1] / STRIP_MM);
    const own = strips.get(strip);
    if (own) own.push(hole);
    else strips.set(strip, [hole]);
  }
  const inOrder = [...strips]
    .sort(([one], [other]) => one - other)
    .flatMap(([, own], i) => own.sort((one, other) => (i % 2 === 0 ? 1 : -1) * (one[0] - other[0])));
  return planOf(
    widthPx,
    heightPx,
    inOrder.map((hole): Contour => {
      // From y down to y up.
      const points = Float64Array.from(hole, (v, i) => (i % 2 === 0 ? v : heightPx - v));
      return { points, kind: "hole" };
    }),
  );
}
