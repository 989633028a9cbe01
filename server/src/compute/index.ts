export { type Asker, type Compute, startCompute } from "./compute.ts";
export { isNetworkShut } from "./confine.ts";
export type { LibraryFiles } from "./making.ts";
export { openPixelCache, type PixelCache } from "./pixel-cache.ts";
export { FullHouse, Overrun } from "./process-pool.ts";
