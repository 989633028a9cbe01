export { hexSchema, spotIdSchema } from "./common.ts";
export { z } from "./jitless.ts";
