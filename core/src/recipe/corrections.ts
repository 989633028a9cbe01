// Corrections to which place is which spot: an area given another one, poured full, or divided by a drawn line.
import { type Frame, invertMap, mapLine, mapPoint } from "../raster/index.ts";
import { coordinate, point, spotIdSchema, z } from "../zod/index.ts";
import { entry, path } from "./actions.ts";

/** Which areas: that at the place, all of its colour that lines enclose, all of its colour, or all in a drawn loop. */
const how = {
  reach: z.enum(["area", "enclosed", "everywhere", "loop"]).default("area"),
  loop: z.array(coordinate).max(8000).default([]),
};

/** Places are the client's pixels, so that cropping or turning later moves nothing. */
export const correctionSchema = z.discriminatedUnion("kind", [
  /** The area at a place, or several, become another spot, or nothing at all (`NOTHING`). */
  entry.extend({ kind: z.literal("recolour"), at: point, ...how, spotId: spotIdSchema }),
  /** The same for what lines enclose; the fill runs under the lines to their middle. */
  entry.extend({ kind: z.literal("pour"), at: point, ...how, spotId: spotIdSchema }),
  /** A line through touching parts of one colour: the smaller part, or the other one, becomes a spot of its own. */
  entry.extend({
    kind: z.literal("divide"),
    line: path.min(4),
    isFlipped: z.boolean().default(false),
    spotId: spotIdSchema,
  }),
]);
export type Correction = z.infer<typeof correctionSchema>;

/** The corrections with their places in the pixels of the prepared picture. */
export function placeCorrections(corrections: readonly Correction[], frame: Frame): Correction[] {
  const toPrepared = invertMap(frame.toSource);
  return corrections.map((correction) => {
    if (correction.kind === "divide") return { ...correction, line: mapLine(toPrepared, correction.line) };
    return { ...correction, at: mapPoint(toPrepared, correction.at), loop: mapLine(toPrepared, correction.loop) };
  });
}
