// What the making processes do: a job's files and its proofs. They have no database and no file; all they need comes in.
import { createHash } from "node:crypto";
import type { FiledMotif } from "@plain-palette/core/formats";
import { loadAllParts } from "@plain-palette/core/later";
import type { Motif } from "@plain-palette/core/motif";
import { makeProof, type Proof, type ProofFacts, writeProofPdf } from "@plain-palette/core/proof";
import {
  type Artwork,
  type Library,
  listOutputs,
  type MadeFile,
  makeCommonFiles,
  makeResultCache,
  type Recipe,
  type ResultCache,
  runPipeline,
  runSteps,
} from "@plain-palette/core/recipe";
import { type FontFiles, openTypefaces } from "@plain-palette/core/typeface";
import { readLabelFont, writeMotifArchive } from "../intake/index.ts";
import type { Tasks } from "./hand.ts";
import { type PackedPixels, unpackPixels } from "./pixels.ts";

/** What a recipe names but does not hold. */
export interface LibraryFiles {
  readonly fonts: readonly FontFiles[];
  /** By the hash of their content. */
  readonly motifs: ReadonlyMap<string, Motif>;
}

/** What a job is made from. */
interface JobTask extends LibraryFiles {
  readonly pixels: PackedPixels;
  readonly recipe: Recipe;
}

export interface FilesTask extends JobTask {
  readonly job: string;
  readonly client: string;
  /** When the run was ordered; written on what is made. */
  readonly orderedAt: Date;
}

export interface ProofTask extends JobTask {
  readonly facts: ProofFacts;
  readonly sentAt: Date;
}

export interface Progress {
  readonly progress: number;
  readonly stage: string;
}

type Tell = (progress: Progress) => void;

/** Of the whole work so much is done when the artwork is read, when the steps are, and when the process's files are made. */
const READ = 0.05;
const COMPUTED = 0.7;
const WRITTEN = 0.95;

/** How the shapes come with every run. */
const SHAPES = { formats: ["svg"], stacking: "abutting", isPerColour: false } as const;

let labelFont: Uint8Array = new Uint8Array();

export const prepare: Tasks["prepare"] = async () => {
  labelFont = await readLabelFont();
  await loadAllParts();
};

/** An artwork with what was made of it. */
interface Work {
  readonly artwork: Artwork;
  readonly cache: ResultCache;
}

/** The latest: files of another process, or once more after a change, are mostly of the same artwork as the proof before. */
let latest: Work | null = null;

async function openWork({ pixels, ...files }: JobTask): Promise<Work> {
  const { width, height, packed } = pixels;
  const key = createHash("sha256").update(`${width} x ${height}\n`).update(packed).digest("hex");
  const kept = latest?.artwork.key === key ? latest : null;
  // Two pictures are not held at once.
  latest = null;
  const library = await openLibrary(files);
  latest = {
    artwork: kept?.artwork ?? { key, raster: await unpackPixels(pixels) },
    cache: { ...(kept?.cache ?? makeResultCache()), library },
  };
  return latest;
}

async function openLibrary({ fonts, motifs }: LibraryFiles): Promise<Library> {
  return { typefaces: await openTypefaces(fonts), motifs: { get: (hash) => motifs.get(hash) ?? null } };
}

const MAKING = {
  /** A proof with its PDF. */
  async proof(task: ProofTask): Promise<{ proof: Proof; pdf: Uint8Array }> {
    const { artwork, cache } = await openWork(task);
    const results = runPipeline(artwork, task.recipe, cache);
    const proof = makeProof(results, task.recipe, task.facts);
    return { proof, pdf: await writeProofPdf(proof, { date: task.sentAt, labelFont }) };
  },

  /** All motifs in one archive. */
  archive: async (motifs: readonly FiledMotif[]): Promise<Uint8Array> => writeMotifArchive(motifs),

  /** All output files of a job. */
  async files(task: FilesTask, tell: Tell): Promise<MadeFile[]> {
    const { recipe, orderedAt } = task;
    const report = (progress: number, stage: string) => tell({ progress, stage });
    report(0.02, "Reading the artwork");
    const { artwork, cache } = await openWork(task);
    const steps = runSteps(artwork, recipe, cache);
    let step = steps.next();
    while (!step.done) {
      const { doing, done } = step.value;
      report(READ + (COMPUTED - READ) * done, doing);
      step = steps.next();
    }
    const results = step.value;
    const facts = { job: task.job, client: task.client, date: orderedAt, labelFont };
    const { outputs, notes: said } = await listOutputs(results, facts);
    const files: MadeFile[] = [];
    for (const [i, { name, mediaType, make }] of outputs.entries()) {
      const bytes = await make((done, doing) =>
        report(COMPUTED + ((WRITTEN - COMPUTED) * (i + done)) / outputs.length, doing),
      );
      files.push({ name, mediaType, bytes });
    }
    const notes = [...task.pixels.notes, ...said];
    const common = await makeCommonFiles(recipe, results, SHAPES, orderedAt, {}, notes);
    return [...files, ...common.files];
  },
};
export type Making = typeof MAKING;

export const run: Tasks["run"] = (name, input, tell) => MAKING[name as keyof Making](input as never, tell);
