// One file through the whole pipeline, outputs written beside each other.
import { readFile } from "node:fs/promises";
import { basename, extname } from "node:path";
import {
  layShapes,
  type ShapeFormat,
  type Stacking,
  warnOfMissing,
  writeFilmsPdf,
  writeSeparationsPdf,
  writeSeparationsSvg,
  writeShapeFiles,
} from "@plain-palette/core/formats";
import { proposeBackground, type Raster } from "@plain-palette/core/raster";
import {
  aboutStep,
  garmentRgb,
  makePrepareCache,
  makeReport,
  makeResultCache,
  nextActionId,
  pickBackground,
  prepareArtwork,
  type Recipe,
  type Results,
  runSteps,
} from "@plain-palette/core/recipe";
import { layOutFilms, orderSpots } from "@plain-palette/core/screens";
import { decodeArtwork, readLabelFont } from "@plain-palette/server/intake";
import { writeWhole } from "./output-folder.ts";

/** How shapes are given out. */
export interface ShapeFilesWanted {
  readonly formats: readonly ShapeFormat[];
  readonly stacking: Stacking;
  readonly isPerColour: boolean;
}

/** What the shell asks for beside the files. */
export interface SeparateWishes {
  readonly recipe: Recipe;
  readonly takesBackground: boolean;
  readonly shapes: ShapeFilesWanted;
}

/** Separates one file into `folder`. Returns warnings. Throws what decodeArtwork and the file system throw, and an OutputError. */
export async function separateFile(
  file: string,
  folder: string,
  { recipe: wanted, takesBackground, shapes }: SeparateWishes,
  now: Date,
): Promise<readonly string[]> {
  const timings: Record<string, number> = { decode: 0, reduce: 0, trace: 0, separate: 0, films: 0 };
  const started = performance.now();
  const { raster, notes } = await decodeArtwork(await readFile(file), wanted.artwork);
  const { recipe, note } = takesBackground ? withoutBackground(raster, wanted) : { recipe: wanted, note: [] };
  timings.decode = performance.now() - started;
  const results = runTimed({ key: file, raster }, recipe, timings);

  const beforeFilms = performance.now();
  const date = now.toISOString().slice(0, 10);
  const job = basename(file, extname(file));
  const films = layOutFilms(results.separation, recipe.processes.screens.films, {
    job,
    client: "no client given",
    date,
  });
  const labelFont = await readLabelFont();
  const missing = warnOfMissing(films.films.flatMap(({ label }) => label).join(""), labelFont);
  const filmsPdf = await writeFilmsPdf(films, labelFont, now);
  const separationsPdf = await writeSeparationsPdf(results.separation, now);
  timings.films = performance.now() - beforeFilms;

  for (const step of Object.keys(timings)) timings[step] = Math.round(timings[step]);
  const report = makeReport(recipe, results, timings, [...notes, ...note, ...(missing === null ? [] : [missing])]);
  const inOrder = orderSpots(results.reduction.spots, recipe.colours.order);
  const drawing = layShapes(results.map, inOrder, results.separation.mmPerPx, shapes.stacking);
  const made = await Promise.all(
    shapes.formats.map((format) => writeShapeFiles(drawing, format, shapes.isPerColour, now)),
  );
  await writeWhole(folder, [
    ...made.flat(),
    { name: "separations.svg", bytes: writeSeparationsSvg(results.separation) },
    { name: "films.pdf", bytes: filmsPdf },
    { name: "separations.pdf", bytes: separationsPdf },
    { name: "recipe.json", bytes: toJson(recipe) },
    { name: "report.json", bytes: toJson(report) },
  ]);
  return report.warnings;
}

function toJson(value: unknown): string {
  return `${JSON.stringify(value, null, 2)}\n`;
}

/** The recipe with the background picked away, as the page proposes it; a note where there is none. */
function withoutBackground(raster: Raster, recipe: Recipe): { recipe: Recipe; note: readonly string[] } {
  const { artwork } = recipe;
  const prepared = prepareArtwork(raster, artwork.actions, makePrepareCache(), null, garmentRgb(recipe));
  const proposal = proposeBackground(prepared.raster);
  if (!proposal) return { recipe, note: ["No background of one colour lies round the art: nothing was taken away."] };
  const pick = pickBackground(proposal, prepared.frame, nextActionId(artwork.actions));
  return { recipe: { ...recipe, artwork: { ...artwork, actions: [...artwork.actions, pick] } }, note: [] };
}

/** Runs the steps, adding the time of each to `timings`. */
function runTimed(artwork: Parameters<typeof runSteps>[0], recipe: Recipe, timings: Record<string, number>): Results {
  const steps = runSteps(artwork, recipe, makeResultCache());
  let step = steps.next();
  while (!step.done) {
    const { part } = aboutStep(step.value);
    const before = performance.now();
    step = steps.next();
    timings[part] += performance.now() - before;
  }
  return step.value;
}
