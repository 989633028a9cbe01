export { typefaceRoutes } from "./typeface-routes.ts";
export { makeTypefaceStore, type TypefaceStore } from "./typeface-store.ts";
