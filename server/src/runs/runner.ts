// Works off runs, a few at a time: any number of these, in any number of processes, share one database.

import { readRecipe } from "@plain-palette/core/recipe";
import type { DataSource } from "typeorm";
import { type Compute, Overrun } from "../compute/index.ts";
import { isDatabaseAway, JobEntity, RecipeEntity, type RunRow } from "../database/index.ts";
import type { JobStore } from "../jobs/index.ts";
import { readLibrary } from "../library/index.ts";
import type { MotifStore } from "../motifs/index.ts";
import type { TypefaceStore } from "../typefaces/index.ts";
import type { RunQueue } from "./run-queue.ts";

/** How often an idle runner looks for work, and how often a busy one gives a sign of life, ms. */
const IDLE_MS = 300;
const BEAT_MS = 500;

export interface Runner {
  stop(): Promise<void>;
}

export interface RunnerStores {
  readonly jobs: JobStore;
  readonly queue: RunQueue;
  readonly typefaces: TypefaceStore;
  readonly motifs: MotifStore;
}

/** Starts working on up to `most` at once; `stop` gives back the runs in hand, which another process, or a later one, takes up. */
export function startRunner(
  database: DataSource,
  { jobs, queue, typefaces, motifs }: RunnerStores,
  { compute, most }: { compute: Compute; most: number },
): Runner {
  let isStopping = false;
  const inHand = new Map<Promise<void>, AbortController>();
  const loop = (async () => {
    while (!isStopping) {
      try {
        const run = inHand.size < most ? await queue.claim() : null;
        if (run) takeUp(run);
        else await sleep(IDLE_MS);
      } catch (error) {
        if (!isDatabaseAway(error)) console.error("run:", error);
        await sleep(1000);
      }
    }
  })();

  function takeUp(run: RunRow): void {
    const abort = new AbortController();
    const working = work(run, abort)
      .catch((error) => {
        if (!isDatabaseAway(error)) console.error(`run ${run.id}:`, error);
      })
      .finally(() => inHand.delete(working));
    inHand.set(working, abort);
  }

  async function work(run: RunRow, abort: AbortController): Promise<void> {
    let latest = { progress: run.progress, stage: run.stage };
    let mayGoOn = true;
    const beat = setInterval(async () => {
      try {
        mayGoOn = await queue.beat(run, latest.progress, latest.stage);
        if (!mayGoOn) abort.abort();
      } catch {
        // The database is away: the work goes on, its result will be written when it is back.
      }
    }, BEAT_MS);
    try {
      const job = await database.manager.findOneByOrFail(JobEntity, { id: run.jobId });
      const recipe = await database.manager.findOneByOrFail(RecipeEntity, {
        jobId: run.jobId,
        version: run.recipeVersion,
      });
      const body = readRecipe(recipe.body);
      const hash = recipe.artworkHash;
      const bytes = async () => {
        const found = await jobs.artworkBytes(hash);
        if (!found) throw new Error("the artwork is missing");
        return found;
      };
      const asker = { client: "runs", signal: abort.signal };
      const pixels = await compute.pixels({ hash, view: body.artwork, bytes }, asker);
      if (!pixels.ok) throw new Error(pixels.message);
      const files = await compute.makeFiles(
        {
          pixels: pixels.value,
          recipe: body,
          ...(await readLibrary(body, { typefaces, motifs })),
          job: `${job.number} ${job.title}`,
          client: job.client || "no client given",
          orderedAt: run.createdAt,
        },
        (progress) => {
          latest = progress;
        },
        abort.signal,
      );
      await untilDatabaseIsBack(() => queue.finish(run, files));
    } catch (error) {
      if (abort.signal.aborted) {
        if (isStopping) await queue.release(run);
        else if (!mayGoOn) await queue.end(run, "stopped", null);
        return;
      }
      if (isDatabaseAway(error)) throw error;
      if (!(error instanceof Overrun)) console.error(`run ${run.id}:`, error);
      await untilDatabaseIsBack(() => queue.end(run, "failed", wordsOf(error)));
    } finally {
      clearInterval(beat);
    }
  }

  return {
    async stop() {
      isStopping = true;
      for (const abort of inHand.values()) abort.abort();
      await Promise.all([loop, ...inHand.keys()]);
    },
  };
}

function wordsOf(error: unknown): string {
  if (error instanceof Overrun)
    return "It takes more time or memory than there is. Make the job simpler or smaller, and try again.";
  // The first line: what follows is for the log.
  return error instanceof Error ? (error.message.split("\n")[0] ?? "").slice(0, 500) : "unknown";
}

async function untilDatabaseIsBack(write: () => Promise<void>): Promise<void> {
  for (let tries = 0; ; tries++) {
    try {
      return await write();
    } catch (error) {
      if (!isDatabaseAway(error) || tries === 30) throw error;
      await sleep(1000);
    }
  }
}

function sleep(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
