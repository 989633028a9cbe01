export { hashText } from "./hash-text.ts";
export {
  doStep,
  type Get,
  type KeptResults,
  keepBeside,
  resultOf,
  type StepOf,
  type StepTable,
  totalWeight,
} from "./step-table.ts";
