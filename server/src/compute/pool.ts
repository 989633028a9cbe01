// The thread pools: one for looking at files, one for runs, so that an upload never waits behind a long run.
import { fileURLToPath } from "node:url";
import { MessageChannel } from "node:worker_threads";
import { Piscina } from "piscina";
import type * as tasks from "./tasks.ts";
import type { FilmsTask, Outcome, OutputFile, Progress } from "./tasks.ts";

/** Heap of one thread, MB: 60 megapixels with labels and components fit; a runaway does not take the server with it. */
const THREAD_MB = 4096;

type Inspection = Awaited<ReturnType<typeof tasks.inspect>>;

/** The work that threads do for the server. */
export interface Compute {
  inspect(bytes: Buffer): Promise<Inspection>;
  decode(bytes: Buffer): Promise<Outcome<Uint8ClampedArray>>;
  makeFilms(
    task: Omit<FilmsTask, "port">,
    onProgress: (progress: Progress) => void,
    signal: AbortSignal,
  ): Promise<OutputFile[]>;
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
    inspect: (bytes) => look.run(bytes, { name: "inspect" }),
    decode: (bytes) => look.run(bytes, { name: "decode" }),
    async makeFilms(task, onProgress, signal) {
      const { port1, port2 } = new MessageChannel();
      port1.on("message", onProgress);
      try {
        return await run.run({ ...task, port: port2 } satisfies FilmsTask, {
          name: "makeFilms",
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
