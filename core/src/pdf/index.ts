export {
  addPageMm,
  millimetreSpace,
  PT_PER_MM,
  pathOperators,
  separationSpace,
  setContent,
  startDocument,
  textOperators,
} from "./page.ts";
