// What a shop decides once for all its jobs: prices, and how near is near enough.
import { THIN_GAP_MM, THIN_LINE_MM } from "../trade/index.ts";
import { z } from "../zod/index.ts";

const fields = {
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
};
export const shopSettingsSchema = z.object(fields);
export type ShopSettings = z.infer<typeof shopSettingsSchema>;

/** Some of them, as they are changed: what is not named stays. */
export const shopSettingsPatchSchema = z
  .object({
    currency: fields.currency.unwrap(),
    perScreen: fields.perScreen.unwrap(),
    perColourPiece: fields.perColourPiece.unwrap(),
    sameDifference: fields.sameDifference.unwrap(),
    nearDifference: fields.nearDifference.unwrap(),
    thinnestLineMm: fields.thinnestLineMm.unwrap(),
    thinnestGapMm: fields.thinnestGapMm.unwrap(),
  } satisfies Record<keyof ShopSettings, z.ZodType>)
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
