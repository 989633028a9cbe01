// The recipe: every decision made on a job as one versioned piece of data. Types follow from the schema.
import type { Rgb } from "../colour/index.ts";
import { parseHex } from "../colour/index.ts";
import { SILHOUETTE_NAMES } from "../garment/index.ts";
import { toMm } from "../geometry/index.ts";
import { allProcesses, FIRST_PROCESS, processesSchema, processIdSchema } from "../processes/index.ts";
import { MAX_FOUND } from "../reduce/index.ts";
import { type ShopSettings, stockReferenceSchema } from "../shelf/index.ts";
import { FULL_FRONT_IN } from "../trade/index.ts";
import { hexSchema, spotIdSchema, z } from "../zod/index.ts";
import { actionSchema } from "./actions.ts";
import { correctionSchema } from "./corrections.ts";
import { bringOver, FORMAT } from "./old-forms.ts";
import { shapeEntrySchema } from "./shape-entries.ts";

/** Print sizes from a nape label to a banner, mm. */
export const MIN_PRINT_MM = 5;
export const MAX_PRINT_MM = 2000;

/** What a person may type, where other ways in have to say the same. */
export const RECIPE_LIMITS = { tolerancePx: { min: 0.02, max: 5 } } as const;

const lengthSchema = z
  .object({ value: z.number().positive(), unit: z.enum(["mm", "cm", "in", "pt"]) })
  .refine((length) => toMm(length) >= MIN_PRINT_MM && toMm(length) <= MAX_PRINT_MM, {
    message: `a print is between ${MIN_PRINT_MM} and ${MAX_PRINT_MM} mm`,
  });

/** Where on the garment a design goes: what it starts as, and what room there is. */
export const placementSchema = z.object({
  name: z.string().trim().min(1).max(60),
  /** Width a design starts with, mm. */
  widthMm: z.number().min(MIN_PRINT_MM).max(MAX_PRINT_MM),
  /** The printable area, mm. */
  areaWidthMm: z.number().min(MIN_PRINT_MM).max(MAX_PRINT_MM),
  areaHeightMm: z.number().min(MIN_PRINT_MM).max(MAX_PRINT_MM),
});
export type Placement = z.infer<typeof placementSchema>;

/** Schema of a recipe; parsing an empty object gives the recipe of a new job. */
export const recipeSchema = z.object({
  format: z.literal(FORMAT).default(FORMAT),
  artwork: z
    .object({
      /** Width on the garment, as it was typed. */
      width: lengthSchema.default({ value: FULL_FRONT_IN, unit: "in" }),
      /** Height as it was typed; where it is given, the width follows from it. */
      height: lengthSchema.nullable().default(null),
      garment: hexSchema.default("#ffffff"),
      /** The placement it goes to, as the shop had it then. */
      placement: placementSchema.nullable().default(null),
      /** Page of the client's file, from 1. */
      page: z.number().int().min(1).max(9999).default(1),
      /** How wide shapes are drawn as pixels; null: as the intake does by itself. */
      drawnWidthPx: z.number().int().min(16).max(20_000).nullable().default(null),
      /** What was done to the picture, in order. */
      actions: z.array(actionSchema).max(1000).default([]),
    })
    .prefault({}),
  colours: z
    .object({
      count: z.number().int().min(1).max(MAX_FOUND).nullable().default(null),
      merges: z
        .array(z.object({ from: spotIdSchema, into: spotIdSchema }))
        .max(200)
        .default([]),
      /** What was decided on a spot, by its id. */
      decided: z
        .record(
          spotIdSchema,
          z.object({
            name: z.string().max(60).optional(),
            role: z.enum(["ink", "garment", "drop"]).optional(),
            isLocked: z.boolean().optional(),
            /** Its colour, given by hand or picked from the picture. */
            hex: hexSchema.optional(),
            /** What it is printed with, as it was on the shelf then. */
            stock: stockReferenceSchema.nullable().optional(),
            /** How it is made, where that is not how the job is. */
            process: processIdSchema.optional(),
          }),
        )
        .default({}),
      added: z
        .array(z.object({ id: spotIdSchema, hex: hexSchema }))
        .max(MAX_FOUND)
        .default([]),
      /** The order in which spots lie over each other that the person chose; others go where their lightness puts them. */
      order: z
        .array(spotIdSchema)
        .max(2 * MAX_FOUND)
        .default([]),
      corrections: z.array(correctionSchema).max(1000).default([]),
      /** Pieces to print, for what a colour costs. */
      pieces: z.number().int().min(1).max(1_000_000).default(50),
    })
    .prefault({}),
  shapes: z
    .object({
      tolerancePx: z.number().min(RECIPE_LIMITS.tolerancePx.min).max(RECIPE_LIMITS.tolerancePx.max).default(0.2),
      /** Specks of 2 px and under go by default (common practice, no source). */
      specksPx: z.number().min(0).max(100).default(2),
      /** Turns of more than this are corners (our own choice, measured on open icon sets). */
      cornerDeg: z.number().min(5).max(85).default(28),
      thinnestPx: z.number().min(0).max(50).default(0),
      keepsText: z.boolean().default(true),
      /** What was done to the traced shapes, in order. */
      entries: z.array(shapeEntrySchema).max(1000).default([]),
    })
    .prefault({}),
  /** How the design is shown to the client. */
  proof: z
    .object({
      /** On which part of what garment; null: as the placement's name says. */
      shownOn: z.enum(SILHOUETTE_NAMES).nullable().default(null),
      /** From the garment's upper edge to the print's, and from its middle to the right, mm; null: as usual there. */
      belowMm: z.number().min(-500).max(1500).nullable().default(null),
      asideMm: z.number().min(-700).max(700).nullable().default(null),
      /** As the client reads it; empty: it is not shown. */
      price: z.string().trim().max(120).default(""),
      /** What the shop writes to the client. */
      message: z.string().max(1000).default(""),
    })
    .prefault({}),
  /** How the job is made. */
  process: processIdSchema.default(FIRST_PROCESS.id),
  processes: processesSchema.prefault({}),
});

export type Recipe = z.infer<typeof recipeSchema>;

/** The recipe of a new job, with the given parts replaced. */
export function makeRecipe(parts: z.input<typeof recipeSchema> = {}): Recipe {
  return recipeSchema.parse(parts);
}

/** The recipe of a new job in this shop: what it decided for all jobs is the job's from its first day on. */
export function recipeOfShop(shop: ShopSettings): Recipe {
  return makeRecipe({ processes: Object.fromEntries(allProcesses().map(({ id, fromShop }) => [id, fromShop(shop)])) });
}

/** A recipe as it was kept, of today's form or an earlier one; throws a ZodError if it is none. */
export function readRecipe(kept: unknown): Recipe {
  return recipeSchema.parse(bringOver(kept));
}

/** The garment's colour. */
export function garmentRgb(recipe: Recipe): Rgb {
  return parseHex(recipe.artwork.garment);
}

/** Millimetres on the garment to a pixel of a prepared picture of this many pixels. */
export function mmPerPixel(recipe: Recipe, size: { width: number; height: number }): number {
  return printWidthMm(recipe, size) / size.width;
}

/** Print width in millimetres of a prepared picture of this many pixels. */
export function printWidthMm(recipe: Recipe, { width, height }: { width: number; height: number }): number {
  const typed = recipe.artwork.height;
  return typed ? (toMm(typed) * width) / height : toMm(recipe.artwork.width);
}
