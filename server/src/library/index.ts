export { readLibrary } from "./read-library.ts";
