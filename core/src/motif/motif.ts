// A motif: a finished design kept for reuse, its shapes in millimetres at the size it was made for.

import { stockReferenceSchema } from "../shelf/index.ts";
import { hexSchema, z } from "../zod/index.ts";
import { countSegments } from "./measure-motif.ts";

/** Sizes that motifs are kept at, mm: from a label's mark to a banner. */
const LEAST_MM = 0.5;
const MOST_MM = 2000;
/** More spots are no spot-colour design (common practice, no source), and more curves no clean one. */
export const MOTIF_LIMITS = { spots: 32, segments: 100_000, nameLength: 120, wordsLength: 400 } as const;

/** A closed path: x0 y0, then six numbers a cubic segment, mm. */
const outlineSchema = z
  .array(
    z
      .number()
      .min(-2 * MOST_MM)
      .max(2 * MOST_MM),
  )
  .min(14)
  .max(6 * MOTIF_LIMITS.segments + 2)
  .refine((numbers) => (numbers.length - 2) % 6 === 0, { message: "is no chain of cubic curves" })
  .refine((numbers) => numbers[0] === numbers.at(-2) && numbers[1] === numbers.at(-1), { message: "is not closed" });

/** What a motif is made of, apart from how it is called and filed. Schema and content never change once it is kept. */
export const motifSchema = z
  .object({
    format: z.literal(1),
    widthMm: z.number().min(LEAST_MM).max(MOST_MM),
    heightMm: z.number().min(LEAST_MM).max(MOST_MM),
    spots: z
      .array(
        z.object({
          name: z.string().min(1).max(60),
          hex: hexSchema,
          /** What it was last made with. */
          stock: stockReferenceSchema.nullable(),
          /** Its shapes, each with outline and holes; none lies over another. Origin: the top left corner of the whole. */
          shapes: z.array(z.array(outlineSchema).min(1)).min(1),
        }),
      )
      .min(1)
      .max(MOTIF_LIMITS.spots),
  })
  .refine((motif) => countSegments(motif) <= MOTIF_LIMITS.segments, {
    message: `has more than ${MOTIF_LIMITS.segments} curves`,
  });
export type Motif = z.infer<typeof motifSchema>;
export type MotifSpot = Motif["spots"][number];

/** How a motif is called and filed. */
export const motifFactsSchema = z.object({
  name: z.string().trim().min(1).max(MOTIF_LIMITS.nameLength),
  folder: z.string().trim().max(MOTIF_LIMITS.nameLength),
  /** Words to find it by. */
  words: z.string().trim().max(MOTIF_LIMITS.wordsLength),
  /** The job that it came from, or the file, in words. */
  from: z
    .string()
    .trim()
    .max(2 * MOTIF_LIMITS.nameLength),
});
export type MotifFacts = z.infer<typeof motifFactsSchema>;

/** Where motifs are taken from while a recipe is computed, by the hash of their content. */
export interface Motifs {
  get(hash: string): Motif | null;
}
export const NO_MOTIFS: Motifs = { get: () => null };
