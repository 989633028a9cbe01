// @ts-check
// Loads the pretend process before a program of Node's, and before each of its threads.
import { register } from "tsx/esm/api";

register();
await import("../../../core/src/testing/stencils.test.support.ts");
