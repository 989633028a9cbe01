export { orderInks, orderSpots } from "./print-order.ts";
export {
  BASE_ID,
  type Plate,
  type Remember,
  type Separation,
  type SeparationSettings,
  separatePlates,
  spotCoverage,
} from "./separate.ts";
export { spreadTraps } from "./trap.ts";
export { chokeBase, inkNeedsBase, wantsBase } from "./underbase.ts";
