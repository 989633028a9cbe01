export { cutLayers, type Layer, type Layering } from "./layers.ts";
export { transferMaking } from "./making.ts";
export type { Transfer } from "./outputs.ts";
export { type FilmPiece, placeOnRoll } from "./piece.ts";
export type { PrintedFilm } from "./printed.ts";
export { transfer } from "./process.ts";
export {
  LAYER_MODES,
  type LayerMode,
  TRANSFER_LIMITS,
  type TransferSettings,
  transferSettingsSchema,
} from "./settings.ts";
export type { FilmSheet } from "./sheets.ts";
