// The worker: the same core as the server's, on the same pixels. The latest request wins; a stale one stops at the next step.
import { findNearInks, findThinPlaces, measureShading, type ThinLimits } from "@plain-palette/core/checks";
import { makeProof } from "@plain-palette/core/proof";
import { makeRaster, proposeBackground, proposeTrim, type Raster } from "@plain-palette/core/raster";
import {
  type Artwork,
  listChecks,
  listWarnings,
  makeResultCache,
  mmPerPixel,
  nameReadings,
  neededBy,
  type Recipe,
  type ResultCache,
  type Results,
  readingsOf,
  runStepsTogether,
  type StepResults,
  takeUpReadings,
} from "@plain-palette/core/recipe";
import { type Get, resultOf } from "@plain-palette/core/steps";
import { computeAhead } from "./ahead.ts";
import { viewArea } from "./area-view.ts";
import { compareWith, viewFocus, viewPrepared } from "./artwork-views.ts";
import { type FirstLook, makeFirstLook } from "./first-look.ts";
import { startHelpers } from "./helpers.ts";
import { keepReadings } from "./kept-readings.ts";
import type {
  ChecksView,
  ComputeMessage,
  ComputeRequest,
  PreparedView,
  Question,
  Questions,
  StopRequest,
} from "./messages.ts";
import { makeLoadedMotifs } from "./motifs.ts";
import { makeShapesFile, viewLettering, viewShapes } from "./shapes-views.ts";
import { makeLoadedTypefaces } from "./typefaces.ts";

type Answer = Questions[keyof Questions]["answer"];

const library = { typefaces: makeLoadedTypefaces(), motifs: makeLoadedMotifs() };
const helpers = startHelpers();
/** While the code is being changed, nothing says which it is. */
const keptReadings = import.meta.env.DEV ? null : keepReadings(import.meta.url);
let cache: ResultCache = makeResultCache(library);
let loaded: Artwork | null = null;
let latest = 0;
let latestArea = 0;
let working: Promise<void> = Promise.resolve();
/** A pause of a hand that is tuning something, ms. */
const HAND_MS = 450;
/** How long the worker may be deaf at a time, if its steps are short enough, ms. */
const BREATH_MS = 20;
let lastBreath = 0;

let firstLook: FirstLook | null = null;
/** Pictures that the page has already. */
let shown: { readonly raster: Raster; readonly upright: Raster } | null = null;

self.onmessage = ({ data }: MessageEvent<ComputeRequest | StopRequest | Question>) => {
  clearTimeout(resting);
  heard++;
  if (data.type !== "ask") latest = data.id;
  if (data.type === "ask" && data.what === "area") latestArea = data.id;
  else wake();
  if (data.type === "stop") return;
  // One at a time: the one before sees that it is stale and ends.
  working = working.then(() => (data.type === "compute" ? compute(data) : answer(data)));
};

function tell(message: ComputeMessage, transfer: Transferable[] = []): void {
  self.postMessage(message, { transfer });
}

/** Lets a newer request be heard, if it is time: every pause costs some milliseconds, and most steps are there already. */
async function breathe(): Promise<void> {
  if (performance.now() - lastBreath < BREATH_MS) return;
  await wait(0);
  lastBreath = performance.now();
}

/** Ends a wait early. */
let wake = () => {};

/** Waits until the time is over or a newer request is there. */
function wait(ms: number): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, ms);
    wake = () => {
      clearTimeout(timer);
      resolve();
    };
  });
}

async function compute(request: ComputeRequest): Promise<void> {
  const isStale = () => request.id !== latest;
  if (isStale()) return;
  try {
    const artwork = await load(request);
    const needed = neededBy(request.recipe.shapes.entries);
    await Promise.all([library.typefaces.need(needed.typefaces), library.motifs.need(needed.motifs)]);
    if (isStale()) return;
    tellLettering(request);
    // When a job is opened, the picture as it came stands meanwhile, and no hand is at work.
    const view = cache.kept.prepare ? await firstLook?.(request) : null;
    if (view) {
      // The page now has the small picture: the large one has to be sent again, even if it is the one before.
      shown = null;
      tellPrepared(request.id, view);
      // While a hand is still moving, the next first look must not wait behind this large one.
      await wait(HAND_MS);
      if (isStale()) return;
    }
    const steps = runStepsTogether(helpers, artwork, request.recipe, cache, request.focusId);
    let announced: string | null = null;
    for (let step = await steps.next(); ; step = await steps.next()) {
      // The step that was announced before is now computed and in the cache.
      if (announced) await tellResult(request, announced);
      if (step.done) {
        await tellMade(request, step.value);
        break;
      }
      if (announced === request.upTo) break;
      tell({ type: "step", id: request.id, doing: step.value.doing, done: step.value.done });
      announced = step.value.name;
      await breathe();
      // What is traced is shown even if the hand has moved on meanwhile: else nothing would be seen until it rests.
      if (isStale() && announced !== "edit") return;
    }
    if (request.checkThin !== null && request.upTo === "edit") {
      tell({ type: "step", id: request.id, doing: "Measuring", done: 1 });
      await breathe();
      if (isStale()) return;
      tell({ type: "checked", id: request.id, view: check(request.checkThin, request.recipe) });
    }
    if (request.compare !== null) {
      tell({ type: "step", id: request.id, doing: "Comparing", done: 1 });
      await breathe();
      if (isStale()) return;
      const view = await compareWith(request.compare, request.recipe, get);
      tell({ type: "compared", id: request.id, view }, [view.bitmap]);
    }
    tell({ type: "done", id: request.id });
    resting = setTimeout(() => {
      const last = heard;
      working = working.then(() => whileResting(request, artwork, last));
    }, REST_MS);
  } catch (error) {
    tell({ type: "failed", id: request.id, message: textOf(error) });
  }
}

async function load({ id, hash, recipe }: ComputeRequest): Promise<Artwork> {
  const { page, drawnWidthPx } = recipe.artwork;
  const query = drawnWidthPx === null ? `page=${page}` : `page=${page}&width=${drawnWidthPx}`;
  const key = `${hash}?${query}`;
  if (loaded?.key === key) return loaded;
  tell({ type: "step", id, doing: "Fetching the artwork", done: 0 });
  const readings = keptReadings?.find(key);
  const response = await fetch(`/api/artworks/${hash}/pixels?${query}`);
  if (!response.ok) {
    const problem = await response.json().catch(() => null);
    throw new Error(problem?.detail ?? "The artwork's pixels could not be fetched. Reload the page.");
  }
  const [width = 0, height = 0] = (response.headers.get("Picture-Size") ?? "").split("x").map(Number);
  const data = new Uint8ClampedArray(await response.arrayBuffer());
  const raster = makeRaster(width, height, data);
  const bitmap = await createImageBitmap(new ImageData(data, width, height), { premultiplyAlpha: "default" });
  tell({ type: "loaded", bitmap }, [bitmap]);
  loaded = { key, raster };
  firstLook = makeFirstLook(raster);
  cache = makeResultCache(library);
  const found = await readings;
  if (found) takeUpReadings(cache, found);
  keptName = found ? nameReadings(found) : "";
  shown = null;
  return loaded;
}

/** A hand that has been still for so long rests; so much later what there is is written down, ms. */
const REST_MS = 400;
const WRITE_MS = 600;
let resting: ReturnType<typeof setTimeout> | undefined;
/** Everything that the page has ever sent. */
let heard = 0;

/** Computes what will be wanted next, then keeps all that there is, until more is heard than so far. */
async function whileResting(request: ComputeRequest, artwork: Artwork, last: number): Promise<void> {
  const isOver = async () => {
    await wait(0);
    return heard !== last;
  };
  if (await isOver()) return;
  try {
    await computeAhead({ artwork, request, cache, helpers, isOver });
  } catch {
    // Whoever asks for it hears what is wrong.
  }
  if (!(await isOver())) resting = setTimeout(() => keep(artwork.key), WRITE_MS);
}

/** Names what is kept of the artwork. */
let keptName = "";

/** Hands it over; nobody waits until it is written. */
function keep(artwork: string): void {
  const now = readingsOf(cache);
  const name = nameReadings(now);
  if (name === keptName) return;
  keptName = name;
  void keptReadings?.put(artwork, now);
}

const get: Get<StepResults> = (step) => resultOf(cache.kept, step);

/** What shapes are shown and written from. */
function drawing() {
  return {
    prepared: get("prepare"),
    reduction: get("reduce"),
    traced: get("trace"),
    edited: get("edit"),
    map: get("edit").drawing,
  };
}

function tellPrepared(id: number, view: PreparedView): void {
  const bitmaps = [view.bitmap, view.upright, view.focus?.marks ?? null];
  tell(
    { type: "prepared", id, view },
    bitmaps.filter((one) => one !== null),
  );
}

async function tellResult(request: ComputeRequest, step: string): Promise<void> {
  const { id, focusId, recipe } = request;
  if (step === "prepare") {
    const prepared = get("prepare");
    if (!isNews("prepared", [prepared, shown, focusId])) return;
    const { bitmap, upright, ...rest } = await viewPrepared(prepared, loaded?.raster ?? null, shown);
    const action = recipe.artwork.actions.find((one) => one.id === focusId);
    const focus = action && prepared.focus ? await viewFocus(action, prepared) : null;
    shown = { raster: prepared.raster, upright: prepared.upright };
    told.set("prepared", [prepared, shown, focusId]);
    tellPrepared(id, { ...rest, bitmap, upright, focus });
  } else if (step === "assign") {
    const { proposal, rungs, spots: reduced } = get("reduce");
    const { opaquePx, noise, found } = get("find");
    const { misfits, areasPx } = get("assign");
    if (!isNews("reduced", [get("find"), get("reduce"), get("assign")])) return;
    const spots = reduced.map((spot, i) => ({ ...spot, areaPx: areasPx[i] ?? 0 }));
    const corrections = new Set(recipe.colours.corrections.map((one) => one.id));
    const view = { spots, foundCount: found.length, proposal, rungs, misfits, corrections, opaquePx, noise };
    tell({ type: "reduced", id, view });
  } else if (step === "edit") tellShapes(request);
}

/** What the page has already, by message: what each was made from, and how the page wanted to see it. */
const told = new Map<ComputeMessage["type"], readonly unknown[]>();

/** Whether a message would bring anything: most changes leave alone what comes before them, and it is large. */
function isNews(message: ComputeMessage["type"], from: readonly unknown[]): boolean {
  const last = told.get(message);
  told.set(message, from);
  return !last || from.some((one, i) => one !== last[i]);
}

/** As soon as it can be set: laying it into the map takes longer. */
function tellLettering({ id, byHand, recipe }: ComputeRequest): void {
  const frame = cache.kept.prepare?.result.frame;
  if (!byHand || !frame) return;
  const { entries } = recipe.shapes;
  if (!isNews("lettered", [JSON.stringify(entries.filter(({ kind }) => kind === "lettering")), frame])) return;
  tell({ type: "lettered", id, views: viewLettering(entries, frame, library.typefaces) });
}

function tellShapes(request: ComputeRequest): void {
  tellLettering(request);
  if (!isNews("traced", [get("edit"), get("reduce"), request.measure, request.trying, request.byHand])) return;
  tell({ type: "traced", id: request.id, view: viewShapes(request, drawing(), library) });
}

function check(limits: ThinLimits, recipe: Recipe): ChecksView {
  const { prepared, reduction, map } = drawing();
  const mmPerPx = mmPerPixel(recipe, prepared.raster);
  return {
    thin: findThinPlaces(map, reduction.spots, limits, mmPerPx),
    near: findNearInks(reduction.spots),
    shading: measureShading(get("find"), reduction, get("assign")),
  };
}

/** What was made last to the end, and of what. */
let lastMade: { readonly results: Results; readonly recipe: string } | null = null;

/** What was made first, so that the table follows; what is measured of it once nothing newer is asked for. */
async function tellMade({ id, recipe, checkThin }: ComputeRequest, results: Results): Promise<void> {
  lastMade = { results, recipe: JSON.stringify(recipe) };
  tell({ type: "made", id, made: results.made.map(({ process, result }) => ({ process, result })) });
  await wait(0);
  if (id !== latest) return;
  const reports = results.made.map((product) => product.report());
  const warnings = [
    ...listWarnings(results, recipe),
    ...(checkThin ? listChecks(results, recipe, checkThin) : []),
    ...reports.flatMap((report) => report.warnings),
  ];
  tell({ type: "reported", id, reports, warnings });
}

/** Answers, whatever happens: a question that fails must not silence the next. */
async function answer(question: Question): Promise<void> {
  const { id } = question;
  try {
    // A pointer on the table may ask at any time; nobody is told that it asked too early.
    if (question.what !== "area" && !cache.kept.prepare) throw new Error("the picture is not there yet.");
    await answerWith(question);
  } catch (error) {
    tell({ type: "refused", id, message: textOf(error) });
  }
}

async function answerWith(question: Question): Promise<void> {
  const { id } = question;
  const give = (given: Answer, transfer?: Transferable[]) => tell({ type: "answered", id, answer: given }, transfer);
  switch (question.what) {
    case "trim":
      return give(proposeTrim(get("prepare").upright));
    case "background":
      return give(proposeBackground(get("prepare").raster));
    case "area": {
      const isStale = id !== latestArea || !cache.kept.assign;
      const view = isStale ? null : await viewArea(question.wanted, get("assign"), get("reduce"));
      return give(view, view?.bitmap ? [view.bitmap] : []);
    }
    case "proof": {
      const { recipe, facts } = question.wanted;
      return give(lastMade?.recipe === JSON.stringify(recipe) ? makeProof(lastMade.results, recipe, facts) : null);
    }
    case "shapes": {
      const file = await makeShapesFile(question.wanted, drawing());
      return give(file, [file.bytes.buffer]);
    }
  }
}

function textOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
