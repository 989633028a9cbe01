// Parts of entries of shapes, in the client's pixels.
import { coordinate, PX, pictureUnits, point, spotIdSchema, z } from "../zod/index.ts";

export const lengthPx = z.number().min(0.01).max(200_000).register(pictureUnits, PX);
/** A path of cubics: x0 y0, then six numbers a segment. */
export const curve = z
  .array(coordinate)
  .min(8)
  .max(20_000)
  .refine((numbers) => (numbers.length - 2) % 6 === 0, { message: "is no chain of cubic curves" });
/** A shape by a place in it and its spot. */
export const pick = z.object({ at: point, spotId: spotIdSchema });
/** A spot, or null for the garment. */
export const side = spotIdSchema.nullable();
