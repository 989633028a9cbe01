// Works off runs, one at a time: any number of these, in any number of processes, share one database.

import { readRecipe } from "@plain-palette/core/recipe";
import type { DataSource } from "typeorm";
import type { Compute } from "../compute/index.ts";
import { isDatabaseAway, JobEntity, RecipeEntity, type RunRow } from "../database/index.ts";
import type { JobStore } from "../jobs/index.ts";
import { readLibrary } from "../library/index.ts";
import type { MotifStore } from "../motifs/index.ts";
import type { TypefaceStore } from "../typefaces/index.ts";
import type { RunStore } from "./run-store.ts";

/** How often an idle runner looks for work, and how often a busy one gives a sign of life, ms. */
const IDLE_MS = 300;
const BEAT_MS = 500;

export interface Runner {
  stop(): Promise<void>;
}

/** Starts working; `stop` lets go of the run in hand, which another process then takes up. */
export function startRunner(
  database: DataSource,
  { jobs, runs, typefaces, motifs }: { jobs: JobStore; runs: RunStore; typefaces: TypefaceStore; motifs: MotifStore },
  compute: Compute,
): Runner {
  let isStopping = false;
  let abortCurrent = () => {};
  const loop = (async () => {
    while (!isStopping) {
      try {
        const run = await runs.claim();
        if (run) await work(run);
        else await sleep(IDLE_MS);
      } catch (error) {
        if (!isDatabaseAway(error)) console.error("run:", error);
        await sleep(1000);
      }
    }
  })();

  async function work(run: RunRow): Promise<void> {
    const abort = new AbortController();
    abortCurrent = () => abort.abort();
    let latest = { progress: run.progress, stage: run.stage };
    let mayGoOn = true;
    const beat = setInterval(async () => {
      try {
        mayGoOn = await runs.beat(run, latest.progress, latest.stage);
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
      await untilDatabaseIsBack(() => runs.finish(run, files));
    } catch (error) {
      if (abort.signal.aborted) {
        if (!isStopping && !mayGoOn) await runs.end(run, "stopped", null);
        return;
      }
      if (isDatabaseAway(error)) throw error;
      console.error(`run ${run.id}:`, error);
      await untilDatabaseIsBack(() =>
        runs.end(run, "failed", error instanceof Error ? error.message.slice(0, 500) : "unknown"),
      );
    } finally {
      clearInterval(beat);
    }
  }

  return {
    async stop() {
      isStopping = true;
      abortCurrent();
      await loop;
    },
  };
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
