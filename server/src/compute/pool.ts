// The thread pools: one for looking at files, one for runs, so that an upload never waits behind a long run.
import { fileURLToPath } from "node:url";
import { MessageChannel } from "node:worker_threads";
import type { FiledMotif } from "@plain-palette/core/formats";
import type { Proof } from "@plain-palette/core/proof";
import type { Raster } from "@plain-palette/core/raster";
import type { MadeFile } from "@plain-palette/core/recipe";
import { Piscina } from "piscina";
import type { ArtworkView, ReadFont } from "../intake/index.ts";
import type * as tasks from "./tasks.ts";
import type { DecodeTask, FilesTask, MotifFile, Outcome, Progress, ProofTask } from "./tasks.ts";

/** Heap of one thread, MB: 60 megapixels with labels and components fit; a runaway does not take the server with it. */
const THREAD_MB = 4096;

type Inspection = Awaited<ReturnType<typeof tasks.inspect>>;

/** Longest that looking at one file may take, ms. */
const MAX_LOOK_MS = 60_000;

/** A file that takes a thread too long, or takes it down, is a bad file: the thread is replaced and the server goes on. */
async function bounded<T>(
  look: (signal: AbortSignal) => Promise<Outcome<T>>,
  what = "The picture",
): Promise<Outcome<T>> {
  const signal = AbortSignal.timeout(MAX_LOOK_MS);
  try {
    return await look(signal);
  } catch (error) {
    const code = error instanceof Error && "code" in error ? error.code : null;
    if (!signal.aborted && code !== "ERR_WORKER_OUT_OF_MEMORY") throw error;
    const message = `${what} takes more time or memory to read than there is. Save it again, smaller or in another format.`;
    return { ok: false, message, status: 422 };
  }
}

/** The work that threads do for the server. */
export interface Compute {
  inspect(bytes: Buffer): Promise<Inspection>;
  inspectFont(bytes: Buffer): Promise<Outcome<ReadFont>>;
  readMotifs(bytes: Buffer, fileName: string): Promise<Outcome<FiledMotif[]>>;
  makeProof(task: ProofTask): Promise<{ proof: Proof; pdf: Uint8Array }>;
  packMotifs(motifs: readonly FiledMotif[]): Promise<Uint8Array>;
  decode(bytes: Buffer, view: ArtworkView): Promise<Outcome<Raster>>;
  makeFiles(
    task: Omit<FilesTask, "port">,
    onProgress: (progress: Progress) => void,
    signal: AbortSignal,
  ): Promise<MadeFile[]>;
  close(): Promise<void>;
}

/** Starts the pools; `threads` each. */
export function startCompute(threads: number): Compute {
  const options = {
    filename: fileURLToPath(new URL("./thread.mjs", import.meta.url)),
    execArgv: [],
    maxThreads: threads,
    minThreads: 1,
    resourceLimits: { maxOldGenerationSizeMb: THREAD_MB },
  };
  const look = new Piscina(options);
  const run = new Piscina(options);
  return {
    inspect: (bytes) => bounded((signal) => look.run(bytes, { name: "inspect", signal })),
    inspectFont: (bytes) => bounded((signal) => look.run(bytes, { name: "inspectFont", signal }), "The font"),
    readMotifs: (bytes, fileName) =>
      bounded(
        (signal) => look.run({ bytes, fileName } satisfies MotifFile, { name: "readMotifs", signal }),
        "The file",
      ),
    makeProof: (task) => look.run(task, { name: "makeProofFiles" }),
    packMotifs: (motifs) => look.run(motifs, { name: "packMotifs" }),
    decode: (bytes, view) =>
      bounded((signal) => look.run({ bytes, view } satisfies DecodeTask, { name: "decode", signal })),
    async makeFiles(task, onProgress, signal) {
      const { port1, port2 } = new MessageChannel();
      port1.on("message", onProgress);
      try {
        return await run.run({ ...task, port: port2 } satisfies FilesTask, {
          name: "makeFiles",
          transferList: [port2],
          signal,
        });
      } finally {
        port1.close();
      }
    },
    async close() {
      await Promise.all([look.destroy(), run.destroy()]);
    },
  };
}
