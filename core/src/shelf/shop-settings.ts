// What a shop decides once for all its jobs: prices, and how near is near enough.
import {
  CHANGE_S,
  CUT_GAP_MM,
  CUT_ISLAND_MM,
  CUT_STRIP_MM,
  FINAL_S,
  HOOPS,
  LEAST_STONE_GAP_MM,
  MOST_LAYERS,
  MOST_PER_MM2,
  PER_THOUSAND,
  PRESS_CELSIUS,
  ROLL_WIDTH_MM,
  STITCHES_PER_MINUTE,
  STONE_GAP_MM,
  STONE_LOSS_PERCENT,
  STONE_PRICES,
  TACK_S,
  THIN_GAP_MM,
  THIN_LINE_MM,
  TRIM_S,
} from "../trade/index.ts";
import { z } from "../zod/index.ts";
import { FILM_FACTS } from "./film.ts";

const fields = {
  /** As clients read it. */
  shopName: z.string().trim().min(1).max(80).default("Our print room"),
  /** As written before an amount. */
  currency: z.string().trim().min(1).max(4).default("£"),
  /** Burning and setting up one screen. */
  perScreen: z.number().min(0).max(100_000).default(18),
  /** One more colour on one piece. */
  perColourPiece: z.number().min(0).max(10_000).default(0.35),
  /** CIEDE2000 up to which a stock is taken for the colour itself (common practice, no source). */
  sameDifference: z.number().min(0).max(50).default(2),
  /** CIEDE2000 up to which it is close enough to ask the client (common practice, no source). */
  nearDifference: z.number().min(0).max(50).default(5),
  thinnestLineMm: z.number().min(0).max(10).default(THIN_LINE_MM),
  thinnestGapMm: z.number().min(0).max(10).default(THIN_GAP_MM),
  /** Of transfer film: what cuts and weeds, mm. */
  thinnestStripMm: z.number().min(0).max(10).default(CUT_STRIP_MM),
  narrowestFilmGapMm: z.number().min(0).max(10).default(CUT_GAP_MM),
  smallestIslandMm: z.number().min(0).max(20).default(CUT_ISLAND_MM),
  /** Of films that have no numbers of their own on the shelf. */
  rollWidthMm: z.number().min(FILM_FACTS.rollWidthMm.min).max(FILM_FACTS.rollWidthMm.max).default(ROLL_WIDTH_MM),
  pricePerMetre: z.number().min(0).max(FILM_FACTS.pricePerMetre.max).default(0),
  tackS: z.number().min(0).max(FILM_FACTS.tackS.max).default(TACK_S),
  finalS: z.number().min(0).max(FILM_FACTS.finalS.max).default(FINAL_S),
  /** Of stitches: hoops as width x height, mm, one after the other; speed, and what changes and trims take. */
  hoops: z
    .string()
    .trim()
    .regex(/^\d{2,4} ?x ?\d{2,4}( ?, ?\d{2,4} ?x ?\d{2,4})*$/, "name hoops as 100x100, 130x180")
    .max(200)
    .default(HOOPS),
  stitchesPerMinute: z.number().min(50).max(3000).default(STITCHES_PER_MINUTE),
  changeS: z.number().min(0).max(600).default(CHANGE_S),
  trimS: z.number().min(0).max(600).default(TRIM_S),
  perThousand: z.number().min(0).max(1000).default(PER_THOUSAND),
  /** From so many stitches in a square millimetre on cloth is cut. */
  mostPerMm2: z.number().min(0.5).max(20).default(MOST_PER_MM2),
  /** Layers of thread on each other at most. */
  mostLayers: z.number().int().min(1).max(10).default(MOST_LAYERS),
  /** Of stones: from edge to edge, and the least that is ever between two, mm; how many are lost, in a hundred. */
  stoneGapMm: z.number().min(0.05).max(0.8).default(STONE_GAP_MM),
  leastStoneGapMm: z.number().min(0.05).max(0.8).default(LEAST_STONE_GAP_MM),
  stoneLossPercent: z.number().min(0).max(100).default(STONE_LOSS_PERCENT),
  /** Of a hundred stones, size by size. */
  stonePrices: z
    .string()
    .trim()
    .regex(/^(SS\d+ \d+(\.\d+)?( ?, ?|$))*$/, "name prices of a hundred as SS6 0.90, SS10 1.10")
    .max(200)
    .default(STONE_PRICES),
  celsius: z.number().min(0).max(FILM_FACTS.celsius.max).default(PRESS_CELSIUS),
};
export const shopSettingsSchema = z.object(fields);
export type ShopSettings = z.infer<typeof shopSettingsSchema>;

type Fields = typeof fields;

/** Some of them, as they are changed: what is not named stays. */
export const shopSettingsPatchSchema = z
  .object(
    Object.fromEntries(Object.entries(fields).map(([key, field]) => [key, field.unwrap()])) as {
      [K in keyof Fields]: ReturnType<Fields[K]["unwrap"]>;
    },
  )
  .partial();
export type ShopSettingsPatch = z.infer<typeof shopSettingsPatchSchema>;

/** What `colours` colours cost on `pieces` pieces: a screen each, and a pass of each piece. */
export function priceColours(
  colours: number,
  pieces: number,
  { perScreen, perColourPiece }: Pick<ShopSettings, "perScreen" | "perColourPiece">,
): number {
  return colours * (perScreen + pieces * perColourPiece);
}
