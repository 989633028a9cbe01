export { makeHelp, type OutcomeMessage, openHelper, type PartMessage } from "./helping.ts";
export { type AnyTask, doAlone, type Outcomes, type Shared, type Sharing, shareOut, type Task } from "./share.ts";
export { type Helper, type Helpers, workTogether } from "./work-together.ts";
