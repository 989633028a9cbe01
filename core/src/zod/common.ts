// What several schemas share.
import { z } from "./jitless.ts";

/** A colour as a person and a browser write it. */
export const hexSchema = z.string().regex(/^#[0-9a-f]{6}$/i, "is not a colour such as #1d2a44");

/** Names a spot of a recipe. */
export const spotIdSchema = z.string().min(1).max(40);
