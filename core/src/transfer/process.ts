// Transfer film as a process: a sheet of coloured film cut for each spot, pressed one on the other.
import { CUT_FORMATS } from "../cut/index.ts";
import { defineProcess, type Process } from "../process/index.ts";
import { CUT_LETTERS_MM } from "../trade/index.ts";
import type { Transfer } from "./outputs.ts";
import { TRANSFER_LIMITS, type TransferSettings, transferSettingsSchema } from "./settings.ts";

/** Spots are called by the colour that was found, or by the number under which they were added. */
const SPOT_ID = /^([0-9a-f]{6}|new-\d+)$/;

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
});
