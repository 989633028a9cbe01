export { type Compute, startCompute } from "./pool.ts";
