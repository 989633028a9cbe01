// What a person decides about stones, part of the recipe.
import { CUT_FORMATS } from "../cut/index.ts";
import { LEAST_STONE_GAP_MM, STONE_GAP_MM, STONE_LOSS_PERCENT, STONE_PRICES, STONE_SIZES } from "../trade/index.ts";
import { point, spotIdSchema, z } from "../zod/index.ts";
import { PATTERNS, SET_AS, TEMPLATE_SPLITS } from "./ways.ts";

/** What a person may type, where other ways in have to say the same. */
export const STONE_LIMITS = {
  gapMm: { min: 0.05, max: 0.8 },
  angleDeg: { min: -180, max: 180 },
  thinning: { min: 1, max: 8 },
  /** Share of a stone's width that may lie over the design's edge. */
  overShare: { min: 0, max: 0.5 },
  lossPercent: { min: 0, max: 100 },
} as const;

const limit = (key: keyof typeof STONE_LIMITS) => z.number().min(STONE_LIMITS[key].min).max(STONE_LIMITS[key].max);

/** What was decided on areas; what is not named is as proposed. */
const choice = {
  as: z.enum(SET_AS).optional(),
  size: z.enum(STONE_SIZES).optional(),
  pattern: z.enum(PATTERNS).optional(),
  angleDeg: limit("angleDeg").optional(),
  isMixed: z.boolean().optional(),
  isInside: z.boolean().optional(),
  thinning: limit("thinning").optional(),
};
const setChoiceSchema = z.object(choice);
export type SetChoice = z.infer<typeof setChoiceSchema>;

const entry = { id: z.string().min(1).max(24), isOn: z.boolean().default(true) };

/** What was decided on one area, found by a place in it: the client's pixels. */
const areaEntrySchema = z.object({ ...entry, at: point, ...choice });
export type SetAreaEntry = z.infer<typeof areaEntrySchema>;

/** What was done to single stones, and to rows, each found by a place on it. */
const handEntrySchema = z.discriminatedUnion("kind", [
  /** Others give way, or the place has to be free. */
  z.object({ ...entry, kind: z.literal("move"), at: point, to: point, givesWay: z.boolean().default(true) }),
  z.object({
    ...{ ...entry, kind: z.literal("add"), at: point },
    ...{ size: z.enum(STONE_SIZES), spotId: spotIdSchema, givesWay: z.boolean().default(true) },
  }),
  z.object({ ...entry, kind: z.literal("take"), at: point }),
  z.object({
    ...{ ...entry, kind: z.literal("change"), at: point },
    ...{ size: z.enum(STONE_SIZES).optional(), spotId: spotIdSchema.optional() },
  }),
  /** The whole row, along itself by so many halves of a gap. */
  z.object({ ...entry, kind: z.literal("shift"), at: point, halfGaps: z.number().int().min(-40).max(40) }),
  /** What lies between two stones. */
  z.object({ ...entry, kind: z.literal("spread"), at: point, to: point }),
]);
export type HandEntry = z.infer<typeof handEntrySchema>;

export const stoneSettingsSchema = z.object({
  /** Null: the shop's. */
  gapMm: limit("gapMm").nullable().default(null),
  /** How much of a stone's width may lie over the design's edge: half of it where stones lie on the line. */
  overShare: limit("overShare").default(0.5),
  /** What was decided on all areas, on those of a spot, and on single ones: the narrower goes before. */
  everywhere: setChoiceSchema.prefault({}),
  decided: z.record(spotIdSchema, setChoiceSchema).default({}),
  /** Later ones go before earlier ones. */
  areas: z.array(areaEntrySchema).max(2000).default([]),
  /** In the order in which it was done. */
  hand: z.array(handEntrySchema).max(5000).default([]),
  template: z
    .object({
      split: z.enum(TEMPLATE_SPLITS).default("one"),
      isMirrored: z.boolean().default(false),
      formats: z.array(z.enum(CUT_FORMATS)).max(CUT_FORMATS.length).default(["svg"]),
    })
    .prefault({}),
  /** What the shop says once for all jobs. */
  shop: z
    .object({
      gapMm: limit("gapMm").default(STONE_GAP_MM),
      leastMm: limit("gapMm").default(LEAST_STONE_GAP_MM),
      lossPercent: limit("lossPercent").default(STONE_LOSS_PERCENT),
      /** Of a hundred, by size. */
      prices: z.string().max(200).default(STONE_PRICES),
    })
    .prefault({}),
});
export type StoneSettings = z.infer<typeof stoneSettingsSchema>;
