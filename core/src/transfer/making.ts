// How a design is made with transfer.
import { later } from "../later/index.ts";
import { defineMaking, type Work } from "../process/index.ts";
import type { Get, StepTable } from "../steps/index.ts";
import { cutLayers, type Layering } from "./layers.ts";
import type { Transfer } from "./outputs.ts";
import { layPrinted } from "./printed.ts";
import { transfer } from "./process.ts";
import { reportTransfer } from "./report.ts";
import type { TransferSettings } from "./settings.ts";
import { planSheets } from "./sheets.ts";

const outputs = later(() => import("./outputs.ts"));

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

export const transferMaking = defineMaking({
  process: transfer,
  steps: STEPS,
  result: "sheets",
  report: ({ settings }, made) => reportTransfer(made, settings),
  outputs: async ({ design, settings }, made, facts) =>
    (await outputs()).listTransferOutputs(made, design, settings, facts),
});
