// Artwork and recipe to results, step by step. Each step is kept under what it was made from, so that a change redoes
// that step and those after it, and nothing before.
import { measureNoise, type Raster } from "../raster/index.ts";
import {
  type Assignment,
  assignSpots,
  type Findings,
  findColours,
  type Reduction,
  reduceColours,
} from "../reduce/index.ts";
import { type Remember, type Separation, separatePlates } from "../separate/index.ts";
import { fitShapes, type PlanarMap, readShapes, type ShapesReading, simplifyMap } from "../trace/index.ts";
import { placeCorrections } from "./corrections.ts";
import { makePrepareCache, needsGarment, type PrepareCache, type Prepared, prepareArtwork } from "./prepare.ts";
import { garmentRgb, printWidthMm, type Recipe } from "./recipe.ts";
import { placeSimplifications } from "./simplifications.ts";

/** The steps in order. */
export const STEPS = ["prepare", "find", "reduce", "assign", "trace", "simplify", "separate"] as const;
export type Step = (typeof STEPS)[number];

/** Everything that follows from artwork and recipe, short of a particular output. */
export interface Results {
  readonly prepared: Prepared;
  readonly findings: Findings;
  readonly reduction: Reduction;
  readonly assignment: Assignment;
  /** As traced, before simplifying. */
  readonly traced: PlanarMap;
  readonly map: PlanarMap;
  readonly separation: Separation;
}

/** A decoded artwork; `key` names its content. */
export interface Artwork {
  readonly key: string;
  readonly raster: Raster;
}

/** The costly parts of tracing and separating. */
type Part = "boundaries" | "inks" | "base";

/** The latest result of every step, and of some parts of them. One per job that is open. */
export interface ResultCache {
  readonly kept: Map<Step | Part, { readonly key: string; readonly result: unknown }>;
  readonly prepare: PrepareCache;
}

export function makeResultCache(): ResultCache {
  return { kept: new Map(), prepare: makePrepareCache() };
}

/**
 * Runs all steps, yielding the name of each before it is computed: a caller shows progress, measures, or stops by not
 * asking for the next one. `focusId` is the action being tuned, whose before and after the prepared picture then has.
 */
export function* runSteps(
  artwork: Artwork,
  recipe: Recipe,
  cache: ResultCache,
  focusId: string | null = null,
): Generator<Step, Results> {
  const { page, drawnWidthPx, actions } = recipe.artwork;
  const inForce = actions.filter(({ isOn }) => isOn);
  const laidOn = inForce.some(needsGarment) ? recipe.artwork.garment : null;
  const findKey = JSON.stringify([artwork.key, page, drawnWidthPx, inForce, laidOn]);
  const prepareKey = JSON.stringify([findKey, focusId]);
  const { count, merges, spots, added, corrections } = recipe.colours;
  const decided = Object.entries(spots);
  const locked = decided.flatMap(([id, { isLocked }]) => (isLocked ? [id] : []));
  // Names change nothing; colours and roles change who gets which pixel only where a fill runs under darker lines.
  const colours =
    corrections.length > 0
      ? [recipe.artwork.garment, ...decided.map(([id, { role, hex, stock }]) => [id, role, hex, stock?.hex])]
      : [];
  const assignKey = JSON.stringify([findKey, count, merges, locked, added, corrections, colours]);
  const roles = decided.flatMap(([id, { role }]) => (role ? [[id, role]] : []));
  const { simplify, ...shapes } = recipe.shapes;
  const readKey = JSON.stringify([
    assignKey,
    roles,
    shapes.specksPx,
    shapes.thinnestPx,
    shapes.cornerDeg,
    shapes.keepsText,
  ]);
  const traceKey = JSON.stringify([assignKey, roles, shapes]);
  const mapKey = JSON.stringify([traceKey, simplify.filter(({ isOn }) => isOn)]);
  const { garment } = recipe.artwork;
  const reduceKey = JSON.stringify([findKey, garment, { ...recipe.colours, corrections: null, pieces: null }]);

  yield "prepare";
  const prepared = keep(cache, "prepare", prepareKey, () =>
    prepareArtwork(artwork.raster, actions, cache.prepare, focusId, garmentRgb(recipe)),
  );
  yield "find";
  const findings = keep(cache, "find", findKey, () => findColours(prepared.raster, noiseOf(prepared)));
  yield "reduce";
  const reduction = keep(cache, "reduce", reduceKey, () => reduceColours(findings, recipe.colours, garmentRgb(recipe)));
  yield "assign";
  const assignment = keep(cache, "assign", assignKey, () =>
    assignSpots(
      findings,
      reduction,
      placeCorrections(corrections, prepared.frame),
      lastOf<Assignment>(cache, "assign"),
    ),
  );
  yield "trace";
  const traced = keep(cache, "trace", traceKey, () => {
    const read = () => readShapes(findings, reduction, assignment, shapes, lastOf<ShapesReading>(cache, "boundaries"));
    return fitShapes(keep(cache, "boundaries", readKey, read), shapes);
  });
  yield "simplify";
  const map = keep(cache, "simplify", mapKey, () =>
    simplifyMap(traced, placeSimplifications(simplify, prepared.frame)),
  );
  yield "separate";
  const widthMm = printWidthMm(recipe, prepared.raster);
  const separateKey = JSON.stringify([mapKey, reduceKey, recipe.separations, widthMm, recipe.artwork.garment]);
  const remember: Remember = (part, madeFrom, compute) =>
    keep(cache, part, JSON.stringify([mapKey, madeFrom]), compute);
  const separation = keep(cache, "separate", separateKey, () =>
    separatePlates(map, reduction.spots, recipe.separations, widthMm, garmentRgb(recipe), remember),
  );
  return { prepared, findings, reduction, assignment, traced, map, separation };
}

/** What was cut away takes flat pixels with it: what is left looks noisier than the picture is. Line art is cleaner than it was. */
function noiseOf({ raster, upright }: Prepared): number {
  const noise = measureNoise(raster);
  return noise > 0 && raster !== upright ? Math.min(noise, measureNoise(upright)) : noise;
}

/** Runs all steps to the end. */
export function runPipeline(artwork: Artwork, recipe: Recipe, cache: ResultCache = makeResultCache()): Results {
  const steps = runSteps(artwork, recipe, cache);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** What a step or part made last, of whatever: it tells by itself what of that still holds. */
function lastOf<T>(cache: ResultCache, step: Step | Part): T | null {
  return (cache.kept.get(step)?.result as T | undefined) ?? null;
}

function keep<T>(cache: ResultCache, step: Step | Part, key: string, compute: () => T): T {
  const kept = cache.kept.get(step);
  if (kept?.key === key) return kept.result as T;
  const result = compute();
  cache.kept.set(step, { key, result });
  return result;
}
