export type { Laid } from "./arrange.ts";
export { type Cell, type Laying, layOutlines } from "./lay.ts";
