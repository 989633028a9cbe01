// Which numbers of a recipe are measured in the client's pixels: they grow with the picture.
import { z } from "./jitless.ts";

/** A number in the client's pixels, or in their squares; said beside the number's schema, after its limits. */
export const pictureUnits = z.registry<{ readonly unit: "px" | "px2" }>();
export const PX = { unit: "px" } as const;
export const PX2 = { unit: "px2" } as const;

/** Coordinates of pictures up to the intake's limit, and some way outside them. */
export const coordinate = z.number().min(-100_000).max(200_000).register(pictureUnits, PX);
export const point = z.object({ x: coordinate, y: coordinate });
