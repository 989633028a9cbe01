// What the shop has on its shelf: inks, transfer films, threads, stones and garments, each with its colour.
import { formatHex, type Lab, labD50ToD65, labToRgb, parseHex, type Rgb, rgbToLab } from "../colour/index.ts";
import { hexSchema, z } from "../zod/index.ts";
import { filmSchema } from "./film.ts";
import { keptStonesSchema } from "./kept-stones.ts";

/** What spots are made with. */
export const SPOT_STOCK_KINDS = ["ink", "transfer-film", "thread", "stone"] as const;
export const STOCK_KINDS = [...SPOT_STOCK_KINDS, "garment"] as const;
const kindSchema = z.enum(STOCK_KINDS);
export type StockKind = z.infer<typeof kindSchema>;
/** Shelves and recipes of before say "film", which is the photographic sheet of a plate, for what is cut and pressed. */
export const stockKindSchema = z.preprocess((kind) => (kind === "film" ? "transfer-film" : kind), kindSchema);

/** What kinds of stock are called: many of them, and one. */
export const STOCK_WORDS: Readonly<Record<StockKind, { readonly many: string; readonly one: string }>> = {
  ink: { many: "Inks", one: "an ink" },
  "transfer-film": { many: "Transfer films", one: "a transfer film" },
  thread: { many: "Threads", one: "a thread" },
  stone: { many: "Stones", one: "a stone" },
  garment: { many: "Garments", one: "a garment" },
};
export type SpotStockKind = (typeof SPOT_STOCK_KINDS)[number];

/** Encoded sRGB, or CIELAB as instruments of the trade give it: D50, 2 degree observer (ISO 13655). */
export const stockColourSchema = z.discriminatedUnion("space", [
  z.object({ space: z.literal("srgb"), hex: hexSchema }),
  z.object({
    space: z.literal("lab"),
    l: z.number().min(0).max(100),
    a: z.number().min(-160).max(160),
    b: z.number().min(-160).max(160),
  }),
]);
export type StockColour = z.infer<typeof stockColourSchema>;

/** One line of text: what neither a table nor XML can hold is refused. */
const line = (most: number) =>
  z
    .string()
    .trim()
    .max(most)
    .regex(/^[^\p{Cc}\p{Cs}\uFFFE\uFFFF]*$/u, "has characters that are not text");

/** One thing on the shelf. `kind` and `code` together name it. */
export const stockSchema = z.object({
  kind: stockKindSchema,
  /** The shop's own number for it. */
  code: line(40).min(1),
  name: line(60).min(1),
  colour: stockColourSchema,
  /** Whatever else is to be known: roll width, stone size, mesh. */
  detail: line(120).default(""),
  /** Of transfer films: what rolls and presses have to know. */
  film: filmSchema.nullable().default(null),
  /** Of stones: how many of each size there are. */
  stones: keptStonesSchema.nullable().default(null),
});
export type Stock = z.infer<typeof stockSchema>;

/** A piece of stock as a recipe keeps it: jobs stay as they were when the shelf changes. */
export const stockReferenceSchema = z.object({
  kind: stockKindSchema,
  code: z.string().min(1).max(40),
  name: z.string().min(1).max(60),
  hex: hexSchema,
  /** CIEDE2000 to the picture's colour when it was chosen. */
  difference: z.number().min(0),
  film: filmSchema.nullable().default(null),
  stones: keptStonesSchema.nullable().default(null),
});
export type StockReference = z.infer<typeof stockReferenceSchema>;

/** CIELAB (D65) of a stock, outside sRGB or not: for comparing. */
export function stockLab({ colour }: Pick<Stock, "colour">): Lab {
  return colour.space === "srgb" ? rgbToLab(parseHex(colour.hex)) : labD50ToD65([colour.l, colour.a, colour.b]);
}

/** The colour to show a stock in; what a screen cannot show is clipped. */
export function stockRgb({ colour }: Pick<Stock, "colour">): Rgb {
  return colour.space === "srgb" ? parseHex(colour.hex) : labToRgb(labD50ToD65([colour.l, colour.a, colour.b]));
}

/** What a recipe keeps of a stock chosen for a colour. */
export function referStock(stock: Stock, difference: number): StockReference {
  const { kind, code, name, film, stones } = stock;
  return { kind, code, name, hex: formatHex(stockRgb(stock)), difference, film, stones };
}
