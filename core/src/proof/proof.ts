// A proof: what the client says yes to, frozen. Everything in it is said or drawn out; nothing follows the job any more.
import { SILHOUETTE_NAMES } from "../garment/index.ts";
import { hexSchema, z } from "../zod/index.ts";

const partSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("fill"), hex: hexSchema, d: z.string() }),
  z.object({ kind: z.literal("thread"), hex: hexSchema, widthMm: z.number().positive(), d: z.string() }),
  z.object({
    kind: z.literal("stones"),
    hex: hexSchema,
    diameterMm: z.number().positive(),
    places: z.array(z.number()),
  }),
]);

const placeSchema = z.object({ x: z.number(), y: z.number() });

export const proofSchema = z.object({
  format: z.literal(1),
  shop: z.string(),
  /** Ticket number of the job, and which of its proofs this is, from 1. */
  jobNumber: z.number().int(),
  number: z.number().int(),
  title: z.string(),
  client: z.string(),
  /** What the shop writes. */
  message: z.string(),
  madeWith: z.string(),
  garment: z.object({ hex: hexSchema, name: z.string() }),
  /** Where the print goes, on what, and measured from where, mm. */
  placement: z.object({
    name: z.string(),
    shownOn: z.enum(SILHOUETTE_NAMES),
    belowMm: z.number(),
    asideMm: z.number(),
  }),
  widthMm: z.number(),
  heightMm: z.number(),
  unit: z.enum(["mm", "cm", "in", "pt"]),
  pieces: z.number().int(),
  /** In words, where the shop shows it. */
  price: z.string().nullable(),
  spots: z.array(
    z.object({ id: z.string(), name: z.string(), hex: hexSchema, stock: z.string().nullable(), madeWith: z.string() }),
  ),
  /** Stitches or stones, in words. */
  counts: z.array(z.string()),
  /** Drawn one over the other, mm from the print's top left corner. */
  picture: z.array(partSchema),
  /** What the client should know; a place on the print, mm. */
  remarks: z.array(z.object({ text: z.string(), at: placeSchema.nullable() })),
});
export type Proof = z.infer<typeof proofSchema>;
