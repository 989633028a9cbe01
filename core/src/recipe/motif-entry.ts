// A motif placed in a job as an entry of the recipe: it names the motif's content, which never changes.
import { MOTIF_LIMITS } from "../motif/index.ts";
import { PX, pictureUnits, point, z } from "../zod/index.ts";
import { entry } from "./actions.ts";
import { lengthPx, pick, side } from "./curves.ts";

const angleDeg = z.number().min(-360).max(360).default(0);
const stepPx = z.number().min(-200_000).max(200_000).register(pictureUnits, PX);

/** What may be asked of a row, where a form has to say the same. */
export const ROW_LIMITS = { count: 200, all: 400 } as const;
const count = z.number().int().min(1).max(ROW_LIMITS.count);

const rowSchema = z.discriminatedUnion("kind", [
  z.object({
    ...{ kind: z.literal("grid"), columns: count, rows: count },
    ...{ stepX: stepPx, stepY: stepPx, angleDeg },
    isStaggered: z.boolean().default(false),
  }),
  z.object({
    ...{ kind: z.literal("arc"), count, radius: stepPx, angleDeg },
    spanDeg: z.number().min(-360).max(360),
    isTurned: z.boolean().default(true),
  }),
]);

/** Places and lengths are the client's pixels. */
export const motifEntrySchema = entry.extend({
  kind: z.literal("motif"),
  /** With its name and size at the time, for when it is not there. */
  motif: z.object({
    hash: z.string().regex(/^[0-9a-f]{64}$/),
    name: z.string().min(1).max(MOTIF_LIMITS.nameLength),
    widthMm: z.number().positive(),
    heightMm: z.number().positive(),
  }),
  /** Where the middle of each lies, and how wide it is before it is turned. */
  places: z
    .array(z.object({ at: point, widthPx: lengthPx, angleDeg, isFlipped: z.boolean().default(false) }))
    .min(1)
    .max(ROW_LIMITS.all),
  /** Each of the places is the first, or the middle, of such a row. */
  row: rowSchema.nullable().default(null),
  /** What each of the motif's spots is here. */
  spots: z.array(side).min(1).max(MOTIF_LIMITS.spots),
  /** Shapes in whose place they are put. */
  over: z.array(pick).max(400).default([]),
});
export type MotifEntry = z.infer<typeof motifEntrySchema>;

/** Hashes of the motifs that entries in force place. */
export function motifsIn(entries: readonly { readonly kind: string; readonly isOn: boolean }[]): string[] {
  const isMotif = (one: (typeof entries)[number]): one is MotifEntry => one.kind === "motif" && one.isOn;
  return [...new Set(entries.filter(isMotif).map(({ motif }) => motif.hash))];
}
