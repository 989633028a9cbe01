// Jobs, their artwork and their recipes as they travel between server and web.
import { bringOver, placementSchema, recipeSchema } from "@plain-palette/core/recipe";
import { z } from "zod";

/** The steps in the order of work; how "make" is called is the process's to say. */
export const JOB_STEPS = ["artwork", "colours", "shapes", "make", "output", "proof"] as const;
export const jobStepSchema = z.enum(JOB_STEPS);
export type JobStep = z.infer<typeof jobStepSchema>;

/** What a job waits for, in the order in which it goes. */
export const JOB_STATES = ["new", "making", "waits", "answered", "yes", "changed", "made"] as const;
export const jobStateSchema = z.enum(JOB_STATES);
export type JobState = z.infer<typeof jobStateSchema>;

export const artworkSchema = z.object({
  /** SHA-256 of the client's file, hexadecimal. */
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  fileName: z.string(),
  kind: z.string(),
  bytes: z.number().int(),
  width: z.number().int(),
  height: z.number().int(),
  hasAlpha: z.boolean(),
  dpi: z.number().nullable(),
  pages: z.number().int(),
  content: z.enum(["pixels", "shapes", "mixed"]),
});
export type ArtworkFacts = z.infer<typeof artworkSchema>;

/** A job as the board lists it. */
export const jobCardSchema = z.object({
  id: z.uuid(),
  /** Ticket number, counted up by the shop. */
  number: z.number().int(),
  title: z.string(),
  client: z.string(),
  step: jobStepSchema,
  /** How the step "make" is called: as the process that the job is made with says. */
  makeTitle: z.string(),
  garment: z.string(),
  artwork: artworkSchema,
  /** Off the board, though nothing of it is gone. */
  isPutAway: z.boolean(),
  state: jobStateSchema,
  /** When the client said yes last; null before. */
  yesDay: z.iso.date().nullable(),
  dueDay: z.iso.date().nullable(),
  /** Where proofs are sent; empty: nowhere yet. */
  clientMail: z.string(),
  process: z.string(),
  /** Version of which the server has a picture of the result; null before anybody has seen one. */
  picture: z.number().int().nullable(),
  updatedAt: z.iso.datetime(),
});
export type JobCard = z.infer<typeof jobCardSchema>;

/** A job with its current recipe and the ways back and forth from it. */
export const jobSchema = jobCardSchema.extend({
  recipe: recipeSchema,
  /** Version of the current recipe. */
  head: z.number().int(),
  /** Versions that undo and redo lead to. */
  undo: z.number().int().nullable(),
  redo: z.number().int().nullable(),
});
export type Job = z.infer<typeof jobSchema>;

/** What the board is asked for. */
export const boardSearchSchema = z.object({
  words: z.string().max(200).default(""),
  state: jobStateSchema.optional(),
  process: z.string().max(40).optional(),
  isPutAway: z.enum(["no", "yes"]).default("no"),
  sort: z.enum(["newest", "due", "changed", "client"]).default("newest"),
  from: z.coerce.number().int().min(0).default(0),
  most: z.coerce.number().int().min(1).max(500).default(60),
});
export type BoardSearch = Partial<z.output<typeof boardSearchSchema>>;

export const boardSchema = z.object({
  jobs: z.array(jobCardSchema),
  /** How many wait for what, whichever state is looked for. */
  counts: z.array(z.object({ state: jobStateSchema, jobs: z.number().int() })),
  /** All that are off the board. */
  putAway: z.number().int(),
});
export type Board = z.infer<typeof boardSchema>;

/** Facts of the ticket that are not part of the recipe. */
const ticketSchema = z.object({
  title: z.string().trim().min(1).max(120),
  client: z.string().trim().max(120),
  step: jobStepSchema,
  isPutAway: z.boolean(),
  dueDay: z.iso.date().nullable(),
  clientMail: z.union([z.literal(""), z.email().max(254)]),
});
export type TicketChange = Partial<z.infer<typeof ticketSchema>>;

/** A change of some of them, with what each of these was when it was changed: nobody overwrites what was never seen. */
export const jobPatchSchema = ticketSchema
  .partial()
  .extend({ seen: ticketSchema.partial() })
  .refine(({ seen, ...change }) => Object.keys(change).every((key) => key in seen), {
    message: "every change names what was seen",
    path: ["seen"],
  });
export type JobPatch = z.infer<typeof jobPatchSchema>;

/** A change, with what it is made from: each of the facts that it names, as it is `now`. */
export function seenOf<Facts extends object, Change extends Partial<Facts>>(
  now: Facts,
  change: Change,
): Change & { seen: Partial<Facts> } {
  const seen = Object.fromEntries(Object.keys(change).map((key) => [key, now[key as keyof Facts]])) as Partial<Facts>;
  return { ...change, seen };
}

/** The name that a browser gives to what it makes or saves: when it sends the same again, it is not done twice. */
export const ownIdSchema = z.object({ id: z.uuid().optional() });

/** A place on the garment as the shop keeps it; `version` counts its changes. */
export const shopPlacementSchema = placementSchema.extend({ id: z.uuid(), version: z.number().int().min(1) });
export type ShopPlacement = z.infer<typeof shopPlacementSchema>;
/** The version of something that was seen when it was taken away. */
export const seenVersionSchema = z.object({ version: z.coerce.number().int().min(1) });
export const placementListSchema = z.array(shopPlacementSchema);
/** A changed placement, with the version it was made from. */
export const placementSaveSchema = placementSchema.extend({ version: z.number().int().min(1) });

/** Saving a recipe: the version it was made from travels with it. A page that was open since before may send an earlier form. */
export const recipeSaveSchema = z.object({
  /** The browser's own name for this save: sent again, it is not stored again. */
  saveId: z.uuid().optional(),
  basedOn: z.number().int().min(1),
  recipe: z.preprocess(bringOver, recipeSchema),
});
export type RecipeSave = z.infer<typeof recipeSaveSchema>;

/** Going to another version (undo, redo, choosing between two): `seen` is the head it was decided on. */
export const headMoveSchema = z.object({ to: z.number().int().min(1), seen: z.number().int().min(1) });
export type HeadMove = z.infer<typeof headMoveSchema>;
