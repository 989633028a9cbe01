export { motifRoutes } from "./motif-routes.ts";
export { type MotifStore, makeMotifStore } from "./motif-store.ts";
