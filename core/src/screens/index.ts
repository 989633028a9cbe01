export { writeFilmsPdf } from "./films-pdf.ts";
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
export { screensMaking } from "./making.ts";
export { screens } from "./process.ts";
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
  spreadInks,
  spreadTask,
} from "./separate.ts";
export { writeSeparationsPdf } from "./separations-pdf.ts";
export { writeSeparationsSvg } from "./separations-svg.ts";
export { type ScreensSettings, screensSettingsSchema } from "./settings.ts";
export { chokeBase, inkNeedsBase, wantsBase } from "./underbase.ts";
