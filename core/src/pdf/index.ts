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
export { type Box, makePen, type Pen } from "./pen.ts";
