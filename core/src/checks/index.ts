export { findNearInks, measureShading, type NearPair } from "./judge-colours.ts";
export { findThinPlaces, type ThinLimits, type ThinPlace } from "./thin-places.ts";
