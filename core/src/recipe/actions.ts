// What was done to the client's picture, entry by entry: each can be switched off, changed, moved or taken out, and the
// file itself never changes.
import { coordinate, hexSchema, PX, PX2, pictureUnits, point, z } from "../zod/index.ts";

export const path = z.array(coordinate).min(2).max(8000);
export const entry = z.object({ id: z.string().min(1).max(24), isOn: z.boolean().default(true) });

/**
 * Actions that say where the upright picture lies. They come first whatever their place in the list, in their own order;
 * their numbers are pixels of the picture as the ones before them leave it.
 */
const uprightSchemas = [
  entry.extend({ kind: z.literal("turn"), quarters: z.union([z.literal(1), z.literal(2), z.literal(3)]) }),
  entry.extend({ kind: z.literal("flip"), axis: z.enum(["left-right", "top-bottom"]) }),
  entry.extend({ kind: z.literal("straighten"), angleDeg: z.number().min(-45).max(45) }),
  entry.extend({
    kind: z.literal("keystone"),
    corners: z.tuple([point, point, point, point]),
    /** Width to height of the sheet; null: as its sides appear. */
    ratio: z.number().min(0.05).max(20).nullable(),
  }),
  entry.extend({
    kind: z.literal("crop"),
    x: coordinate,
    y: coordinate,
    width: z.number().min(1).max(200_000).register(pictureUnits, PX),
    height: z.number().min(1).max(200_000).register(pictureUnits, PX),
  }),
] as const;

/**
 * Actions on pixels, in the order of the list. Their places are the client's pixels, so that cropping or turning later
 * moves nothing; lengths are client's pixels, too.
 */
const pixelSchemas = [
  entry.extend({
    kind: z.literal("line-art"),
    method: z.enum(["even", "local"]).default("even"),
    /** Cut-off starts at 50 % grey (common practice, no source). */
    cutOff: z.number().min(0.01).max(0.99).default(0.5),
    windowPx: z.number().int().min(3).max(2001).register(pictureUnits, PX).default(51),
    /** Sauvola & Pietikainen 2000 use 0.5; 0.2 to 0.34 keeps thin lines (common practice, no source). */
    k: z.number().min(0.02).max(0.9).default(0.25),
    isInverted: z.boolean().default(false),
    weightPx: z.number().min(-40).max(40).register(pictureUnits, PX).default(0),
    paper: z.enum(["clear", "white"]).default("clear"),
  }),
  entry.extend({
    kind: z.literal("pick"),
    seeds: z.array(point).min(1).max(64),
    hex: hexSchema,
    /** A slightly uneven background wants 20 to 25 (common practice, no source). */
    tolerance: z.number().min(0).max(255).default(22),
    reach: z.enum(["connected", "everywhere"]).default("connected"),
  }),
  entry.extend({
    kind: z.literal("stroke"),
    mode: z.enum(["erase", "restore", "paint"]),
    radiusPx: z.number().min(0.25).max(5000).register(pictureUnits, PX),
    points: path,
    hex: hexSchema.default("#000000"),
  }),
  entry.extend({ kind: z.literal("move-piece"), outline: path.min(6), dx: coordinate, dy: coordinate }),
  entry.extend({ kind: z.literal("pinholes"), maxPx: z.number().min(1).max(1_000_000).register(pictureUnits, PX2) }),
  entry.extend({
    kind: z.literal("specks"),
    maxPx: z.number().min(1).max(1_000_000).register(pictureUnits, PX2),
    which: z.enum(["both", "dark", "light"]).default("both"),
  }),
  entry.extend({ kind: z.literal("silhouette"), hex: hexSchema }),
  /** What becomes of half-transparent areas: tones of the garment's colour, nothing, or solid ink. */
  entry.extend({ kind: z.literal("see-through"), treatment: z.enum(["garment", "drop", "solid"]) }),
] as const;

const uprightSchema = z.discriminatedUnion("kind", uprightSchemas);
const pixelSchema = z.discriminatedUnion("kind", pixelSchemas);
export const actionSchema = z.union([uprightSchema, pixelSchema]);

export type UprightAction = z.infer<typeof uprightSchema>;
export type PixelAction = z.infer<typeof pixelSchema>;
export type Action = z.infer<typeof actionSchema>;
export type ActionOf<K extends Action["kind"]> = Extract<Action, { kind: K }>;

/** An action of which some is said; the rest is the trade's default. */
export function makeAction(parts: z.input<typeof actionSchema>): Action {
  return actionSchema.parse(parts);
}

/** Whether an action says where the picture lies, rather than what its pixels are. */
export function isUpright(action: Action): action is UprightAction {
  return uprightSchema.options.some((option) => option.shape.kind.value === action.kind);
}

/** A name for the next action: never one that was used in this list. */
export function nextActionId(actions: readonly { readonly id: string }[]): string {
  return `a${1 + Math.max(0, ...actions.map(({ id }) => Number(id.slice(1)) || 0))}`;
}
