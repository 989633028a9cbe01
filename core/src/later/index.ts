export { later, loadAllParts } from "./later.ts";
