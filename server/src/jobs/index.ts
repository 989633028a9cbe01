export { artworkRoutes } from "./artwork-routes.ts";
export { jobRoutes } from "./job-routes.ts";
export { type JobStore, makeJobStore } from "./job-store.ts";
