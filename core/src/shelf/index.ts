export { type MatchLimits, matchStock, type StockMatch } from "./match.ts";
export {
  priceColours,
  type ShopSettings,
  type ShopSettingsPatch,
  shopSettingsPatchSchema,
  shopSettingsSchema,
} from "./shop-settings.ts";
export {
  referStock,
  SPOT_STOCK_KINDS,
  STOCK_KINDS,
  type Stock,
  type StockColour,
  type StockKind,
  type StockReference,
  stockColourSchema,
  stockKindSchema,
  stockLab,
  stockReferenceSchema,
  stockRgb,
  stockSchema,
} from "./stock.ts";
