// Schemas of everything that travels between server and web. Jobs first: they bring the core's settings of Zod.
export {
  type ArtworkFacts,
  artworkSchema,
  type HeadMove,
  headMoveSchema,
  JOB_STEPS,
  type Job,
  type JobCard,
  type JobPatch,
  type JobStep,
  jobCardSchema,
  jobListSchema,
  jobPatchSchema,
  jobSchema,
  jobStepSchema,
  placementListSchema,
  placementSaveSchema,
  type RecipeSave,
  recipeSaveSchema,
  type ShopPlacement,
  shopPlacementSchema,
} from "./jobs.ts";
export { type Problem, problemSchema } from "./problem.ts";
export { isOver, type Run, type RunState, runListSchema, runSchema, runStartSchema, runStateSchema } from "./runs.ts";
export {
  type ShopStock,
  type StockFormat,
  type StockImport,
  shelfSchema,
  shopStockSchema,
  stockFormatSchema,
  stockImportSchema,
  stockSaveSchema,
} from "./shelf.ts";
export {
  type ListedTypeface,
  listedTypefaceSchema,
  TYPEFACE_KINDS,
  type TypefaceKind,
  typefaceKindSchema,
  typefaceListSchema,
  typefacePatchSchema,
} from "./typefaces.ts";
