export { type BackgroundPlate, findBackgroundPlate } from "./background-plate.ts";
export { findNearInks, measureShading, type NearPair } from "./judge-colours.ts";
export { findThinBase, findThinPlaces, type ThinLimits, type ThinPlace } from "./thin-places.ts";
