// What the threads do: decoding and separating. A thread has no database; bytes come in and go out.
import type { MessagePort } from "node:worker_threads";
import {
  layShapes,
  warnOfMissing,
  writeFilmsPdf,
  writeSeparationsPdf,
  writeSeparationsSvg,
  writeShapesSvg,
} from "@plain-palette/core/formats";
import type { Raster } from "@plain-palette/core/raster";
import { aboutStep, makeReport, makeResultCache, type Recipe, runSteps } from "@plain-palette/core/recipe";
import { layOutFilms, orderSpots } from "@plain-palette/core/screens";
import {
  type ArtworkFacts,
  type ArtworkView,
  decodeArtwork,
  IntakeError,
  makeThumbnail,
  readLabelFont,
} from "../intake/index.ts";

/** Outcome of a task on a client's file: a bad file is an expected answer, so it is data, not an exception. */
export type Outcome<T> = { ok: true; value: T } | { ok: false; message: string; status: number };

async function orBadFile<T>(work: () => Promise<T>): Promise<Outcome<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    if (error instanceof IntakeError) return { ok: false, message: error.message, status: error.status };
    throw error;
  }
}

/** Facts and thumbnail of a new artwork. */
export function inspect(bytes: Uint8Array): Promise<Outcome<{ facts: ArtworkFacts; thumbnail: Uint8Array }>> {
  return orBadFile(async () => {
    const { raster, facts } = await decodeArtwork(bytes);
    return { facts, thumbnail: await makeThumbnail(raster) };
  });
}

export interface DecodeTask {
  readonly bytes: Uint8Array;
  readonly view: ArtworkView;
}

/** The pixels of an artwork's page. */
export function decode({ bytes, view }: DecodeTask): Promise<Outcome<Raster>> {
  return orBadFile(async () => (await decodeArtwork(bytes, view)).raster);
}

export interface FilmsTask {
  readonly bytes: Uint8Array;
  readonly recipe: Recipe;
  readonly job: string;
  readonly client: string;
  /** When the run was ordered; written on the films. */
  readonly orderedAt: Date;
  /** Takes progress messages. */
  readonly port: MessagePort;
}

export interface Progress {
  readonly progress: number;
  readonly stage: string;
}

export interface OutputFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}

/** Of the whole work so much is done when the artwork is read, and when the steps are. */
const READ = 0.05;
const COMPUTED = 0.7;

function toJson(value: unknown): Uint8Array {
  return new TextEncoder().encode(`${JSON.stringify(value, null, 2)}\n`);
}

/** All output files of a job. */
export async function makeFilms(task: FilmsTask): Promise<OutputFile[]> {
  const { recipe, port, orderedAt } = task;
  const tell = (progress: number, stage: string) => port.postMessage({ progress, stage } satisfies Progress);
  tell(0.02, "Reading the artwork");
  const { raster, notes } = await decodeArtwork(task.bytes, recipe.artwork);
  const artwork = { key: "artwork", raster };
  const steps = runSteps(artwork, recipe, makeResultCache());
  let step = steps.next();
  while (!step.done) {
    const { doing, done } = aboutStep(step.value);
    tell(READ + (COMPUTED - READ) * done, doing);
    step = steps.next();
  }
  const results = step.value;
  const { separation, reduction } = results;
  const facts = { job: task.job, client: task.client, date: orderedAt.toISOString().slice(0, 10) };
  const films = layOutFilms(separation, recipe.processes.screens.films, facts);
  const labelFont = await readLabelFont();
  const missing = warnOfMissing(films.films.flatMap(({ label }) => label).join(""), labelFont);
  const filmsPdf = await writeFilmsPdf(films, labelFont, orderedAt, (index) =>
    tell(COMPUTED + (0.2 * index) / films.films.length, `Drawing film ${index + 1} of ${films.films.length}`),
  );
  tell(0.9, "Writing separations");
  const separationsPdf = await writeSeparationsPdf(separation, orderedAt);
  const text = new TextEncoder();
  return [
    { name: "films.pdf", mediaType: "application/pdf", bytes: filmsPdf },
    { name: "separations.pdf", mediaType: "application/pdf", bytes: separationsPdf },
    {
      name: "shapes.svg",
      mediaType: "image/svg+xml",
      bytes: text.encode(
        writeShapesSvg(layShapes(results.map, orderSpots(reduction.spots, recipe.colours.order), separation.mmPerPx)),
      ),
    },
    { name: "separations.svg", mediaType: "image/svg+xml", bytes: text.encode(writeSeparationsSvg(separation)) },
    {
      name: "report.json",
      mediaType: "application/json",
      bytes: toJson(makeReport(recipe, results, {}, missing === null ? notes : [...notes, missing])),
    },
    { name: "recipe.json", mediaType: "application/json", bytes: toJson(recipe) },
  ];
}
