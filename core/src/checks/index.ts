export { type BackgroundPlate, findBackgroundPlate } from "./background-plate.ts";
export { findNearInks, measureShading, type NearPair } from "./judge-colours.ts";
export { findThinPlaces, findThinRegion, type ThinPlace, thinMiddles } from "./thin-places.ts";
export type { ThinLimits } from "./thin-steps.ts";
export { type Warning, warnOfThin } from "./warning.ts";
