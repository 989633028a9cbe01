// Transfer film as a process: a sheet of coloured film cut for each spot, pressed one on the other.
import { defineProcess, type Process } from "../process/index.ts";
import { cutLayers, type Layering } from "./layers.ts";
import { listLayerOutputs } from "./outputs.ts";
import { reportLayers } from "./report.ts";
import { TRANSFER_LIMITS, type TransferSettings, transferSettingsSchema } from "./settings.ts";

export const transfer: Process<TransferSettings, Layering> = defineProcess({
  id: "transfer",
  name: "Transfer film",
  title: "Layers",
  stock: "transfer-film",
  settings: transferSettingsSchema,
  shellLengths: [{ name: "lap", example: "0.5mm", ...TRANSFER_LIMITS.lapMm, set: (lapMm) => ({ lapMm }) }],
  writing: "cut files",
  steps: {
    layers: {
      doing: "Laying film over film",
      weight: 12,
      part: "layers",
      from: [],
      reads: ({ design: { spots, widthMm }, settings: { lapMm, order, decided } }) => [
        ...[spots, widthMm],
        ...[lapMm, order, decided],
      ],
      compute: ({ design, settings }) => cutLayers(design, settings),
    },
  },
  result: "layers",
  report: ({ settings }, layering) => reportLayers(layering, settings),
  outputs: ({ design, settings }, layering) => listLayerOutputs(layering, design.spots, settings),
});
