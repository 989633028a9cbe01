export { artworkRoutes } from "./artwork-routes.ts";
export { noteHead } from "./head-facts.ts";
export { jobRoutes } from "./job-routes.ts";
export { type JobStore, makeJobStore } from "./job-store.ts";
