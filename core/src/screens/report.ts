// What is to be known of a separation: its plates in numbers, and where the base is too thin to print.
import { findThinRegion, warnOfThin } from "../checks/index.ts";
import type { ProcessReport } from "../process/index.ts";
import type { Separation } from "./separate.ts";
import type { ScreensSettings } from "./settings.ts";

/** Decimals of a coverage in report.json. */
const DIGITS = 6;

export function reportScreens(
  { plates, mmPerPx }: Separation,
  { base: { thinnestMm } }: ScreensSettings,
): ProcessReport {
  const base = plates.find(({ kind }) => kind === "base");
  const thin = base ? findThinRegion({ line: "base" }, base.region, { lineMm: thinnestMm, gapMm: 0 }, mmPerPx) : [];
  const what = (count: number) =>
    `${count === 1 ? "place" : "places"} where the underbase is under ${thinnestMm} mm and may not print`;
  return {
    facts: {
      plates: plates.map(({ name, kind, order, coverage }) => ({
        name,
        kind,
        order,
        coverage: Number(coverage.toFixed(DIGITS)),
      })),
    },
    thin,
    warnings: warnOfThin(thin, what, mmPerPx),
  };
}
