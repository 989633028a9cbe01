export { orderInks, orderSpots } from "./print-order.ts";
export {
  BASE_ID,
  basedSpots,
  fromLightToDark,
  type InkRegion,
  layBase,
  orderPlates,
  type Plate,
  type PlateRegion,
  type Separable,
  type Separation,
  type SeparationSettings,
  separatePlates,
  spotCoverage,
  spreadInks,
} from "./separate.ts";
export { spreadTraps } from "./trap.ts";
export { chokeBase, inkNeedsBase, wantsBase } from "./underbase.ts";
