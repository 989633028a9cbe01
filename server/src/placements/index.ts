export { placementRoutes } from "./placement-routes.ts";
export { makePlacementStore, type PlacementStore } from "./placement-store.ts";
