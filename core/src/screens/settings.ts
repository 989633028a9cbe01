// What a person decides about screens, part of the recipe.
import { CHOKE_MM, THIN_LINE_MM, TRAP_MM } from "../trade/index.ts";
import { spotIdSchema, z } from "../zod/index.ts";

/** What a person may type, where other ways in have to say the same. */
export const SCREENS_LIMITS = { trapMm: { min: 0, max: 3 } } as const;

export const screensSettingsSchema = z.object({
  trapMm: z.number().min(SCREENS_LIMITS.trapMm.min).max(SCREENS_LIMITS.trapMm.max).default(TRAP_MM),
  base: z
    .object({
      /** "auto": on dark garments. */
      mode: z.enum(["auto", "on", "off"]).default("auto"),
      chokeMm: z.number().min(0).max(3).default(CHOKE_MM),
      /** Thinnest base that prints, the shop's thinnest line when the job came in: a choke leaves at least this. */
      thinnestMm: z.number().min(0).max(10).default(THIN_LINE_MM),
      /** Decisions per spot that differ from the rule. */
      decided: z.record(spotIdSchema, z.boolean()).default({}),
    })
    .prefault({}),
  films: z
    .object({
      /** Smallest sheet; it grows where the art with its marks needs more. Null: just as large as that needs. */
      sheetMm: z
        .object({ width: z.number().min(20).max(3000), height: z.number().min(20).max(3000) })
        .nullable()
        .default(null),
      /** Mirrored for emulsion-side contact; right-reading otherwise. */
      isMirrored: z.boolean().default(false),
      hasMarks: z.boolean().default(true),
      hasLabels: z.boolean().default(true),
    })
    .prefault({}),
});
export type ScreensSettings = z.infer<typeof screensSettingsSchema>;
