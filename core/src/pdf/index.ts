export {
  addPageMm,
  millimetreSpace,
  PT_PER_MM,
  pathOperators,
  separationSpace,
  setContent,
  setResources,
  startDocument,
  textOperators,
} from "./page.ts";
