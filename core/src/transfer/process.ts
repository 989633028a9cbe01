// Transfer film as a process: a sheet of coloured film cut for each spot, pressed one on the other.
import { defineProcess, type Process } from "../process/index.ts";
import { cutLayers, type Layering } from "./layers.ts";
import { listLayerOutputs } from "./outputs.ts";
import { reportLayers } from "./report.ts";
import { CUT_FORMATS, TRANSFER_LIMITS, type TransferSettings, transferSettingsSchema } from "./settings.ts";

/** Spots are called by the colour that was found, or by the number under which they were added. */
const SPOT_ID = /^([0-9a-f]{6}|new-\d+)$/;

export const transfer: Process<TransferSettings, Layering> = defineProcess({
  id: "transfer",
  name: "Transfer film",
  title: "Layers",
  stock: "transfer-film",
  settings: transferSettingsSchema,
  shellOptions: [
    { name: "lap", kind: "length", example: "0.5mm", ...TRANSFER_LIMITS.lapMm, set: (lapMm) => ({ lapMm }) },
    {
      name: "solid",
      kind: "words",
      example: "SPOT-ID ...",
      takes: "ids of spots",
      isWord: (text) => SPOT_ID.test(text),
      set: (ids, { decided }) => ({
        decided: {
          ...decided,
          ...Object.fromEntries(ids.map((id) => [id, { ...decided[id], mode: "solid" as const }])),
        },
      }),
    },
    {
      name: "cut",
      kind: "words",
      example: CUT_FORMATS.join(","),
      takes: CUT_FORMATS.join(", "),
      isWord: (text) => CUT_FORMATS.some((format) => format === text),
      set: (words) => ({ formats: CUT_FORMATS.filter((format) => words.includes(format)) }),
    },
    { name: "no-mirror", kind: "flag", set: () => ({ isMirrored: false }) },
  ],
  writing: "cut files",
  fromShop: (shop) => ({
    limits: { stripMm: shop.thinnestStripMm, gapMm: shop.narrowestFilmGapMm, islandMm: shop.smallestIslandMm },
  }),
  thinLimits: (shop) => ({ lineMm: shop.thinnestStripMm, gapMm: shop.narrowestFilmGapMm }),
  makesShapes: false,
  steps: {
    layers: {
      doing: "Laying film over film",
      weight: 12,
      part: "layers",
      from: [],
      reads: ({ design: { spots, widthMm }, settings: { isMirrored: _, formats: __, ...settings } }) => [
        ...[spots, widthMm],
        settings,
      ],
      compute: ({ design, settings }) => cutLayers(design, settings),
    },
  },
  result: "layers",
  report: ({ settings }, layering) => reportLayers(layering, settings),
  outputs: ({ design, settings }, layering) => listLayerOutputs(layering, design.spots, settings),
});
