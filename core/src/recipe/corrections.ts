// Corrections to which place is which spot: an area given another one, poured full, or divided by a drawn line.
import { type Frame, invertMap, mapPoint } from "../raster/index.ts";
import { z } from "../zod/index.ts";
import { entry, path, point, scalePoint } from "./actions.ts";

const spotId = z.string().min(1).max(40);

/** Places are the client's pixels, so that cropping or turning later moves nothing. */
export const correctionSchema = z.discriminatedUnion("kind", [
  /** The area at a place becomes another spot. */
  entry.extend({ kind: z.literal("recolour"), at: point, spotId }),
  /** The area at a place, enclosed by lines, is filled; the fill runs under the lines to their middle. */
  entry.extend({ kind: z.literal("pour"), at: point, spotId }),
  /** A line through touching parts of one colour: the smaller part, or the other one, becomes a spot of its own. */
  entry.extend({ kind: z.literal("divide"), line: path.min(4), isFlipped: z.boolean().default(false), spotId }),
]);
export type Correction = z.infer<typeof correctionSchema>;

/** The corrections with their places in the pixels of the prepared picture. */
export function placeCorrections(corrections: readonly Correction[], frame: Frame): Correction[] {
  const toPrepared = invertMap(frame.toSource);
  return corrections.map((correction) => {
    if (correction.kind !== "divide") return { ...correction, at: mapPoint(toPrepared, correction.at) };
    const line: number[] = [];
    for (let i = 0; i + 1 < correction.line.length; i += 2) {
      const { x, y } = mapPoint(toPrepared, { x: correction.line[i], y: correction.line[i + 1] });
      line.push(x, y);
    }
    return { ...correction, line };
  });
}

/** The corrections for the same picture at another size. */
export function scaleCorrections(corrections: readonly Correction[], factor: number): Correction[] {
  return corrections.map((correction) =>
    correction.kind === "divide"
      ? { ...correction, line: correction.line.map((v) => v * factor) }
      : { ...correction, at: scalePoint(correction.at, factor) },
  );
}
