export {
  type Action,
  type ActionOf,
  actionSchema,
  isUpright,
  makeAction,
  nextActionId,
  type PixelAction,
  type UprightAction,
} from "./actions.ts";
export { type BackgroundReach, pickBackground } from "./background-pick.ts";
export { type Correction, correctionSchema, placeCorrections } from "./corrections.ts";
export { dressLettering, placeLettering } from "./lay-lettering.ts";
export { overhangingCopies, placesOf } from "./lay-motif.ts";
export { LETTERING_LIMITS, type LetteringEntry } from "./lettering-entry.ts";
export { EMPTY_LIBRARY, type Library, neededBy } from "./library.ts";
export { localMap, scaleAt, turnsOver } from "./local-map.ts";
export { type MotifEntry, ROW_LIMITS } from "./motif-entry.ts";
export { bringOver } from "./old-forms.ts";
export { listOutputs, type MadeFile, makeCommonFiles, type ShapeWishes } from "./outputs.ts";
export {
  type Artwork,
  chosenStock,
  makeResultCache,
  processesIn,
  type ResultCache,
  type Results,
  runPipeline,
  runSteps,
  runStepsTogether,
  type Step,
  type StepResults,
} from "./pipeline.ts";
export { placeEdits } from "./place-edits.ts";
export {
  layUpright,
  makePrepareCache,
  markTaken,
  type PrepareCache,
  type Prepared,
  prepareArtwork,
  speckSettings,
} from "./prepare.ts";
export { nameReadings, type Readings, readingsOf, takeUpReadings } from "./readings.ts";
export {
  garmentRgb,
  MAX_PRINT_MM,
  MIN_PRINT_MM,
  makeRecipe,
  mmPerPixel,
  type Placement,
  placementSchema,
  printWidthMm,
  RECIPE_LIMITS,
  type Recipe,
  readRecipe,
  recipeOfShop,
  recipeSchema,
} from "./recipe.ts";
export {
  effectiveDpi,
  listChecks,
  listWarnings,
  makeReport,
  type Report,
} from "./report.ts";
export { scaleRecipe } from "./scale.ts";
export {
  makeShapeEntry,
  type ShapeEntry,
  type ShapeEntryOf,
  type SimplifyEntry,
  spotsInEntries,
} from "./shape-entries.ts";
