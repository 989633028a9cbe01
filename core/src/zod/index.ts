export { hexSchema, spotIdSchema } from "./common.ts";
export { z } from "./jitless.ts";
export { coordinate, PX, PX2, pictureUnits, point } from "./picture-units.ts";
