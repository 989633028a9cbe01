// What every writer of shapes draws: for each colour its closed shapes, in the order in which they are laid down.
import type { Rgb } from "../colour/index.ts";
import { type CubicPath, lengthOf, partOfPath, segmentCount } from "../geometry/index.ts";
import type { Spot } from "../reduce/index.ts";
import { type Drawing, type PlanarMap, spotPaths, stackShapes } from "../trace/index.ts";

/** Abutting: neighbours meet at their shared boundary. Stacked: each colour is solid under what lies on it. */
export type Stacking = "abutting" | "stacked";

/** One colour's shapes, in source pixels. */
export interface ShapeGroup {
  readonly spot: Spot;
  /** Every shape as closed paths, outline and holes (even-odd). */
  readonly shapes: readonly (readonly CubicPath[])[];
  /** What its poured fills cover under lines; drawn first. */
  readonly under: readonly CubicPath[];
  /** Boundaries with colours that are drawn later. */
  readonly seams: readonly CubicPath[];
}

/** Lines beside the shapes, for whatever a machine does with them besides; open, or closed where they end where they begin. */
export interface LineGroup {
  readonly use: string;
  readonly rgb: Rgb;
  readonly lines: readonly CubicPath[];
}

/** Words beside the shapes; `sizePx` is their height, `turnDeg` clockwise. */
export interface WordGroup {
  readonly use: string;
  readonly rgb: Rgb;
  readonly sizePx: number;
  readonly words: readonly {
    readonly text: string;
    readonly x: number;
    readonly y: number;
    readonly turnDeg: number;
  }[];
}

/** A drawing of shapes at physical size. */
export interface ShapeDrawing {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly mmPerPx: number;
  readonly groups: readonly ShapeGroup[];
  readonly lines?: readonly LineGroup[];
  readonly words?: readonly WordGroup[];
}

/** Lays out shapes for writing. `spots` are in the order of laying down; those without shapes are left out. */
export function layShapes(
  map: Drawing,
  spots: readonly Spot[],
  mmPerPx: number,
  stacking: Stacking = "abutting",
): ShapeDrawing {
  const poured = new Set(map.below.flatMap(({ faces }) => faces.map(({ spotId }) => spotId)));
  // What runs under lines is drawn before them.
  const inOrder = [...spots.filter(({ id }) => poured.has(id)), ...spots.filter(({ id }) => !poured.has(id))];
  const order = inOrder.map(({ id }) => id);
  const stacked = stacking === "stacked" ? stackShapes(map, order) : null;
  const groups = inOrder.map((spot): ShapeGroup => {
    const faces = map.faces.filter((face) => face.spotId === spot.id);
    return {
      spot,
      shapes: stacked?.get(spot.id) ?? faces.map(({ paths }) => paths),
      under: map.below.flatMap((layer) => spotPaths(layer, spot.id)),
      seams: stacked ? [] : seamsOf(map, spot.id, order),
    };
  });
  return {
    widthPx: map.width,
    heightPx: map.height,
    mmPerPx,
    groups: groups.filter(({ shapes }) => shapes.length > 0),
  };
}

/** Boundaries with later colours, and cuts within the own one, short of where they would be seen to stick out. */
function seamsOf(map: PlanarMap, spotId: string, order: readonly string[]): CubicPath[] {
  const own = order.indexOf(spotId);
  const rankOf = (face: number) => (face < 0 ? -1 : order.indexOf(map.faces[face].spotId));
  return map.edges.flatMap(({ left, right, path, isCut }) => {
    const [a, b] = [rankOf(left), rankOf(right)];
    if (a === own && b === own && isCut) return shortened(path);
    return Math.min(a, b) === own && a !== b ? [path] : [];
  });
}

/** How much shorter than a cut its seam is at either end, px: there its width could stick out of the shape. */
const SHORTER_PX = 0.2;

/** A path a little short of its ends. */
function shortened(path: CubicPath): CubicPath[] {
  const last = segmentCount(path);
  const first = lengthOf(path[6] - path[0], path[7] - path[1]);
  const n = path.length;
  const final = lengthOf(path[n - 2] - path[n - 8], path[n - 1] - path[n - 7]);
  const [from, to] = [Math.min(0.4, SHORTER_PX / first), last - Math.min(0.4, SHORTER_PX / final)];
  return [partOfPath(path, from, to)];
}

/** A drawing of one colour only, on the same page as all. */
export function oneColour(drawing: ShapeDrawing, group: ShapeGroup): ShapeDrawing {
  return { ...drawing, groups: [{ ...group, seams: [] }] };
}

/** How far a colour reaches under the later one at a seam, each way: hidden, and at least so much of a pixel or a millimetre. */
const SEAM_PX = 0.75;
const SEAM_MM = 0.1;

/**
 * Width of the line, source pixels, by which a colour reaches under its later neighbours. Renderers blend both edges of two
 * abutting shapes with what is behind them; where the earlier colour is behind, no hairline shows and no edge moves.
 */
export function seamWidthPx({ mmPerPx }: ShapeDrawing): number {
  return 2 * Math.max(SEAM_PX, SEAM_MM / mmPerPx);
}
