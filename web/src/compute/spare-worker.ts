// A computing worker that stands ready before a job is opened: to load and read its code takes longer than most answers.

let spare: Worker | null = null;

function startWorker(): Worker {
  return new Worker(new URL("./compute-worker.ts", import.meta.url), { type: "module" });
}

/** Has one stand ready from now on. */
export function keepSpare(): void {
  if (spare) return;
  const started = startWorker();
  // One that could not be started is no help; whoever needs one starts it anew, and hears why it cannot be.
  started.onerror = () => {
    if (spare === started) spare = null;
  };
  spare = started;
}

/** The one that stands ready, or a new one. It is the caller's to end. */
export function takeWorker(): Worker {
  const taken = spare ?? startWorker();
  spare = null;
  return taken;
}
