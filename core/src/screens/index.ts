export {
  type Film,
  type FilmFacts,
  type FilmSet,
  type FilmSettings,
  type LineMark,
  layOutFilms,
  MARKS,
  type Target,
} from "./lay-out-films.ts";
export { orderInks, orderSpots } from "./print-order.ts";
export {
  BASE_ID,
  basedSpots,
  fromLightToDark,
  type InkRegion,
  layBase,
  orderPlates,
  type Plate,
  type PlateRegion,
  type Separable,
  type Separation,
  type SeparationSettings,
  separatePlates,
  spotCoverage,
  spreadInks,
} from "./separate.ts";
export { SCREENS_LIMITS, type ScreensSettings, screensSettingsSchema } from "./settings.ts";
export { spreadTraps } from "./trap.ts";
export { chokeBase, inkNeedsBase, wantsBase } from "./underbase.ts";
