export {
  type Artwork,
  makeResultCache,
  type ResultCache,
  type Results,
  runPipeline,
  runSteps,
  STEPS,
  type Step,
} from "./pipeline.ts";
export { garmentRgb, makeRecipe, printWidthMm, type Recipe, recipeSchema } from "./recipe.ts";
export { effectiveDpi, listWarnings, makeReport, type Report } from "./report.ts";
