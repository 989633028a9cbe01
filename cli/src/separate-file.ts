// One file through the whole pipeline, outputs written beside each other.
import { mkdir, readFile, writeFile } from "node:fs/promises";
import { basename, extname, join } from "node:path";
import { layOutFilms } from "@plain-palette/core/films";
import {
  layShapes,
  type ShapeFormat,
  type Stacking,
  writeFilmsPdf,
  writeSeparationsPdf,
  writeSeparationsSvg,
  writeShapeFiles,
} from "@plain-palette/core/formats";
import { makeReport, makeResultCache, type Recipe, type Results, runSteps } from "@plain-palette/core/recipe";
import { orderSpots } from "@plain-palette/core/separate";
import { decodeArtwork, readLabelFont } from "@plain-palette/server/intake";

/** How shapes are given out. */
export interface ShapeFilesWanted {
  readonly formats: readonly ShapeFormat[];
  readonly stacking: Stacking;
  readonly isPerColour: boolean;
}

/** Separates one file into `out/<name without extension>/`. Throws what decodeArtwork and the file system throw. */
export async function separateFile(
  file: string,
  recipe: Recipe,
  shapes: ShapeFilesWanted,
  out: string,
  now: Date,
): Promise<void> {
  const name = basename(file, extname(file));
  const timings: Record<string, number> = { decode: 0, reduce: 0, trace: 0, separate: 0, films: 0 };
  const started = performance.now();
  const { raster } = await decodeArtwork(await readFile(file), recipe.artwork);
  timings.decode = performance.now() - started;
  const artwork = { key: file, raster };
  const results = runTimed(artwork, recipe, timings);

  const beforeFilms = performance.now();
  const date = now.toISOString().slice(0, 10);
  const films = layOutFilms(results.separation, recipe.output, { job: name, client: "no client given", date });
  const filmsPdf = await writeFilmsPdf(films, await readLabelFont(), now);
  const separationsPdf = await writeSeparationsPdf(results.separation, now);
  timings.films = performance.now() - beforeFilms;

  for (const step of Object.keys(timings)) timings[step] = Math.round(timings[step]);
  const report = makeReport(recipe, results, timings);
  const folder = join(out, name);
  await mkdir(folder, { recursive: true });
  const inOrder = orderSpots(results.reduction.spots, recipe.separations.order);
  const drawing = layShapes(results.map, inOrder, results.separation.mmPerPx, shapes.stacking);
  for (const format of shapes.formats)
    for (const made of await writeShapeFiles(drawing, format, shapes.isPerColour, now))
      await writeFile(join(folder, made.name), made.bytes);
  await writeFile(join(folder, "separations.svg"), writeSeparationsSvg(results.separation));
  await writeFile(join(folder, "films.pdf"), filmsPdf);
  await writeFile(join(folder, "separations.pdf"), separationsPdf);
  await writeFile(join(folder, "report.json"), `${JSON.stringify(report, null, 2)}\n`);
}

/** Preparing counts as decoding, finding as reducing, simplifying as tracing. */
const STEP_TIMES = {
  prepare: "decode",
  find: "reduce",
  reduce: "reduce",
  assign: "reduce",
  trace: "trace",
  simplify: "trace",
  separate: "separate",
} as const;

/** Runs the steps, adding the time of each to `timings`. */
function runTimed(artwork: Parameters<typeof runSteps>[0], recipe: Recipe, timings: Record<string, number>): Results {
  const steps = runSteps(artwork, recipe, makeResultCache());
  let step = steps.next();
  while (!step.done) {
    const name = STEP_TIMES[step.value];
    const before = performance.now();
    step = steps.next();
    timings[name] += performance.now() - before;
  }
  return step.value;
}
