// Artwork and recipe to results: the table of steps, and how they are run.
import { applyEdits, type Edited } from "../edit/index.ts";
import { makingOf } from "../makings/index.ts";
import type { Design, Maker, Process, Product, StepNotice } from "../process/index.ts";
import { processOf } from "../processes/index.ts";
import { measureNoise, type Raster } from "../raster/index.ts";
import {
  type Assignment,
  assignSpots,
  type Findings,
  findColoursTogether,
  type Reduction,
  reduceColours,
  type Spot,
} from "../reduce/index.ts";
import { type Helpers, type Outcomes, type Shared, workTogether } from "../share/index.ts";
import { doStep, type KeptResults, resultOf, type StepTable, totalWeight } from "../steps/index.ts";
import { taskOf } from "../tasks/index.ts";
import { type Drawing, fitShapesTogether, readShapes, type ShapesReading } from "../trace/index.ts";
import { placeCorrections } from "./corrections.ts";
import { EMPTY_LIBRARY, type Library, missingOf } from "./library.ts";
import { placeEdits } from "./place-edits.ts";
import { makePrepareCache, needsGarment, type PrepareCache, type Prepared, prepareArtwork } from "./prepare.ts";
import { garmentRgb, mmPerPixel, printWidthMm, type Recipe } from "./recipe.ts";
import { haveMeasures } from "./shape-entries.ts";

/** What every step makes that is before any process. */
export interface StepResults {
  readonly prepare: Prepared;
  readonly find: Findings;
  readonly reduce: Reduction;
  readonly assign: Assignment;
  readonly read: ShapesReading;
  readonly trace: Drawing;
  readonly edit: Edited;
}
export type Step = keyof StepResults;

/** Everything that follows from artwork and recipe, short of a particular output. */
export interface Results {
  readonly prepared: Prepared;
  readonly findings: Findings;
  readonly reduction: Reduction;
  readonly assignment: Assignment;
  /** As traced, before anything was done to the shapes by hand. */
  readonly traced: Drawing;
  readonly map: Drawing;
  /** Entries of the shapes that change nothing, with the reason, by their id. */
  readonly shapeMisfits: ReadonlyMap<string, string>;
  /** What each process made: the job's own first, then those that single spots are sent to. */
  readonly made: readonly Product[];
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
  /** By process. */
  readonly makers: Map<string, Maker>;
  readonly library: Library;
}

export function makeResultCache(library: Library = EMPTY_LIBRARY): ResultCache {
  return { kept: {}, prepare: makePrepareCache(), makers: new Map(), library };
}

/** What the steps work with. `focusId` is the action being tuned, whose before and after the prepared picture then has. */
interface Work {
  readonly artwork: Artwork;
  readonly recipe: Recipe;
  readonly focusId: string | null;
  readonly prepareCache: PrepareCache;
  readonly library: Library;
}

/** Earlier results that grow with the picture are kept up to so many pixels. */
const KEPT_PX = 6e6;
const ifSmall = ({ artwork: { raster } }: Work) => raster.width * raster.height <= KEPT_PX;
const never = () => false;

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
    keepsEarlier: never,
    compute: ({ artwork, recipe, focusId, prepareCache }) =>
      prepareArtwork(artwork.raster, recipe.artwork.actions, prepareCache, focusId, garmentRgb(recipe)),
  },
  find: {
    doing: "Finding colours",
    weight: 25,
    part: "reduce",
    from: ["prepare"],
    keepsEarlier: never,
    reads: () => null,
    compute: (_, get) => findColoursTogether(get("prepare").raster, noiseOf(get("prepare"))),
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
    keepsEarlier: ifSmall,
    reads: ({ recipe: { artwork, colours } }) => {
      const { count, merges, added, corrections } = colours;
      const decided = Object.entries(colours.decided);
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
    keepsEarlier: ifSmall,
    reads: ({ recipe: { colours, shapes } }) => {
      const roles = Object.entries(colours.decided).flatMap(([id, { role }]) => (role ? [[id, role]] : []));
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
    compute: ({ recipe }, get) => fitShapesTogether(get("read"), recipe.shapes),
  },
  edit: {
    doing: "Changing shapes",
    weight: 5,
    part: "trace",
    from: ["trace"],
    reads: ({ recipe, library }, get) => {
      const { entries } = recipe.shapes;
      return [
        entries.filter(({ isOn }) => isOn),
        haveMeasures(entries) ? mmPerPixel(recipe, get("prepare").raster) : null,
        missingOf(entries, library),
      ];
    },
    compute: ({ recipe, library }, get, last) => {
      const { raster, frame } = get("prepare");
      const edits = placeEdits(recipe.shapes.entries, frame, mmPerPixel(recipe, raster), library);
      return applyEdits(get("trace"), edits, last?.memory ?? null);
    },
  },
};

const ORDER = Object.keys(STEPS) as readonly Step[];

/** The processes of a job: its own first, then those that single spots are sent to. */
export function processesIn({ process, colours }: Recipe): readonly Process[] {
  const sent = Object.values(colours.decided).flatMap((one) => one.process ?? []);
  return [...new Set([process, ...sent])].map(processOf);
}

/**
 * Runs all steps, telling of each before it is done: a caller shows progress, measures, or stops by not asking for the next
 * one.
 */
export function* runSteps(...given: Parameters<typeof takeTurns>): Generator<StepNotice, Results> {
  const turns = takeTurns(...given);
  let turn = turns.next(null);
  for (; !turn.done; turn = turns.next(null)) if (!isShared(turn.value)) yield turn.value;
  return turn.value;
}

/** The same with helpers; what comes of it is the same to the last bit, however many there are. */
export async function* runStepsTogether(
  helpers: Helpers,
  ...given: Parameters<typeof takeTurns>
): AsyncGenerator<StepNotice, Results> {
  const turns = takeTurns(...given);
  let turn = turns.next(null);
  while (!turn.done) {
    if (isShared(turn.value)) turn = turns.next(await workTogether(turn.value, helpers, taskOf));
    else {
      yield turn.value;
      turn = turns.next(null);
    }
  }
  return turn.value;
}

function isShared(turn: StepNotice | Shared): turn is Shared {
  return "parts" in turn;
}

/** Tells of each step before it is done, and of what of it may be shared out. */
function* takeTurns(
  artwork: Artwork,
  recipe: Recipe,
  { kept, prepare: prepareCache, makers, library }: ResultCache,
  focusId: string | null = null,
): Generator<StepNotice | Shared, Results, Outcomes> {
  const work: Work = { artwork, recipe, focusId, prepareCache, library };
  const processes = processesIn(recipe);
  const whole = totalWeight(STEPS) + processes.reduce((sum, { id }) => sum + makingOf(id).weight, 0);
  let before = 0;
  for (const name of ORDER) {
    const { doing, part, weight } = STEPS[name];
    yield { name, doing, part, done: before / whole };
    before += weight;
    yield* doStep(STEPS, name, work, kept);
  }
  const made: Product[] = [];
  for (const process of processes) {
    const design = designFor(process, recipe, kept);
    // A spot that was sent elsewhere may be gone since: nothing is made of nothing.
    if (process.id !== recipe.process && !design.spots.some(({ role }) => role === "ink")) continue;
    const making = makingOf(process.id);
    const maker = makers.get(process.id) ?? making.open();
    makers.set(process.id, maker);
    const steps = maker.make(design, recipe, kept.edit?.key ?? "");
    let step = steps.next(null);
    while (!step.done) {
      const { value } = step;
      step = steps.next(
        yield isShared(value) ? value : { ...value, done: (before + making.weight * value.done) / whole },
      );
    }
    before += making.weight;
    made.push(step.value);
  }
  return {
    prepared: resultOf(kept, "prepare"),
    findings: resultOf(kept, "find"),
    reduction: resultOf(kept, "reduce"),
    assignment: resultOf(kept, "assign"),
    traced: resultOf(kept, "trace"),
    map: resultOf(kept, "edit").drawing,
    shapeMisfits: resultOf(kept, "edit").misfits,
    made,
  };
}

/** What a process starts from: what is made another way is not there for it. */
function designFor({ id }: Process, recipe: Recipe, kept: KeptResults<StepResults>): Design {
  const { colours, process } = recipe;
  const isOurs = (spot: Spot) => (colours.decided[spot.id]?.process ?? process) === id;
  return {
    map: resultOf(kept, "edit").drawing,
    picture: resultOf(kept, "prepare").raster,
    frame: resultOf(kept, "prepare").frame,
    spots: resultOf(kept, "reduce").spots.map((spot) => (isOurs(spot) ? spot : { ...spot, role: "drop" })),
    order: colours.order,
    widthMm: printWidthMm(recipe, resultOf(kept, "prepare").raster),
    garment: garmentRgb(recipe),
    stock: chosenStock(recipe),
    placement: recipe.artwork.placement,
    pieces: colours.pieces,
  };
}

/** What was taken from the shelf, by the spot that it is for. */
export function chosenStock({ colours }: Pick<Recipe, "colours">): Design["stock"] {
  return Object.fromEntries(
    Object.entries(colours.decided).flatMap(([id, { stock }]) => (stock ? [[id, stock] as const] : [])),
  );
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
