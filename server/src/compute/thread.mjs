// @ts-check
// A thread's entry. The TypeScript loader of the main thread does not reach into threads, so each registers its own.
import { register } from "tsx/esm/api";

register();
/** @type {typeof import("./tasks.ts")} */
const tasks = await import("./tasks.ts");
export const { inspect, inspectFont, readMotifs, packMotifs, decode, makeFiles, makeProofFiles } = tasks;
