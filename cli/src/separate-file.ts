// One file through the whole pipeline, outputs written beside each other.
import { readFile } from "node:fs/promises";
import { basename, extname } from "node:path";
import { processOf } from "@plain-palette/core/processes";
import { proposeBackground, type Raster } from "@plain-palette/core/raster";
import {
  type Artwork,
  garmentRgb,
  type Library,
  listOutputs,
  makeCommonFiles,
  makePrepareCache,
  makeResultCache,
  nextActionId,
  pickBackground,
  prepareArtwork,
  type Recipe,
  type Results,
  runStepsTogether,
  type ShapeWishes,
} from "@plain-palette/core/recipe";
import type { Helpers } from "@plain-palette/core/share";
import { decodeArtwork, readLabelFont } from "@plain-palette/server/intake";
import type { HelperThreads } from "./helpers.ts";
import { type LibraryFiles, openLibrary } from "./library.ts";
import { type OutputFile, writeWhole } from "./output-folder.ts";

/** What the shell asks for beside the files. */
export interface SeparateWishes extends LibraryFiles {
  readonly recipe: Recipe;
  readonly takesBackground: boolean;
  readonly shapes: ShapeWishes;
}

/** Separates one file into `folder`. Returns warnings. Throws what decodeArtwork and the file system throw, and an OutputError. */
export async function separateFile(
  file: string,
  folder: string,
  { recipe: wanted, takesBackground, fonts, motifs, shapes }: SeparateWishes,
  threads: HelperThreads,
  now: Date,
): Promise<readonly string[]> {
  const timings: Record<string, number> = {};
  const started = performance.now();
  const { raster, notes } = await decodeArtwork(await readFile(file), wanted.artwork);
  const { recipe, note } = takesBackground ? withoutBackground(raster, wanted) : { recipe: wanted, note: [] };
  timings.decode = performance.now() - started;
  const library = await openLibrary(recipe, { fonts, motifs });
  const helpers = threads.forPicture(raster.width * raster.height);
  const results = await runTimed({ key: file, raster }, recipe, library, helpers, timings);

  const beforeFiles = performance.now();
  const facts = {
    job: basename(file, extname(file)),
    client: "no client given",
    date: now,
    labelFont: await readLabelFont(),
  };
  const { outputs, notes: said } = await listOutputs(results, facts);
  const files: OutputFile[] = [];
  for (const { name, make } of outputs) files.push({ name, bytes: await make(() => {}) });
  timings[processOf(recipe.process).writing] = performance.now() - beforeFiles;

  for (const [part, ms] of Object.entries(timings)) timings[part] = Math.round(ms);
  const common = await makeCommonFiles(recipe, results, shapes, now, timings, [...notes, ...note, ...said]);
  await writeWhole(folder, [...files, ...common.files]);
  return common.report.warnings;
}

/** The recipe with the background picked away, as the page proposes it; a note where there is none. */
function withoutBackground(raster: Raster, recipe: Recipe): { recipe: Recipe; note: readonly string[] } {
  const { artwork } = recipe;
  const prepared = prepareArtwork(raster, artwork.actions, makePrepareCache(), null, garmentRgb(recipe));
  const proposal = proposeBackground(prepared.raster);
  if (!proposal) return { recipe, note: ["No background of one colour lies round the art: nothing was taken away."] };
  const pick = pickBackground(proposal, prepared.frame, nextActionId(artwork.actions));
  const { islands, tolerance } = proposal;
  // Near the background's colour is also what is meant: cream beside white. Whether they are holes a person sees.
  const patches = islands === 1 ? "patch" : "patches";
  const note =
    islands === 0
      ? []
      : [
          `${islands} ${patches} within ${tolerance} of the background's ${pick.hex} stayed inside the design; take away on the page (Artwork, Background) what of them is a hole.`,
        ];
  return { recipe: { ...recipe, artwork: { ...artwork, actions: [...artwork.actions, pick] } }, note };
}

/** Runs the steps, adding the time of each to `timings`. */
async function runTimed(
  artwork: Artwork,
  recipe: Recipe,
  library: Library,
  helpers: Helpers,
  timings: Record<string, number>,
): Promise<Results> {
  const steps = runStepsTogether(helpers, artwork, recipe, makeResultCache(library));
  let step = await steps.next();
  while (!step.done) {
    const { part } = step.value;
    const before = performance.now();
    step = await steps.next();
    timings[part] = (timings[part] ?? 0) + performance.now() - before;
  }
  return step.value;
}
