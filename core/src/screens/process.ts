// Screen printing as a process: a plate for each ink, a base under them, and the films that screens are burned with.
import { defineProcess, type Process } from "../process/index.ts";
import type { Separation } from "./separate.ts";
import { SCREENS_LIMITS, type ScreensSettings, screensSettingsSchema } from "./settings.ts";
import { warnOfSheet } from "./warn-of-sheet.ts";

export const screens: Process<ScreensSettings, Separation> = defineProcess({
  id: "screens",
  name: "Screens",
  title: "Separations",
  stock: "ink",
  settings: screensSettingsSchema,
  shellOptions: [
    { name: "trap", kind: "length", example: "0.3mm", ...SCREENS_LIMITS.trapMm, set: (trapMm) => ({ trapMm }) },
  ],
  writing: "films",
  fromShop: ({ thinnestLineMm }) => ({ base: { thinnestMm: thinnestLineMm } }),
  warnOfSize: (sizeMm, { films }) => warnOfSheet(sizeMm, films),
});
