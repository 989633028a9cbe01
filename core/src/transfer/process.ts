// Transfer film as a process: a sheet of coloured film cut for each spot, pressed one on the other.

import { CUT_FORMATS } from "../cut/index.ts";
import { defineProcess, type Process, type Work } from "../process/index.ts";
import type { Get, StepTable } from "../steps/index.ts";
import { CUT_LETTERS_MM } from "../trade/index.ts";
import { cutLayers, type Layering } from "./layers.ts";
import { listTransferOutputs, type Transfer } from "./outputs.ts";
import { layPrinted } from "./printed.ts";
import { reportTransfer } from "./report.ts";
import { TRANSFER_LIMITS, type TransferSettings, transferSettingsSchema } from "./settings.ts";
import { planSheets } from "./sheets.ts";

/** Spots are called by the colour that was found, or by the number under which they were added. */
const SPOT_ID = /^([0-9a-f]{6}|new-\d+)$/;

interface TransferResults {
  readonly layers: Layering;
  readonly sheets: Transfer;
}

const STEPS: StepTable<TransferResults, Work<TransferSettings>> = {
  layers: {
    doing: "Laying film over film",
    weight: 12,
    part: "layers",
    from: [],
    reads: ({ design: { spots, widthMm }, settings }) => {
      const { lapMm, toleranceMm, order, decided, limits, thickensStrips, givesIslands } = settings;
      return [spots, widthMm, lapMm, toleranceMm, order, decided, limits, thickensStrips, givesIslands];
    },
    compute: ({ design, settings }) => cutLayers(design, settings),
  },
  sheets: {
    doing: "Laying pieces on rolls",
    weight: 2,
    part: "layers",
    from: ["layers"],
    reads: ({ design: { stock, pieces, widthMm }, settings: { sheets, isMirrored, printed } }) => [
      ...[stock, pieces, widthMm],
      ...[sheets, isMirrored, printed],
    ],
    compute: ({ design, settings }, get: Get<TransferResults>) => {
      const layering = get("layers");
      if (settings.printed.isWanted) return { layering, sheets: [], printed: layPrinted(layering, settings) };
      return { layering, sheets: planSheets(layering, design, settings), printed: null };
    },
  },
};

export const transfer: Process<TransferSettings, Transfer> = defineProcess({
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
    press: { celsius: shop.celsius, tackS: shop.tackS, finalS: shop.finalS },
    sheets: { rollWidthMm: shop.rollWidthMm, pricePerMetre: shop.pricePerMetre },
    limits: { stripMm: shop.thinnestStripMm, gapMm: shop.narrowestFilmGapMm, islandMm: shop.smallestIslandMm },
  }),
  thinLimits: (shop) => ({ lineMm: shop.thinnestStripMm, gapMm: shop.narrowestFilmGapMm }),
  lettersMm: CUT_LETTERS_MM,
  makesShapes: false,
  steps: STEPS,
  result: "sheets",
  report: ({ settings }, made) => reportTransfer(made, settings),
  outputs: ({ design, settings }, made, facts) => listTransferOutputs(made, design, settings, facts),
});
