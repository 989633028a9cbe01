// The shelf and the shop's settings as they travel between server and web.
import { shopSettingsPatchSchema, stockSchema } from "@plain-palette/core/shelf";
import { z } from "zod";

/** A stock as the shop keeps it; `version` counts its changes. */
export const shopStockSchema = stockSchema.extend({ id: z.uuid(), version: z.number().int().min(1) });
export type ShopStock = z.infer<typeof shopStockSchema>;
export const shelfSchema = z.array(shopStockSchema);
/** A changed stock, with the version it was made from. */
export const stockSaveSchema = stockSchema.extend({ version: z.number().int().min(1) });

export const stockFormatSchema = z.enum(["csv", "cxf3"]);
export type StockFormat = z.infer<typeof stockFormatSchema>;

/** What taking over a file did. */
export const stockImportSchema = z.object({
  added: z.number().int(),
  changed: z.number().int(),
  same: z.number().int(),
});
export type StockImport = z.infer<typeof stockImportSchema>;

/** A change of settings. Where `seen` says what one was, it is refused if somebody else changed that one meanwhile. */
export const settingsSaveSchema = shopSettingsPatchSchema.extend({ seen: shopSettingsPatchSchema.optional() });
export type SettingsSave = z.infer<typeof settingsSaveSchema>;
