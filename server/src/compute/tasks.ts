// What the threads do: decoding, and making a job's files. A thread has no database; bytes come in and go out.
import type { MessagePort } from "node:worker_threads";
import type { FiledMotif } from "@plain-palette/core/formats";
import type { Motif } from "@plain-palette/core/motif";
import { makeProof, type Proof, type ProofFacts, writeProofPdf } from "@plain-palette/core/proof";
import type { Raster } from "@plain-palette/core/raster";
import {
  type Library,
  listOutputs,
  type MadeFile,
  makeCommonFiles,
  makeResultCache,
  type Recipe,
  runPipeline,
  runSteps,
} from "@plain-palette/core/recipe";
import { type FontFiles, openTypefaces } from "@plain-palette/core/typeface";
import {
  type ArtworkFacts,
  type ArtworkView,
  decodeArtwork,
  IntakeError,
  makeThumbnail,
  type ReadFont,
  readFont,
  readLabelFont,
  readMotifFile,
  writeMotifArchive,
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

/** A font file that the shop adds. */
export function inspectFont(bytes: Uint8Array): Promise<Outcome<ReadFont>> {
  return orBadFile(() => readFont(bytes));
}

/** A file of motifs that the shop takes in. */
export function readMotifs({ bytes, fileName }: MotifFile): Promise<Outcome<FiledMotif[]>> {
  return orBadFile(() => readMotifFile(bytes, fileName));
}

export interface MotifFile {
  readonly bytes: Uint8Array;
  readonly fileName: string;
}

/** All motifs in one archive. */
export function packMotifs(motifs: readonly FiledMotif[]): Uint8Array {
  return writeMotifArchive(motifs);
}

export interface DecodeTask {
  readonly bytes: Uint8Array;
  readonly view: ArtworkView;
}

/** The pixels of an artwork's page. */
export function decode({ bytes, view }: DecodeTask): Promise<Outcome<Raster>> {
  return orBadFile(async () => (await decodeArtwork(bytes, view)).raster);
}

/** What a recipe names but does not hold. */
export interface LibraryFiles {
  readonly fonts: readonly FontFiles[];
  /** By the hash of their content. */
  readonly motifs: ReadonlyMap<string, Motif>;
}

/** What a job is made from, read for a thread. */
interface JobTask extends LibraryFiles {
  readonly bytes: Uint8Array;
  readonly recipe: Recipe;
}

export interface FilesTask extends JobTask {
  readonly job: string;
  readonly client: string;
  /** When the run was ordered; written on what is made. */
  readonly orderedAt: Date;
  /** Takes progress messages. */
  readonly port: MessagePort;
}

async function openLibrary({ fonts, motifs }: LibraryFiles): Promise<Library> {
  return { typefaces: await openTypefaces(fonts), motifs: { get: (hash) => motifs.get(hash) ?? null } };
}

export interface ProofTask extends JobTask {
  readonly facts: ProofFacts;
  readonly sentAt: Date;
}

/** A proof with its PDF. */
export async function makeProofFiles(task: ProofTask): Promise<{ proof: Proof; pdf: Uint8Array }> {
  const { raster } = await decodeArtwork(task.bytes, task.recipe.artwork);
  const results = runPipeline({ key: "artwork", raster }, task.recipe, makeResultCache(await openLibrary(task)));
  const proof = makeProof(results, task.recipe, task.facts);
  const pdf = await writeProofPdf(proof, { date: task.sentAt, labelFont: await readLabelFont() });
  return { proof, pdf };
}

export interface Progress {
  readonly progress: number;
  readonly stage: string;
}

/** Of the whole work so much is done when the artwork is read, when the steps are, and when the process's files are made. */
const READ = 0.05;
const COMPUTED = 0.7;
const WRITTEN = 0.95;

/** How the shapes come with every run. */
const SHAPES = { formats: ["svg"], stacking: "abutting", isPerColour: false } as const;

/** All output files of a job. */
export async function makeFiles(task: FilesTask): Promise<MadeFile[]> {
  const { recipe, port, orderedAt } = task;
  const tell = (progress: number, stage: string) => port.postMessage({ progress, stage } satisfies Progress);
  tell(0.02, "Reading the artwork");
  const { raster, notes } = await decodeArtwork(task.bytes, recipe.artwork);
  const artwork = { key: "artwork", raster };
  const steps = runSteps(artwork, recipe, makeResultCache(await openLibrary(task)));
  let step = steps.next();
  while (!step.done) {
    const { doing, done } = step.value;
    tell(READ + (COMPUTED - READ) * done, doing);
    step = steps.next();
  }
  const results = step.value;
  const facts = { job: task.job, client: task.client, date: orderedAt, labelFont: await readLabelFont() };
  const { outputs, notes: said } = listOutputs(results, facts);
  const files: MadeFile[] = [];
  for (const [i, { name, mediaType, make }] of outputs.entries()) {
    const bytes = await make((done, doing) =>
      tell(COMPUTED + ((WRITTEN - COMPUTED) * (i + done)) / outputs.length, doing),
    );
    files.push({ name, mediaType, bytes });
  }
  const common = await makeCommonFiles(recipe, results, SHAPES, orderedAt, {}, [...notes, ...said]);
  return [...files, ...common.files];
}
