export { defineMaking, defineProcess, type MakingParts, type ProcessParts } from "./define-process.ts";
export { placeChosen } from "./place-chosen.ts";
export { type PicturePart, type Portrait, portrayShapes } from "./portrait.ts";
export type {
  Design,
  HasProcesses,
  Made,
  Maker,
  Making,
  Outputs,
  Process,
  ProcessReport,
  Product,
  ShellOption,
  StepNotice,
  Work,
} from "./process.ts";
