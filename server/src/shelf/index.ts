export { shelfRoutes } from "./shelf-routes.ts";
export { makeShelfStore, type ShelfStore } from "./shelf-store.ts";
