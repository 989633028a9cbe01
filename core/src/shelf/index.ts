export { FACT_WORDS, factsOf, readFacts } from "./facts.ts";
export { FILM_FACT_KEYS, FILM_FACTS, type Film, type FilmFact, filmSchema } from "./film.ts";
export { type KeptStones, MOST_STONES } from "./kept-stones.ts";
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
  type SpotStockKind,
  STOCK_KINDS,
  STOCK_WORDS,
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
