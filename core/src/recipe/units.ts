// Which numbers of a recipe are measured in the client's pixels: they grow with the picture.
import { z } from "../zod/index.ts";

/** A number in the client's pixels, or in their squares; said beside the number's schema, after its limits. */
export const pictureUnits = z.registry<{ readonly unit: "px" | "px2" }>();
export const PX = { unit: "px" } as const;
export const PX2 = { unit: "px2" } as const;
