// What the person does to the traced shapes, in order: each entry can be switched off, changed and taken out.
import { type Edit, figurePaths, type NamedEdit } from "../edit/index.ts";
import { type CubicPath, mapPath } from "../geometry/index.ts";
import { type Frame, type Homography, invertMap, mapLine, mapPoint, type Point, turn } from "../raster/index.ts";
import { coordinate, PX, pictureUnits, point, spotIdSchema, z } from "../zod/index.ts";
import { entry, path } from "./actions.ts";
import { curve, lengthPx, pick, side } from "./curves.ts";
import { layLettering, letteringSchema } from "./lettering-entry.ts";
import type { Library } from "./library.ts";
import { inverse, localMap, type Matrix, scaleAt, times } from "./local-map.ts";
import { layMotifEntry, motifEntrySchema } from "./motif-entry.ts";

const angleDeg = z.number().min(-360).max(360).default(0);

const figureSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("ellipse"), at: point, width: lengthPx, height: lengthPx, angleDeg }),
  z.object({
    kind: z.literal("rectangle"),
    at: point,
    width: lengthPx,
    height: lengthPx,
    radius: z.number().min(0).max(200_000).register(pictureUnits, PX).default(0),
    angleDeg,
  }),
  z.object({
    kind: z.literal("polygon"),
    at: point,
    width: lengthPx,
    corners: z.number().int().min(3).max(24),
    angleDeg,
  }),
  z.object({ kind: z.literal("stroke"), curve, width: lengthPx }),
  z.object({ kind: z.literal("outline"), curves: z.array(curve).min(1).max(200) }),
]);

/** Places are the client's pixels, so that cropping or turning later picks no other shape. */
export const shapeEntrySchema = z.discriminatedUnion("kind", [
  /** Fewer nodes: in all shapes, in those of one spot, or in the one at a place. */
  entry.extend({
    kind: z.literal("simplify"),
    tolerancePx: z.number().min(0.05).max(10),
    scope: z.discriminatedUnion("kind", [
      z.object({ kind: z.literal("all") }),
      z.object({ kind: z.literal("spot"), spotId: spotIdSchema }),
      z.object({ kind: z.literal("shape"), at: point }),
    ]),
  }),
  /** Stretches of boundaries drawn anew: nodes moved, put in, taken out. */
  entry.extend({
    kind: z.literal("line"),
    changes: z
      .array(z.object({ was: curve, now: curve, left: side, right: side }))
      .min(1)
      .max(400),
  }),
  /** A figure laid down in a spot, or as a hole; `onlyOn`: only where that spot is. */
  entry.extend({
    kind: z.literal("draw"),
    act: z.enum(["draw", "part", "join"]).default("draw"),
    figure: figureSchema,
    spotId: side,
    onlyOn: side.default(null),
    /** Changed by no simplifying. */
    isHeld: z.boolean().default(false),
    /** A measure on the garment that stays, whatever the print's size: the width of a figure that is held. */
    heldMm: z.number().min(0.05).max(2000).nullable().default(null),
  }),
  /** A line along which shapes of a spot are parted, without a gap. */
  entry.extend({ kind: z.literal("cut"), curve, spotId: spotIdSchema }),
  /** Shapes with what they enclose. */
  entry.extend({
    kind: z.literal("pieces"),
    picks: z.array(pick).min(1).max(400),
    stays: z.union([z.enum(["kept", "away"]), z.object({ spotId: side })]),
    placed: z
      .array(
        z.object({
          dx: coordinate,
          dy: coordinate,
          angleDeg,
          scaleX: z.number().min(-100).max(100).default(1),
          scaleY: z.number().min(-100).max(100).default(1),
        }),
      )
      .max(200)
      .default([]),
    over: z.array(pick).max(400).default([]),
  }),
  /** A round shape, or a hole (null), made a true circle and held. */
  entry.extend({ kind: z.literal("round"), at: point, spotId: side, diameterMm: z.number().min(0.05).max(2000) }),
  /** A brush along boundaries. */
  entry.extend({
    kind: z.literal("brush"),
    points: path,
    radiusPx: lengthPx,
    strengthPx: lengthPx,
    does: z.enum(["smooth", "straighten"]),
    keepsCorners: z.boolean().default(true),
  }),
  letteringSchema,
  motifEntrySchema,
]);
export type ShapeEntry = z.infer<typeof shapeEntrySchema>;
export type ShapeEntryOf<K extends ShapeEntry["kind"]> = Extract<ShapeEntry, { kind: K }>;
export type SimplifyEntry = ShapeEntryOf<"simplify">;

/** A shape entry of which some is said; the rest is as usual. */
export function makeShapeEntry(parts: z.input<typeof shapeEntrySchema>): ShapeEntry {
  return shapeEntrySchema.parse(parts);
}

/** Those that are on, with their places in the pixels of the prepared picture, of which one is `mmPerPx` wide on the garment. */
export function placeEdits(
  entries: readonly ShapeEntry[],
  frame: Frame,
  mmPerPx: number,
  { typefaces, motifs }: Library,
): NamedEdit[] {
  const toPrepared = invertMap(frame.toSource);
  const placed = (one: ShapeEntry) => {
    if (one.kind === "lettering") return layLettering(one, toPrepared, typefaces);
    if (one.kind === "motif") return layMotifEntry(one, toPrepared, motifs);
    return placeEdit(one, toPrepared, mmPerPx);
  };
  return entries.filter(({ isOn }) => isOn).map((one) => ({ id: one.id, edit: placed(one) }));
}

/** Every spot that entries name, in force or not. */
export function spotsInEntries(entries: readonly ShapeEntry[]): Set<string> {
  const named = new Set<string>();
  JSON.stringify(entries, (key, value) => {
    const ids: readonly unknown[] = key === "spots" ? value : key === "spotId" || key === "onlyOn" ? [value] : [];
    for (const id of ids) if (typeof id === "string") named.add(id);
    return value;
  });
  return named;
}

/** Whether any of them has a measure of the garment. */
export function haveMeasures(entries: readonly ShapeEntry[]): boolean {
  return entries.some((one) => one.isOn && (one.kind === "round" || (one.kind === "draw" && one.heldMm !== null)));
}

function placeEdit(
  one: Exclude<ShapeEntry, { kind: "lettering" | "motif" }>,
  toPrepared: Homography,
  mmPerPx: number,
): Edit {
  const place = (at: Point) => mapPoint(toPrepared, at);
  const line = (numbers: readonly number[]): CubicPath => Float64Array.from(mapLine(toPrepared, numbers));
  const picks = (all: readonly z.infer<typeof pick>[]) => all.map(({ at, spotId }) => ({ at: place(at), spotId }));
  switch (one.kind) {
    case "simplify": {
      const { tolerancePx, scope } = one;
      return {
        ...{ kind: one.kind, tolerancePx },
        scope: scope.kind === "shape" ? { kind: scope.kind, at: place(scope.at) } : scope,
      };
    }
    case "line":
      return {
        kind: one.kind,
        changes: one.changes.map((change) => ({ ...change, was: line(change.was), now: line(change.now) })),
      };
    case "draw": {
      const { figure, spotId, isHeld, onlyOn } = one;
      const held = one.heldMm === null ? figure : holdFigure(figure, one.heldMm / mmPerPx, toPrepared);
      const paths = figurePaths(held).map((path) => mapPath(path, (x, y) => xy(place({ x, y }))));
      return { kind: "lay", paths, spotId, isHeld: isHeld || one.heldMm !== null, onlyOn };
    }
    case "cut":
      return { kind: one.kind, path: line(one.curve), spotId: one.spotId };
    case "pieces": {
      const placed = one.placed.map(({ dx, dy, angleDeg: angle, scaleX, scaleY }) => {
        const near = localMap(toPrepared, one.picks[0].at);
        const { sin, cos } = turn(angle);
        const own: Matrix = [cos * scaleX, -sin * scaleY, sin * scaleX, cos * scaleY];
        const [mx, my] = [near[0] * dx + near[1] * dy, near[2] * dx + near[3] * dy];
        return { dx: mx, dy: my, matrix: times(times(near, own), inverse(near)) };
      });
      return { kind: one.kind, picks: picks(one.picks), stays: one.stays, placed, over: picks(one.over) };
    }
    case "round":
      return { kind: one.kind, at: place(one.at), spotId: one.spotId, diameterPx: one.diameterMm / mmPerPx };
    case "brush": {
      const scale = scaleAt(toPrepared, { x: one.points[0], y: one.points[1] });
      return {
        ...{ kind: one.kind, does: one.does, keepsCorners: one.keepsCorners },
        points: mapLine(toPrepared, one.points),
        radiusPx: one.radiusPx * scale,
        strengthPx: one.strengthPx * scale,
      };
    }
  }
}

const xy = ({ x, y }: Point) => [x, y] as const;

/** A figure of this width, px of the prepared picture, its proportions kept. */
function holdFigure(figure: z.infer<typeof figureSchema>, widthPx: number, toPrepared: Homography) {
  if (!("at" in figure)) return figure;
  const factor = widthPx / (figure.width * scaleAt(toPrepared, figure.at));
  const grown = { ...figure, width: figure.width * factor };
  if (grown.kind === "polygon") return grown;
  const height = grown.height * factor;
  return grown.kind === "ellipse" ? { ...grown, height } : { ...grown, height, radius: grown.radius * factor };
}
