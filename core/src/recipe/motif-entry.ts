// A motif placed in a job as an entry of the recipe: it names the motif's content, which never changes.

import type { Edit } from "../edit/index.ts";
import { copiesIn, layMotif, MOTIF_LIMITS, type MotifPlace, type Motifs, type Row, rowSteps } from "../motif/index.ts";
import { type Homography, mapPoint, turn } from "../raster/index.ts";
import { PX, pictureUnits, point, z } from "../zod/index.ts";
import { entry } from "./actions.ts";
import { lengthPx, pick, side } from "./curves.ts";
import { localMap, type Matrix, times } from "./local-map.ts";

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

/** Where each copy goes, in pixels of the prepared picture. */
export function placesOf(one: Pick<MotifEntry, "motif" | "places" | "row">, toPrepared: Homography): MotifPlace[] {
  return one.places.flatMap(({ at, widthPx, angleDeg: placed, isFlipped }) =>
    rowSteps(one.row satisfies Row | null).map((step) => {
      const place = { x: at.x + step.dx, y: at.y + step.dy };
      const { sin, cos } = turn(placed + step.angleDeg);
      const scale = widthPx / one.motif.widthMm;
      const [right, down] = [isFlipped ? -scale : scale, scale];
      const own: Matrix = [cos * right, -sin * down, sin * right, cos * down];
      return { ...mapPoint(toPrepared, place), matrix: times(localMap(toPrepared, place), own) };
    }),
  );
}

/** The entry as what is laid into the map, in the pixels of the prepared picture. */
export function layMotifEntry(one: MotifEntry, toPrepared: Homography, motifs: Motifs): Edit {
  const motif = motifs.get(one.motif.hash);
  if (!motif) return { kind: "none", reason: `places ${one.motif.name}, which is not among the motifs here` };
  const copies = one.places.length * copiesIn(one.row);
  if (copies > ROW_LIMITS.all)
    return { kind: "none", reason: `would place ${copies}, and ${ROW_LIMITS.all} are the most at a time` };
  const over = one.over.map(({ at, spotId }) => ({ at: mapPoint(toPrepared, at), spotId }));
  return { kind: "stack", layers: layMotif(motif, one.spots, placesOf(one, toPrepared)), over };
}

/** The copies of an entry that reach over the edge of a picture of that size, and are cut off there. */
export function overhangingCopies(
  { motif }: Pick<MotifEntry, "motif">,
  copies: readonly MotifPlace[],
  { width, height }: { readonly width: number; readonly height: number },
): MotifPlace[] {
  return copies.filter(({ x, y, matrix: [a, b, c, d] }) => {
    const [right, down] = [motif.widthMm / 2, motif.heightMm / 2];
    const [reachX, reachY] = [Math.abs(a) * right + Math.abs(b) * down, Math.abs(c) * right + Math.abs(d) * down];
    return x - reachX < 0 || y - reachY < 0 || x + reachX > width || y + reachY > height;
  });
}

/** Hashes of the motifs that entries in force place. */
export function motifsIn(entries: readonly { readonly kind: string; readonly isOn: boolean }[]): string[] {
  const isMotif = (one: (typeof entries)[number]): one is MotifEntry => one.kind === "motif" && one.isOn;
  return [...new Set(entries.filter(isMotif).map(({ motif }) => motif.hash))];
}
