// Artwork and recipe to results: the table of steps, and how they are run.
import { measureNoise, type Raster } from "../raster/index.ts";
import {
  type Assignment,
  assignSpots,
  type Findings,
  findColours,
  type Reduction,
  reduceColours,
} from "../reduce/index.ts";
import {
  basedSpots,
  fromLightToDark,
  type InkRegion,
  layBase,
  orderPlates,
  type PlateRegion,
  type Separable,
  type Separation,
  spreadInks,
} from "../screens/index.ts";
import { fitShapes, type PlanarMap, readShapes, type ShapesReading, simplifyMap } from "../trace/index.ts";
import { placeCorrections } from "./corrections.ts";
import { makePrepareCache, needsGarment, type PrepareCache, type Prepared, prepareArtwork } from "./prepare.ts";
import { garmentRgb, printWidthMm, type Recipe } from "./recipe.ts";
import { placeSimplifications } from "./shape-entries.ts";
import { doStep, type Get, type KeptResults, resultOf, type StepTable } from "./step-table.ts";

/** What every step makes. */
export interface StepResults {
  readonly prepare: Prepared;
  readonly find: Findings;
  readonly reduce: Reduction;
  readonly assign: Assignment;
  readonly read: ShapesReading;
  readonly trace: PlanarMap;
  readonly simplify: PlanarMap;
  readonly inks: ReadonlyMap<string, InkRegion>;
  readonly base: PlateRegion | null;
  readonly separate: Separation;
}
export type Step = keyof StepResults;

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

/** The latest result of every step. One per job that is open. */
export interface ResultCache {
  readonly kept: KeptResults<StepResults>;
  readonly prepare: PrepareCache;
}

export function makeResultCache(): ResultCache {
  return { kept: {}, prepare: makePrepareCache() };
}

/** What the steps work with. `focusId` is the action being tuned, whose before and after the prepared picture then has. */
interface Work {
  readonly artwork: Artwork;
  readonly recipe: Recipe;
  readonly focusId: string | null;
  readonly prepareCache: PrepareCache;
}

/** The steps in their order. */
const STEPS: StepTable<StepResults, Work> = {
  prepare: {
    doing: "Preparing the picture",
    weight: 5,
    part: "decode",
    from: [],
    reads: ({ artwork, recipe: { artwork: wanted } }) => {
      const inForce = wanted.actions.filter(({ isOn }) => isOn);
      const laidOn = inForce.some(needsGarment) ? wanted.garment : null;
      return [artwork.key, wanted.page, wanted.drawnWidthPx, inForce, laidOn];
    },
    aside: ({ focusId }) => focusId,
    compute: ({ artwork, recipe, focusId, prepareCache }) =>
      prepareArtwork(artwork.raster, recipe.artwork.actions, prepareCache, focusId, garmentRgb(recipe)),
  },
  find: {
    doing: "Finding colours",
    weight: 25,
    part: "reduce",
    from: ["prepare"],
    reads: () => null,
    compute: (_, get) => findColours(get("prepare").raster, noiseOf(get("prepare"))),
  },
  reduce: {
    doing: "Reducing",
    weight: 2,
    part: "reduce",
    from: ["find"],
    reads: ({ recipe: { artwork, colours } }) => [
      artwork.garment,
      { ...colours, order: null, corrections: null, pieces: null },
    ],
    compute: ({ recipe }, get) => reduceColours(get("find"), recipe.colours, garmentRgb(recipe)),
  },
  assign: {
    doing: "Giving areas their spots",
    weight: 3,
    part: "reduce",
    from: ["find"],
    reads: ({ recipe: { artwork, colours } }) => {
      const { count, merges, spots, added, corrections } = colours;
      const decided = Object.entries(spots);
      const locked = decided.flatMap(([id, { isLocked }]) => (isLocked ? [id] : []));
      // Names change nothing; colours and roles change who gets which pixel only where a fill runs under darker lines.
      const shades =
        corrections.length > 0
          ? [artwork.garment, ...decided.map(([id, { role, hex, stock }]) => [id, role, hex, stock?.hex])]
          : [];
      return [count, merges, locked, added, corrections, shades];
    },
    compute: ({ recipe }, get, last) => {
      const corrections = placeCorrections(recipe.colours.corrections, get("prepare").frame);
      return assignSpots(get("find"), get("reduce"), corrections, last);
    },
  },
  read: {
    doing: "Following boundaries",
    weight: 10,
    part: "trace",
    from: ["assign"],
    reads: ({ recipe: { colours, shapes } }) => {
      const roles = Object.entries(colours.spots).flatMap(([id, { role }]) => (role ? [[id, role]] : []));
      return [roles, shapes.specksPx, shapes.thinnestPx, shapes.cornerDeg, shapes.keepsText];
    },
    compute: ({ recipe }, get, last) => readShapes(get("find"), get("reduce"), get("assign"), recipe.shapes, last),
  },
  trace: {
    doing: "Tracing",
    weight: 10,
    part: "trace",
    from: ["read"],
    reads: ({ recipe: { shapes } }) => [shapes.tolerancePx],
    compute: ({ recipe }, get) => fitShapes(get("read"), recipe.shapes),
  },
  simplify: {
    doing: "Taking nodes out",
    weight: 5,
    part: "trace",
    from: ["trace"],
    reads: ({ recipe: { shapes } }) => shapes.entries.filter(({ isOn }) => isOn),
    compute: ({ recipe }, get) =>
      simplifyMap(get("trace"), placeSimplifications(recipe.shapes.entries, get("prepare").frame)),
  },
  inks: {
    doing: "Spreading traps",
    weight: 10,
    part: "separate",
    from: ["simplify"],
    reads: (work, get) => [work.recipe.processes.screens.trapMm, ...spreadBy(work, get)],
    compute: (work, get) => spreadInks(artOf(work, get), work.recipe.processes.screens),
  },
  base: {
    doing: "Laying the underbase",
    weight: 8,
    part: "separate",
    from: ["simplify"],
    reads: (work, get) => {
      const { base } = work.recipe.processes.screens;
      return [base.chokeMm, base.thinnestMm, basedSpots(artOf(work, get), { base }), ...spreadBy(work, get)];
    },
    compute: (work, get) => layBase(artOf(work, get), work.recipe.processes.screens),
  },
  separate: {
    doing: "Ordering plates",
    weight: 2,
    part: "separate",
    from: ["inks", "base", "reduce"],
    reads: ({ recipe }) => recipe.colours.order,
    compute: (work, get) => {
      const settings = { order: work.recipe.colours.order, base: work.recipe.processes.screens.base };
      return orderPlates(artOf(work, get), settings, get("inks"), get("base"));
    },
  },
};

const ORDER = Object.keys(STEPS) as readonly Step[];

/** What a person is told while a step is done, how much of the whole (0..1) lies before it, and what its time is part of. */
export function aboutStep(step: Step): { readonly doing: string; readonly done: number; readonly part: string } {
  const weightOf = (steps: readonly Step[]) => steps.reduce((sum, one) => sum + STEPS[one].weight, 0);
  const { doing, part } = STEPS[step];
  return { doing, part, done: weightOf(ORDER.slice(0, ORDER.indexOf(step))) / weightOf(ORDER) };
}

function artOf({ recipe }: Work, get: Get<StepResults>): Separable {
  return {
    map: get("simplify"),
    spots: get("reduce").spots,
    widthMm: printWidthMm(recipe, get("prepare").raster),
    garment: garmentRgb(recipe),
  };
}

/** What decides where one ink runs on under another. */
function spreadBy(work: Work, get: Get<StepResults>): readonly unknown[] {
  const art = artOf(work, get);
  return [art.widthMm, fromLightToDark(art)];
}

/**
 * Runs all steps, yielding the name of each before it is computed: a caller shows progress, measures, or stops by not
 * asking for the next one.
 */
export function* runSteps(
  artwork: Artwork,
  recipe: Recipe,
  { kept, prepare: prepareCache }: ResultCache,
  focusId: string | null = null,
): Generator<Step, Results> {
  const work: Work = { artwork, recipe, focusId, prepareCache };
  for (const step of ORDER) {
    yield step;
    doStep(STEPS, step, work, kept);
  }
  return {
    prepared: resultOf(kept, "prepare"),
    findings: resultOf(kept, "find"),
    reduction: resultOf(kept, "reduce"),
    assignment: resultOf(kept, "assign"),
    traced: resultOf(kept, "trace"),
    map: resultOf(kept, "simplify"),
    separation: resultOf(kept, "separate"),
  };
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
