export { cutLayers, type Layer, type Layering } from "./layers.ts";
export {
  LAYER_MODES,
  type LayerMode,
  TRANSFER_LIMITS,
  type TransferSettings,
  transferSettingsSchema,
} from "./settings.ts";
