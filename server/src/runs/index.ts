export { makeRunQueue } from "./run-queue.ts";
export { runRoutes } from "./run-routes.ts";
export { makeRunStore, type RunStore } from "./run-store.ts";
export { startRunner } from "./runner.ts";
