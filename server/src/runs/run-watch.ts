// Whoever watches runs, in however many windows: the database is asked for all of them at once.
import type { Run } from "@plain-palette/contract";
import type { RunStore } from "./run-store.ts";

/** How often watched runs are read, ms. The database is the only place that knows, whichever process works on them. */
const WATCH_MS = 250;

type Watcher = (run: Run) => void;

export interface RunWatch {
  /** Calls back with a run whenever it was read, until the returned function is called. */
  watch(id: string, watcher: Watcher): () => void;
}

export function makeRunWatch(runs: Pick<RunStore, "findAll">): RunWatch {
  const watchers = new Map<string, Set<Watcher>>();
  let isReading = false;
  const read = async (): Promise<void> => {
    while (watchers.size > 0) {
      // A database that is away for a moment is no reason to hang up.
      const found = await runs.findAll([...watchers.keys()]).catch(() => []);
      for (const run of found) for (const watcher of watchers.get(run.id) ?? []) watcher(run);
      await new Promise((resolve) => setTimeout(resolve, WATCH_MS));
    }
    isReading = false;
  };
  return {
    watch(id, watcher) {
      const all = watchers.get(id) ?? new Set();
      watchers.set(id, all.add(watcher));
      if (!isReading) {
        isReading = true;
        void read();
      }
      return () => {
        all.delete(watcher);
        if (all.size === 0 && watchers.get(id) === all) watchers.delete(id);
      };
    },
  };
}
