export { type FoundTypeface, tryOn } from "./find-typeface.ts";
