// What a person decides about stitches, part of the recipe.
import {
  CHANGE_S,
  HOOPS,
  MOST_LAYERS,
  MOST_PER_MM2,
  PER_THOUSAND,
  STITCHES_PER_MINUTE,
  TRIM_S,
} from "../trade/index.ts";
import { point, spotIdSchema, z } from "../zod/index.ts";
import { FABRICS } from "./fabric.ts";
import { CORNERS } from "./mitre.ts";
import { SEWN_AS } from "./sewn-as.ts";

/** What a person may type, where other ways in have to say the same. */
export const STITCH_LIMITS = {
  angleDeg: { min: -180, max: 180 },
  spacingMm: { min: 0.2, max: 3 },
  stitchMm: { min: 1, max: 10 },
  pullMm: { min: 0, max: 1.5 },
  borderMm: { min: 0.8, max: 7 },
  hoopMm: { min: 20, max: 2000 },
} as const;

const limit = (key: keyof typeof STITCH_LIMITS) => z.number().min(STITCH_LIMITS[key].min).max(STITCH_LIMITS[key].max);

export const BORDERS = ["none", "satin", "bean"] as const;
export type BorderKind = (typeof BORDERS)[number];

/** What was decided on areas; what is not named is as proposed. */
const choice = {
  as: z.enum(SEWN_AS).optional(),
  angleDeg: limit("angleDeg").optional(),
  spacingMm: limit("spacingMm").optional(),
  stitchMm: limit("stitchMm").optional(),
  pullMm: limit("pullMm").optional(),
  hasUnderlay: z.boolean().optional(),
  corners: z.enum(CORNERS).optional(),
  /** How often a bean stitch goes over each stretch. */
  passes: z.union([z.literal(3), z.literal(5)]).optional(),
  /** Along outlines; in another spot's thread if one is named. */
  border: z
    .object({
      kind: z.enum(BORDERS),
      widthMm: limit("borderMm").default(1.3),
      spotId: spotIdSchema.nullable().default(null),
    })
    .optional(),
};
const sewnChoiceSchema = z.object(choice);
export type SewnChoice = z.infer<typeof sewnChoiceSchema>;

/** What was decided on one area, found by a place in it: the client's pixels. */
const areaEntrySchema = z.object({
  id: z.string().min(1).max(24),
  isOn: z.boolean().default(true),
  at: point,
  ...choice,
  /** Where the needle comes in and goes out. */
  start: point.optional(),
  stop: point.optional(),
});
export type AreaEntry = z.infer<typeof areaEntrySchema>;

export const stitchSettingsSchema = z.object({
  fabric: z.enum(FABRICS).default("woven"),
  /** Spot ids in the order of sewing that the person chose; the others go where they are proposed. */
  order: z.array(spotIdSchema).max(200).default([]),
  /** What was decided on all areas, on those of a spot, and on single ones: the narrower goes before. */
  everywhere: sewnChoiceSchema.prefault({}),
  decided: z.record(spotIdSchema, sewnChoiceSchema).default({}),
  /** Later ones go before earlier ones. */
  areas: z.array(areaEntrySchema).max(2000).default([]),
  /** The order of areas inside a colour that the person chose, by a place in each; the others follow. */
  sequence: z.array(point).max(2000).default([]),
  /** Null: the smallest of the shop's that holds the design. */
  hoop: z
    .object({ widthMm: limit("hoopMm"), heightMm: limit("hoopMm") })
    .nullable()
    .default(null),
  /** What the shop says once for all jobs. */
  machine: z
    .object({
      hoops: z.string().max(200).default(HOOPS),
      stitchesPerMinute: z.number().min(50).max(3000).default(STITCHES_PER_MINUTE),
      changeS: z.number().min(0).max(600).default(CHANGE_S),
      trimS: z.number().min(0).max(600).default(TRIM_S),
      perThousand: z.number().min(0).max(1000).default(PER_THOUSAND),
      mostPerMm2: z.number().min(0.5).max(20).default(MOST_PER_MM2),
      mostLayers: z.number().int().min(1).max(10).default(MOST_LAYERS),
    })
    .prefault({}),
});
export type StitchSettings = z.infer<typeof stitchSettingsSchema>;
