export { compiledLoops, makeRoom, type Place } from "./loops.ts";
