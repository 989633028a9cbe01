// What is to be known of layers before film is cut: their numbers, what does not cut or weed, what lies too thick.
import { findThinRegion, type ThinPlace, type Warning, warnOfThin } from "../checks/index.ts";
import { planCuts } from "../cut/index.ts";
import { boundsOf, pathArea } from "../geometry/index.ts";
import type { ProcessReport } from "../process/index.ts";
import { MOST_FILMS } from "../trade/index.ts";
import type { Layer, Layering } from "./layers.ts";
import type { Transfer } from "./outputs.ts";
import type { PrintedFilm } from "./printed.ts";
import type { TransferSettings } from "./settings.ts";
import type { FilmSheet } from "./sheets.ts";

/** Kinds of places that do not come off the cutter well. */
const STRIP = "strip";
const GAP = "film gap";
const ISLAND = "island";
/** Decimals of measures in report.json. */
const DIGITS = 3;

export function reportTransfer(made: Transfer, settings: TransferSettings): ProcessReport {
  return made.printed ? reportPrinted(made.printed) : reportLayers(made, settings);
}

function reportPrinted({ widthMm, heightMm, cutLine }: PrintedFilm): ProcessReport {
  const { cutLengthMm, contours } = planCuts(cutLine, {
    ...{ widthPx: widthMm, heightPx: heightMm, mmPerPx: 1, isMirrored: false },
  });
  const facts = { widthMm, heightMm, cutLengthMm, lifts: contours.length };
  return {
    facts: { printed: Object.fromEntries(Object.entries(facts).map(([key, value]) => [key, rounded(value)])) },
    thin: [],
    warnings: [],
  };
}

function reportLayers({ layering, sheets }: Transfer, { isMirrored, limits }: TransferSettings): ProcessReport {
  const { layers, mmPerPx, stack } = layering;
  const thin = layers.flatMap((layer) => findUncut(layer, limits, mmPerPx));
  const nameOf = ({ spotId }: ThinPlace) => ` of ${layers.find((layer) => layer.spotId === spotId)?.name}`;
  const warn = (kind: string, what: (count: number) => string) =>
    warnOfThin(
      thin.filter((place) => place.kind === kind).sort((a, b) => a.widthMm - b.widthMm),
      what,
      mmPerPx,
      nameOf,
    );
  const plural = (count: number, one: string) => (count === 1 ? one : `${one}s`);
  const stiff: Warning[] =
    stack.most > MOST_FILMS
      ? [{ text: `${stack.most} films lie on each other; more than ${MOST_FILMS} feel stiff.`, place: stack.place }]
      : [];
  return {
    facts: {
      layers: layers.map((layer) => ({
        spotId: layer.spotId,
        name: layer.name,
        order: layer.order,
        mode: layer.mode,
        areaMm2: rounded(layer.areaMm2),
        pieces: layer.pieces,
        nodes: layer.nodes,
        ...cutFacts(layer, layering, isMirrored),
      })),
      sheets: sheets.map(({ spotId, stock, copies, roll, nesting, cost, wasteShare, cutS }) => ({
        ...{ spotId, film: stock && `${stock.code} ${stock.name}`, copies, rollWidthMm: roll.widthMm },
        lengthMm: nesting && rounded(nesting.lengthMm),
        ...{ cost: rounded(cost), wasteShare: rounded(wasteShare), cutMinutes: rounded(cutS / 60) },
      })),
    },
    thin,
    warnings: [
      ...warn(STRIP, (count) => `${plural(count, "strip")} of film under ${limits.stripMm} mm`),
      ...warn(GAP, (count) => `${plural(count, "gap")} in a layer under ${limits.gapMm} mm, too narrow to weed`),
      ...warn(ISLAND, (count) => `${plural(count, "island")} under ${limits.islandMm} mm across, lost in weeding`),
      ...stiff,
      ...sheets.flatMap(tooWide),
    ],
  };
}

function cutFacts({ region }: Layer, layering: Layering, isMirrored: boolean) {
  const { cutLengthMm, contours } = planCuts(region, { ...layering, isMirrored });
  return { cutLengthMm: rounded(cutLengthMm), lifts: contours.length };
}

/** A piece that does not go on its roll, with what does. */
function tooWide({ name, nesting, piece, roll, widestPrintMm }: FilmSheet): Warning[] {
  if (nesting) return [];
  const across = Math.min(piece.widthMm, piece.heightMm).toFixed(1);
  // Rounded down: what is said to fit does.
  const fits = (Math.floor(widestPrintMm * 10) / 10).toFixed(1);
  const text = `A piece of ${name} is ${across} mm across, which does not go on a roll of ${roll.widthMm} mm; the widest print that does is ${fits} mm.`;
  return [{ text, place: null }];
}

const rounded = (value: number) => Number(value.toFixed(DIGITS));

/** Strips, gaps and islands of a layer that are finer than is cut and weeded. */
function findUncut(
  { region, spotId }: Layer,
  { stripMm, gapMm, islandMm }: TransferSettings["limits"],
  mmPerPx: number,
): ThinPlace[] {
  const thin = findThinRegion({ line: STRIP, gap: GAP }, region, { lineMm: stripMm, gapMm }, mmPerPx);
  const areas = region.map(pathArea);
  const turn = Math.sign(areas.reduce((sum, area) => sum + area, 0));
  const islands = region.flatMap((path, i): ThinPlace[] => {
    if (Math.sign(areas[i]) !== turn) return [];
    const { left, top, right, bottom } = boundsOf(path);
    const [shorter, longer] = [right - left, bottom - top].sort((a, b) => a - b).map((px) => px * mmPerPx);
    if (longer >= islandMm) return [];
    const place = { x: (left + right) / 2, y: (top + bottom) / 2 };
    return [{ kind: ISLAND, spotId: null, ...place, widthMm: shorter, lengthMm: longer }];
  });
  return [...thin, ...islands].map((place) => ({ ...place, spotId }));
}
