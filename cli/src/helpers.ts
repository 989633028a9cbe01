// The threads that help the shell: as many as there are processors beside its own, each begun as the shell was.
import { availableParallelism } from "node:os";
import { setImmediate } from "node:timers/promises";
import { parentPort, Worker } from "node:worker_threads";
import { type Helper, type Helpers, makeHelp, openHelper, type PartMessage } from "@plain-palette/core/share";
import { taskOf } from "@plain-palette/core/tasks";

/** More bring little: half of what there is to do is done by one. */
const MOST = 3;
/** A thread reads its code and gets it warm in the time in which so many pixels are traced. */
const LEAST_PX = 8e6;

export interface HelperThreads {
  /** Those who help with a picture of so many pixels: started for the first large one, and from then on for all. */
  forPicture(px: number): Helpers;
  close(): void;
}

/** In the source, which needs a loader that costs more than threads gain, nobody helps. */
export function openHelpers(most = import.meta.url.endsWith(".cjs") ? MOST : 0): HelperThreads {
  let threads: readonly Worker[] = [];
  let all: readonly Helper[] = [];
  return {
    forPicture(px) {
      if (all.length === 0 && px >= LEAST_PX) {
        const count = Math.min(most, availableParallelism() - 1);
        // What the shell was started with finds the kept code for them, too.
        threads = Array.from({ length: count }, () => new Worker(String(process.argv[1])));
        all = threads.map(helperOf);
      }
      return { all, breathe: () => setImmediate() };
    },
    close() {
      for (const thread of threads) void thread.terminate();
    },
  };
}

function helperOf(thread: Worker): Helper {
  const { helper, hear, end } = openHelper((message) => thread.postMessage(message));
  thread.on("message", hear);
  thread.on("error", ({ message }) => end(message));
  thread.on("exit", () => end("the thread has ended"));
  return helper;
}

/** What such a thread does. */
export function help(): void {
  const answer = makeHelp(taskOf);
  parentPort?.on("message", (message: PartMessage) => parentPort?.postMessage(answer(message)));
}
