export { type Compute, startCompute } from "./pool.ts";
export type { LibraryFiles } from "./tasks.ts";
