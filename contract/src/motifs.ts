// Motifs as they travel between server and web.
import { MOTIF_LIMITS, motifFactsSchema, motifSchema } from "@plain-palette/core/motif";
import { hexSchema } from "@plain-palette/core/zod";
import { z } from "zod";

const hashSchema = z.string().regex(/^[0-9a-f]{64}$/);

/** A motif on the page: its facts, and what its content says without the shapes. */
export const listedMotifSchema = motifFactsSchema.extend({
  id: z.uuid(),
  /** SHA-256 of the content in force. */
  hash: hashSchema,
  /** Which of its contents that is, counted from 1. */
  edition: z.number().int(),
  widthMm: z.number(),
  heightMm: z.number(),
  shapes: z.number().int(),
  nodes: z.number().int(),
  spots: z.array(z.object({ name: z.string(), hex: hexSchema })),
  isPutAway: z.boolean(),
  /** Jobs that place it now. */
  jobs: z.number().int(),
  /** Counts changes of its facts and its content: two people do not overwrite each other. */
  version: z.number().int(),
  updatedAt: z.iso.datetime(),
});
export type ListedMotif = z.infer<typeof listedMotifSchema>;

/** What is looked for. */
export const motifSearchSchema = z.object({
  words: z.string().max(MOTIF_LIMITS.wordsLength).default(""),
  folder: z.string().max(MOTIF_LIMITS.nameLength).optional(),
  /** With a spot near this colour. */
  hex: hexSchema.optional(),
  mostSpots: z.coerce.number().int().min(1).optional(),
  mostShapes: z.coerce.number().int().min(1).optional(),
  /** With this among its contents, from the first on; put away or not. */
  hash: hashSchema.optional(),
  putAway: z.enum(["no", "yes"]).default("no"),
  from: z.coerce.number().int().min(0).default(0),
  most: z.coerce.number().int().min(1).max(200).default(60),
});
export type MotifSearch = Partial<z.output<typeof motifSearchSchema>>;

export const motifPageSchema = z.object({
  /** How many there are in all of what is looked for. */
  total: z.number().int(),
  motifs: z.array(listedMotifSchema),
  /** All folders, with how many motifs are in each; none is put away. */
  folders: z.array(z.object({ name: z.string(), motifs: z.number().int() })),
});
export type MotifPage = z.infer<typeof motifPageSchema>;

/** A motif with its contents from the first on, and the jobs that place one of them. */
export const motifDetailSchema = listedMotifSchema.extend({
  editions: z.array(z.object({ edition: z.number().int(), hash: hashSchema, createdAt: z.iso.datetime() })),
  usedBy: z.array(
    z.object({ jobId: z.uuid(), number: z.number().int(), title: z.string(), edition: z.number().int() }),
  ),
});
export type MotifDetail = z.infer<typeof motifDetailSchema>;

export const motifCreateSchema = z.object({ facts: motifFactsSchema, motif: motifSchema });
export type MotifCreate = z.infer<typeof motifCreateSchema>;

/** Facts, or whether it is put away, as the motif was at `version`. */
export const motifPatchSchema = motifFactsSchema
  .pick({ name: true, folder: true, words: true })
  .extend({ isPutAway: z.boolean() })
  .partial()
  .extend({ version: z.number().int().min(1) });
export type MotifPatch = z.infer<typeof motifPatchSchema>;

/** A new content of a motif. */
export const motifEditionSchema = z.object({ motif: motifSchema, version: z.number().int().min(1) });
export type MotifEdition = z.infer<typeof motifEditionSchema>;

/** A motif that was kept, and whether it was there already. */
export const keptMotifSchema = z.object({ motif: listedMotifSchema, isNew: z.boolean() });
export type KeptMotif = z.infer<typeof keptMotifSchema>;

/** What taking over a file did. */
export const motifImportSchema = z.object({ kept: z.array(keptMotifSchema) });
