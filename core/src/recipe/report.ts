// report.json: what a run found and made, for people and for other programs.
import {
  findBackgroundPlate,
  findNearInks,
  findThinPlaces,
  measureShading,
  type ThinLimits,
  type ThinPlace,
  type Warning,
  warnOfThin,
} from "../checks/index.ts";
import { formatHex } from "../colour/index.ts";
import { processOf } from "../processes/index.ts";
import { invertMap } from "../raster/index.ts";
import { countShapes, spotCoverage } from "../trace/index.ts";
import { LEAST_SHADING, LOW_DPI, MOST_SPOTS, THIN_GAP_MM, THIN_LINE_MM } from "../trade/index.ts";
import { overhangingCopies, placesOf } from "./lay-motif.ts";
import { processesIn, type Results } from "./pipeline.ts";
import { mmPerPixel, printWidthMm, type Recipe } from "./recipe.ts";

/** With the facts of each process beside these. */
export interface Report extends Readonly<Record<string, unknown>> {
  readonly image: { readonly width: number; readonly height: number };
  readonly spots: readonly {
    readonly id: string;
    readonly name: string;
    readonly hex: string;
    readonly coverage: number;
  }[];
  readonly shapes: { readonly shapes: number; readonly nodes: number };
  readonly timingsMs: Readonly<Record<string, number>>;
  /** Every place that is thinner than prints, with its place and measures. */
  readonly thinPlaces: readonly {
    readonly kind: ThinPlace["kind"];
    readonly spot: string | null;
    readonly xMm: number;
    readonly yMm: number;
    readonly widthMm: number;
    readonly lengthMm: number;
  }[];
  readonly warnings: readonly string[];
}

/** Pixels of the picture per inch on the garment. */
export function effectiveDpi(widthPx: number, widthMm: number): number {
  return (widthPx * 25.4) / widthMm;
}

/** A shop's own go before. */
const THIN_LIMITS = { lineMm: THIN_LINE_MM, gapMm: THIN_GAP_MM };

const percent = (share: number) => `${(share * 100).toFixed(1)} %`;

/** What can be said at once. */
export function listWarnings(results: Results, recipe: Recipe): Warning[] {
  const { prepared, findings, reduction, map, shapeMisfits } = results;
  const warnings: Warning[] = [];
  const warn = (text: string, place: Warning["place"] = null) => warnings.push({ text, place });
  const { raster, seeThrough } = prepared;
  const mmPerPx = mmPerPixel(recipe, results.prepared.raster);
  const dpi = effectiveDpi(raster.width, printWidthMm(recipe, raster));
  const inks = new Set(reduction.spots.flatMap(({ id, role }) => (role === "ink" ? [id] : [])));
  const isSheet = findings.opaquePx === 0;
  if (!map.faces.some(({ spotId }) => inks.has(spotId)))
    warn(
      isSheet
        ? "The picture is fully transparent: there is nothing to print."
        : "Every colour is dropped or the garment's: there is nothing to print.",
    );
  // An empty sheet has no pixels to be coarse.
  if (dpi < LOW_DPI && !isSheet)
    warn(`The picture has ${Math.round(dpi)} dpi at this width; under ${LOW_DPI} dpi fine detail is guessed.`);
  if (reduction.spots.length > MOST_SPOTS)
    warn(`${reduction.spots.length} colours: above ${MOST_SPOTS} it is not a spot-colour job.`);
  const background = findBackgroundPlate(map, reduction.spots);
  if (background) {
    const name = nameOf(reduction, background.spotId);
    warn(
      `${name} prints as a background over ${percent(background.share)} of the art. If it is paper or a box behind the design, take it away (Artwork, Background; in the shell --background away), or let the garment show there (Colours).`,
    );
  }
  if (seeThrough) {
    const all = raster.width * raster.height;
    const { x, y } = seeThrough.at;
    warn(
      `${percent(seeThrough.areaPx / all)} of the picture is half-transparent, ${percent(seeThrough.faintPx / all)} of it under one half: that is dropped, the rest prints solid (largest at ${(x * mmPerPx).toFixed(1)}, ${(y * mmPerPx).toFixed(1)} mm). Lay it on the garment's colour, drop it or print it solid: Artwork, Background.`,
      seeThrough.at,
    );
  }
  const lost = recipe.shapes.entries.filter(({ id }) => shapeMisfits.has(id)).length;
  if (lost > 0)
    warn(
      `${lost === 1 ? "1 edit of shapes by hand changes" : `${lost} edits of shapes by hand change`} nothing any more: look at Shapes, By hand.`,
    );
  for (const { name, count, at } of overhangingMotifs(recipe, prepared))
    warn(
      `${name} reaches over the picture's edge${count > 1 ? ` ${count} times` : ""}: what is beyond is cut off.`,
      at,
    );
  return warnings;
}

/** Placed motifs that the picture's edge cuts, with how often and a place, pixels of the prepared picture. */
function overhangingMotifs({ shapes }: Recipe, { raster, frame }: Results["prepared"]) {
  const toPrepared = invertMap(frame.toSource);
  return shapes.entries.flatMap((entry) => {
    if (entry.kind !== "motif" || !entry.isOn) return [];
    const over = overhangingCopies(entry, placesOf(entry, toPrepared), raster);
    return over.length > 0 ? [{ name: entry.motif.name, count: over.length, at: { x: over[0].x, y: over[0].y } }] : [];
  });
}

function nameOf({ spots }: Results["reduction"], id: string | null): string {
  return spots.find((spot) => spot.id === id)?.name ?? "";
}

/** What is too thin of the shapes that are made as they are; of others, their process says it. */
function findThinShapes(results: Results, recipe: Recipe, limits: ThinLimits): ThinPlace[] {
  const { colours, process } = recipe;
  const isMade = (spotId: string | null) =>
    processOf((spotId && colours.decided[spotId]?.process) || process).makesShapes;
  const { map, reduction } = results;
  if (!processesIn(recipe).some(({ makesShapes }) => makesShapes)) return [];
  return findThinPlaces(map, reduction.spots, limits, mmPerPixel(recipe, results.prepared.raster)).filter(
    ({ spotId }) => isMade(spotId),
  );
}

/** What is measured to be too thin, too near or shaded. Slower than the other warnings: not for every change of a slide. */
export function listChecks(
  results: Results,
  recipe: Recipe,
  limits: ThinLimits = THIN_LIMITS,
  thin: readonly ThinPlace[] = findThinShapes(results, recipe, limits),
): Warning[] {
  const { findings, reduction, assignment } = results;
  const warnings: Warning[] = [];
  const warn = (text: string) => warnings.push({ text, place: null });
  const shading = measureShading(findings, reduction, assignment);
  const spots = `${reduction.spots.length} flat ${reduction.spots.length === 1 ? "spot" : "spots"}`;
  if (shading > LEAST_SHADING)
    warn(`${percent(shading)} of the picture shades: ${spots} will not carry its gradients.`);
  else if (findings.found.length > MOST_SPOTS)
    warn(`The picture has at least ${findings.found.length} tones; ${spots} will not carry its gradients.`);
  for (const { a, b, difference } of findNearInks(reduction.spots))
    warn(
      `${nameOf(reduction, a)} and ${nameOf(reduction, b)} are nearly the same: CIEDE2000 ${difference.toFixed(1)}.`,
    );
  const limitText = {
    line: (n: number) => `${n === 1 ? "line" : "lines"} under ${limits.lineMm} mm`,
    gap: (n: number) => `${n === 1 ? "gap" : "gaps"} under ${limits.gapMm} mm`,
  } as const;
  const of = ({ spotId }: ThinPlace) => (spotId ? ` of ${nameOf(reduction, spotId)}` : "");
  for (const kind of ["line", "gap"] as const) {
    const places = thin.filter((place) => place.kind === kind);
    warnings.push(...warnOfThin(places, limitText[kind], mmPerPixel(recipe, results.prepared.raster), of));
  }
  return warnings;
}

/** The report of one run. `timingsMs` is measured by the caller: core has no clock. `notes` are warnings of what core does not see: the file, the labels. */
export function makeReport(
  recipe: Recipe,
  results: Results,
  timingsMs: Record<string, number>,
  notes: readonly string[] = [],
): Report {
  const { map, reduction, assignment } = results;
  const mmPerPx = mmPerPixel(recipe, results.prepared.raster);
  const coverage = spotCoverage(map);
  const opaque = map.width * map.height;
  const round = (share: number) => Number(share.toFixed(6));
  const mm = (length: number) => Number(length.toFixed(3));
  const thin = findThinShapes(results, recipe, THIN_LIMITS);
  const processes = results.made.map((product) => product.report());
  return {
    image: { width: map.width, height: map.height },
    spots: reduction.spots.map((spot, index) => ({
      id: spot.id,
      name: spot.name,
      hex: formatHex(spot.rgb),
      coverage: round(spot.role === "drop" ? assignment.areasPx[index] / opaque : (coverage.get(spot.id) ?? 0)),
    })),
    ...Object.assign({}, ...processes.map(({ facts }) => facts)),
    shapes: countShapes(map),
    timingsMs,
    thinPlaces: [...thin, ...processes.flatMap((one) => one.thin)].map(({ kind, spotId, x, y, widthMm, lengthMm }) => ({
      kind,
      spot: spotId === null ? null : nameOf(reduction, spotId),
      xMm: mm(x * mmPerPx),
      yMm: mm(y * mmPerPx),
      widthMm: mm(widthMm),
      lengthMm: mm(lengthMm),
    })),
    warnings: [
      ...notes,
      ...[
        ...listWarnings(results, recipe),
        ...listChecks(results, recipe, THIN_LIMITS, thin),
        ...processes.flatMap(({ warnings }) => warnings),
      ].map(({ text }) => text),
    ],
  };
}
