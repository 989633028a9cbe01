// Typefaces as they travel between server and web.
import { z } from "zod";

/** What practitioners look for. */
export const typefaceKindSchema = z.enum([
  "sans",
  "condensed",
  "wide",
  "rounded",
  "geometric",
  "slab",
  "old-style",
  "modern",
  "stencil",
  "athletic",
  "western",
  "deco",
  "script",
  "hand",
  "blackletter",
  "typewriter",
  "comic",
  "pixel",
  "other",
]);
export const TYPEFACE_KINDS = typefaceKindSchema.options;
export type TypefaceKind = z.infer<typeof typefaceKindSchema>;

/** One style of a family. */
export const listedTypefaceSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]{1,80}$/),
  family: z.string(),
  style: z.string(),
  kind: typefaceKindSchema,
  /** Scripts that it carries. */
  scripts: z.array(z.string()),
  /** Over how many files it is spread. */
  files: z.number().int().min(1),
  /** Under what licence it is shipped; of the shop's own, what the file says may be done with it (OpenType OS/2, fsType). */
  origin: z.discriminatedUnion("kind", [
    z.object({ kind: z.literal("shipped"), licence: z.string() }),
    z.object({ kind: z.literal("shop"), fileName: z.string(), fsType: z.number().int().nullable() }),
  ]),
});
export type ListedTypeface = z.infer<typeof listedTypefaceSchema>;
export const typefaceListSchema = z.array(listedTypefaceSchema);
export const typefacePatchSchema = z.object({ kind: typefaceKindSchema });
