// What a person decides about transfer film, part of the recipe.
import { LAP_MM } from "../trade/index.ts";
import { spotIdSchema, z } from "../zod/index.ts";

/** What a person may type, where other ways in have to say the same. */
export const TRANSFER_LIMITS = { lapMm: { min: 0, max: 5 } } as const;

/**
 * How a layer meets those that are pressed after it. Flush: edge to edge. Lapped: it runs on under them by the lap. Solid: it
 * stays whole under all that it encloses.
 */
export const LAYER_MODES = ["flush", "lapped", "solid"] as const;
export type LayerMode = (typeof LAYER_MODES)[number];

/** What cutters read: drawings, or the plotter language. */
export const CUT_FORMATS = ["svg", "dxf", "hpgl"] as const;
export type CutFormat = (typeof CUT_FORMATS)[number];

export const transferSettingsSchema = z.object({
  lapMm: z.number().min(TRANSFER_LIMITS.lapMm.min).max(TRANSFER_LIMITS.lapMm.max).default(LAP_MM),
  /** Spot ids in the press order that the person chose; the others go where they are proposed. */
  order: z.array(spotIdSchema).max(200).default([]),
  /** What was decided on a spot's layer, by the spot's id. */
  decided: z.record(spotIdSchema, z.object({ mode: z.enum(LAYER_MODES).optional() })).default({}),
  /** Cut from the back of the film, as it lies on the cutter. */
  isMirrored: z.boolean().default(true),
  formats: z.array(z.enum(CUT_FORMATS)).max(CUT_FORMATS.length).default(["svg"]),
});
export type TransferSettings = z.infer<typeof transferSettingsSchema>;
