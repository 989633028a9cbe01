// A line of lettering as an entry of the recipe: it stays text, set in a typeface that is named by its id.
import { ALIGNMENTS } from "../lettering/index.ts";
import { coordinate, point, z } from "../zod/index.ts";
import { entry } from "./actions.ts";
import { curve, lengthPx, side } from "./curves.ts";

/** What may be asked of lettering, where a form has to say the same. */
export const LETTERING_LIMITS = {
  text: 500,
  widthPercent: { min: 20, max: 500 },
  slantDeg: { min: -45, max: 45 },
  letterSpacing: { min: -60, max: 400 },
  lineSpacing: { min: 50, max: 600 },
} as const;

const within = ({ min, max }: { min: number; max: number }) => z.number().min(min).max(max);
const angleDeg = z.number().min(-360).max(360);

/** Places and lengths are the client's pixels. */
export const letteringSchema = entry.extend({
  kind: z.literal("lettering"),
  text: z.string().normalize().min(1).max(LETTERING_LIMITS.text),
  /** With the name it had, for when it is not there. */
  typeface: z.object({
    id: z.string().regex(/^[a-z0-9-]{1,80}$/),
    name: z.string().min(1).max(160),
  }),
  baseline: z.discriminatedUnion("kind", [
    z.object({ kind: z.literal("straight"), at: point, angleDeg: angleDeg.default(0) }),
    /** Arched over its centre, or hanging under it if the radius is negative. */
    z.object({
      kind: z.literal("arc"),
      at: point,
      angleDeg: angleDeg.default(0),
      radiusPx: coordinate,
    }),
    /** Along a curve, anchored at a share of its length, so far above it. */
    z.object({
      kind: z.literal("curve"),
      curve,
      share: z.number().min(0).max(1).default(0.5),
      gapPx: coordinate.default(0),
    }),
  ]),
  /** Height of a capital H. */
  capPx: lengthPx,
  widthPercent: within(LETTERING_LIMITS.widthPercent).default(100),
  slantDeg: within(LETTERING_LIMITS.slantDeg).default(0),
  /** Percent of the cap height. */
  letterSpacing: within(LETTERING_LIMITS.letterSpacing).default(0),
  lineSpacing: within(LETTERING_LIMITS.lineSpacing).default(160),
  align: z.enum(ALIGNMENTS).default("middle"),
  spotId: side,
  outline: z
    .object({ widthPx: lengthPx, spotId: side, corners: z.enum(["round", "sharp"]).default("round") })
    .nullable()
    .default(null),
  shadow: z.object({ dx: coordinate, dy: coordinate, spotId: side }).nullable().default(null),
  /** Letters put right by hand, by where in the text they begin; shares of the cap height, along the line and down from it. */
  nudges: z
    .array(
      z.object({
        at: z.number().int().min(0).max(LETTERING_LIMITS.text),
        right: z.number().min(-50).max(50).default(0),
        down: z.number().min(-50).max(50).default(0),
        angleDeg: angleDeg.default(0),
        scale: z.number().min(0.1).max(10).default(1),
      }),
    )
    .max(LETTERING_LIMITS.text)
    .default([]),
});
export type LetteringEntry = z.infer<typeof letteringSchema>;

/** Ids of the typefaces that entries in force are set in. */
export function typefacesIn(entries: readonly { readonly kind: string; readonly isOn: boolean }[]): string[] {
  const isLettering = (one: (typeof entries)[number]): one is LetteringEntry => one.kind === "lettering" && one.isOn;
  return [...new Set(entries.filter(isLettering).map(({ typeface }) => typeface.id))];
}
