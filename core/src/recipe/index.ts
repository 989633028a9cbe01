export {
  type Action,
  type ActionOf,
  actionSchema,
  isUpright,
  nextActionId,
  type PixelAction,
  type UprightAction,
} from "./actions.ts";
export { pickBackground } from "./background-pick.ts";
export { type Correction, correctionSchema, placeCorrections } from "./corrections.ts";
export { bringOver } from "./old-forms.ts";
export { listOutputs, type MadeFile, makeCommonFiles, type ShapeWishes } from "./outputs.ts";
export {
  type Artwork,
  aboutStep,
  makeResultCache,
  type ResultCache,
  type Results,
  runPipeline,
  runSteps,
  type Step,
  type StepResults,
} from "./pipeline.ts";
export {
  layUpright,
  makePrepareCache,
  markTaken,
  type PrepareCache,
  type Prepared,
  prepareArtwork,
  speckSettings,
} from "./prepare.ts";
export {
  garmentRgb,
  MAX_PRINT_MM,
  MIN_PRINT_MM,
  makeRecipe,
  type Placement,
  placementSchema,
  printWidthMm,
  RECIPE_LIMITS,
  type Recipe,
  readRecipe,
  recipeSchema,
} from "./recipe.ts";
export {
  effectiveDpi,
  listChecks,
  listThinPlaces,
  listWarnings,
  makeReport,
  type Report,
  type Warning,
} from "./report.ts";
export { scaleRecipe } from "./scale.ts";
export { placeSimplifications, type ShapeEntry, type SimplifyEntry } from "./shape-entries.ts";
export { type Get, resultOf } from "./step-table.ts";
