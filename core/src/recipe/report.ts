// report.json: what a run found and made, for people and for other programs.
import { findNearInks, findThinPlaces, measureShading, type ThinLimits } from "../checks/index.ts";
import { formatHex } from "../colour/index.ts";
import { spotCoverage } from "../separate/index.ts";
import { countShapes } from "../trace/index.ts";
import type { Results } from "./pipeline.ts";
import { printWidthMm, type Recipe } from "./recipe.ts";

export interface Report {
  readonly image: { readonly width: number; readonly height: number };
  readonly spots: readonly {
    readonly id: string;
    readonly name: string;
    readonly hex: string;
    readonly coverage: number;
  }[];
  readonly plates: readonly {
    readonly name: string;
    readonly kind: "spot" | "base";
    readonly order: number;
    readonly coverage: number;
  }[];
  readonly shapes: { readonly shapes: number; readonly nodes: number };
  readonly timingsMs: Readonly<Record<string, number>>;
  readonly warnings: readonly string[];
}

/** Under this effective resolution the art wants a warning, dpi (common practice, no source). */
const LOW_DPI = 150;
/** Above this it is not a spot-colour job (common practice, no source). */
const MOST_SPOTS = 16;

/** Pixels of the picture per inch on the garment. */
export function effectiveDpi(widthPx: number, widthMm: number): number {
  return (widthPx * 25.4) / widthMm;
}

/** Under this share of the picture shading is nothing to speak of. */
const LEAST_SHADING = 0.005;
/** Thinnest positive line and open line that print: from memory of screen-printing handbooks. A shop's own go before. */
const THIN_LIMITS = { lineMm: 0.35, gapMm: 0.5 };

/** What a person should know before burning a screen. */
export function listWarnings({ prepared, findings, reduction, separation }: Results, recipe: Recipe): string[] {
  const warnings: string[] = [];
  const dpi = effectiveDpi(prepared.raster.width, printWidthMm(recipe, prepared.raster));
  if (findings.opaquePx === 0) warnings.push("The picture is fully transparent: there is nothing to print.");
  else if (separation.plates.length === 0)
    warnings.push("Every colour is dropped or the garment's: there is nothing to print.");
  if (dpi < LOW_DPI)
    warnings.push(`The picture has ${Math.round(dpi)} dpi at this width; under ${LOW_DPI} dpi fine detail is guessed.`);
  if (reduction.spots.length > MOST_SPOTS)
    warnings.push(`${reduction.spots.length} colours: above ${MOST_SPOTS} it is not a spot-colour job.`);
  return warnings;
}

/** What is measured to be too thin, too near or shaded. Slower than the other warnings: not for every change of a slide. */
export function listChecks(
  { findings, reduction, assignment, map, separation }: Results,
  limits: ThinLimits = THIN_LIMITS,
): string[] {
  const warnings: string[] = [];
  const shading = measureShading(findings, reduction, assignment);
  if (shading > LEAST_SHADING)
    warnings.push(
      `${(shading * 100).toFixed(1)} % of the picture shades: ${reduction.spots.length} flat spots will not carry its gradients.`,
    );
  else if (findings.found.length > MOST_SPOTS)
    warnings.push(
      `The picture has at least ${findings.found.length} tones; ${reduction.spots.length} flat spots will not carry its gradients.`,
    );
  const nameOf = (id: string | null) => reduction.spots.find((spot) => spot.id === id)?.name ?? "";
  for (const { a, b, difference } of findNearInks(reduction.spots))
    warnings.push(`${nameOf(a)} and ${nameOf(b)} are nearly the same: CIEDE2000 ${difference.toFixed(1)}.`);
  const { mmPerPx } = separation;
  const thin = findThinPlaces(map, reduction.spots, limits, mmPerPx);
  for (const kind of ["line", "gap"] as const) {
    const places = thin.filter((place) => place.kind === kind);
    if (places.length === 0) continue;
    const { x, y, widthMm, spotId } = places[0];
    const what = kind === "line" ? `lines under ${limits.lineMm} mm` : `gaps under ${limits.gapMm} mm`;
    const where = `${(x * mmPerPx).toFixed(1)}, ${(y * mmPerPx).toFixed(1)} mm`;
    warnings.push(
      `${places.length} ${what}; the thinnest, ${widthMm.toFixed(2)} mm${spotId ? ` of ${nameOf(spotId)}` : ""}, is at ${where}.`,
    );
  }
  return warnings;
}

/** The report of one run. `timingsMs` is measured by the caller: core has no clock. */
export function makeReport(recipe: Recipe, results: Results, timingsMs: Record<string, number>): Report {
  const { map, separation, reduction, assignment } = results;
  const coverage = spotCoverage(map);
  const opaque = map.width * map.height;
  const round = (share: number) => Number(share.toFixed(6));
  return {
    image: { width: map.width, height: map.height },
    spots: reduction.spots.map((spot, index) => ({
      id: spot.id,
      name: spot.name,
      hex: formatHex(spot.rgb),
      coverage: round(spot.role === "drop" ? assignment.areasPx[index] / opaque : (coverage.get(spot.id) ?? 0)),
    })),
    plates: separation.plates.map(({ name, kind, order, coverage: share }) => ({
      name,
      kind,
      order,
      coverage: round(share),
    })),
    shapes: countShapes(map),
    timingsMs,
    warnings: [...listWarnings(results, recipe), ...listChecks(results)],
  };
}
