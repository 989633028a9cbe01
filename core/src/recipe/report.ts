// report.json: what a run found and made, for people and for other programs.
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
  if (reduction.proposal.isShaded && findings.found.length > MOST_SPOTS)
    warnings.push(
      `The picture shades through at least ${findings.found.length} colours; ${reduction.spots.length} flat spots will not carry its gradients.`,
    );
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
    warnings: listWarnings(results, recipe),
  };
}
