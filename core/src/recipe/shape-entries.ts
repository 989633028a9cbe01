// What the person does to the traced shapes, in order: each entry can be switched off, changed and taken out.
import { coordinate, PX, pictureUnits, point, spotIdSchema, z } from "../zod/index.ts";
import { entry, path } from "./actions.ts";
import { curve, lengthPx, pick, side } from "./curves.ts";
import { letteringSchema } from "./lettering-entry.ts";
import { motifEntrySchema } from "./motif-entry.ts";

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
