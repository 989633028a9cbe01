// The threads that help the computing worker: as many as there are processors beside its own.
import { type Helper, type Helpers, type OutcomeMessage, openHelper } from "@plain-palette/core/share";

/** More bring little: half of what there is to do is done by one. */
const MOST = 3;
/** The computing worker has one processor; the page needs little of another while it waits. */
const BESIDE = 1;

/** What a job that is opened needs first is loaded before them, ms. */
const QUIET_MS = 400;

/** Starts them in a while; they help from when each is there. They live as long as the worker that asks. */
export function startHelpers(): Helpers {
  const all: Helper[] = [];
  const count = Math.max(0, Math.min(MOST, navigator.hardwareConcurrency - BESIDE));
  setTimeout(() => {
    for (let k = 0; k < count; k++) startHelper((helper) => all.push(helper));
  }, QUIET_MS);
  return { all, breathe };
}

function startHelper(onReady: (helper: Helper) => void): void {
  const thread = new Worker(new URL("./helper-worker.ts", import.meta.url), { type: "module" });
  const { helper, hear, end } = openHelper((message) => thread.postMessage(message));
  // Its first message says that it is there.
  thread.onmessage = () => {
    thread.onmessage = ({ data }: MessageEvent<OutcomeMessage>) => hear(data);
    onReady(helper);
  };
  thread.onerror = () => end("the thread has ended");
}

/** A message to oneself comes after those that wait already, and sooner than any timer. */
function breathe(): Promise<void> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });
}
