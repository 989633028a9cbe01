// What the person does to the traced shapes, in order: each entry can be switched off, changed and taken out.
import { type Frame, invertMap, mapPoint } from "../raster/index.ts";
import type { Simplification } from "../trace/index.ts";
import { point, spotIdSchema, z } from "../zod/index.ts";
import { entry } from "./actions.ts";

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
]);
export type ShapeEntry = z.infer<typeof shapeEntrySchema>;
export type SimplifyEntry = Extract<ShapeEntry, { kind: "simplify" }>;

/** Those that are on, with their places in the pixels of the prepared picture. */
export function placeSimplifications(entries: readonly SimplifyEntry[], frame: Frame): Simplification[] {
  const toPrepared = invertMap(frame.toSource);
  return entries
    .filter(({ isOn }) => isOn)
    .map(({ tolerancePx, scope }) => ({
      tolerancePx,
      scope: scope.kind === "shape" ? { kind: scope.kind, at: mapPoint(toPrepared, scope.at) } : scope,
    }));
}
