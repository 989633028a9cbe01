export { makeHelp, type OutcomeMessage, openHelper, type PartMessage } from "./helping.ts";
export {
  type AnyTask,
  doAlone,
  isHelped,
  type Outcomes,
  type Shared,
  type Sharing,
  shareOut,
  type Task,
} from "./share.ts";
export { canShareMemory, sharedBytes } from "./shared-memory.ts";
export { type Helper, type Helpers, workTogether } from "./work-together.ts";
