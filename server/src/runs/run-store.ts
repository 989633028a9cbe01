// Runs in the database: ordered by a request, claimed by whichever server process is free, watched and stopped by anyone.
import { randomUUID } from "node:crypto";
import type { Run } from "@plain-palette/contract";
import { readRecipe } from "@plain-palette/core/recipe";
import type { DataSource } from "typeorm";
import { inTransaction, JobEntity, RecipeEntity, RunEntity, RunFileEntity, type RunRow } from "../database/index.ts";
import { notFound } from "../problems/index.ts";

/** A run without a sign of life for this long was left by a process that died, seconds. */
const ABANDONED_AFTER_S = 10;

export interface FinishedFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}

export interface RunStore {
  order(jobId: string, recipeVersion: number): Promise<Run>;
  find(id: string): Promise<Run | null>;
  listOf(jobId: string): Promise<Run[]>;
  file(runId: string, name: string): Promise<{ mediaType: string; bytes: Buffer } | null>;
  files(runId: string): Promise<{ name: string; bytes: Buffer }[]>;
  requestStop(id: string): Promise<void>;
  /** Takes the oldest run that waits or was abandoned; null if there is none. */
  claim(): Promise<RunRow | null>;
  /** Signs of life and progress; false if the run is to stop or is no longer this claim's. */
  beat(run: RunRow, progress: number, stage: string): Promise<boolean>;
  finish(run: RunRow, files: readonly FinishedFile[]): Promise<void>;
  end(run: RunRow, state: "failed" | "stopped", error: string | null): Promise<void>;
}

export function makeRunStore(database: DataSource): RunStore {
  const { manager } = database;
  return {
    async order(jobId, recipeVersion) {
      const version = await manager.findOneBy(RecipeEntity, { jobId, version: recipeVersion });
      if (!version) throw notFound(`Version ${recipeVersion} of this job`);
      const id = randomUUID();
      await manager.insert(RunEntity, {
        id,
        jobId,
        recipeVersion,
        process: readRecipe(version.body).process,
        state: "queued",
        progress: 0,
        stage: "Waiting for a free thread",
        error: null,
        stopRequested: false,
        heartbeatAt: null,
        claim: null,
        createdAt: new Date(),
      });
      return toRun(database, await manager.findOneByOrFail(RunEntity, { id }));
    },
    async find(id) {
      const row = await manager.findOneBy(RunEntity, { id });
      return row && toRun(database, row);
    },
    async listOf(jobId) {
      const rows = await manager.find(RunEntity, { where: { jobId }, order: { createdAt: "DESC" }, take: 20 });
      return Promise.all(rows.map((row) => toRun(database, row)));
    },
    file(runId, name) {
      return manager.findOne(RunFileEntity, {
        where: { runId, name },
        select: { runId: true, name: true, mediaType: true, bytes: true },
      });
    },
    files(runId) {
      return manager.find(RunFileEntity, {
        where: { runId },
        select: { runId: true, name: true, bytes: true },
        order: { name: "ASC" },
      });
    },
    async requestStop(id) {
      await manager.update(RunEntity, { id, state: "queued" }, { state: "stopped", stage: "Stopped" });
      await manager.update(RunEntity, { id, state: "running" }, { stopRequested: true });
    },
    claim: () =>
      inTransaction(database, async (tx) => {
        const abandonedBefore = new Date(Date.now() - ABANDONED_AFTER_S * 1000);
        const row = await tx
          .createQueryBuilder(RunEntity, "run")
          .setLock("pessimistic_write")
          .setOnLocked("skip_locked")
          .where("run.state = 'queued'")
          .orWhere("run.state = 'running' AND run.heartbeatAt < :abandonedBefore", { abandonedBefore })
          .orderBy("run.createdAt")
          .limit(1)
          .getOne();
        if (!row) return null;
        const taken = { state: "running" as const, claim: randomUUID(), heartbeatAt: new Date() };
        await tx.update(RunEntity, { id: row.id }, taken);
        return { ...row, ...taken };
      }),
    async beat({ id, claim }, progress, stage) {
      await manager.update(
        RunEntity,
        { id, claim: claim ?? "", state: "running" },
        { progress, stage, heartbeatAt: new Date() },
      );
      const row = await manager.findOneBy(RunEntity, { id });
      return row?.claim === claim && row.state === "running" && !row.stopRequested;
    },
    finish: ({ id, claim, jobId, recipeVersion }, files) =>
      inTransaction(database, async (tx) => {
        const done = await tx.update(
          RunEntity,
          { id, claim: claim ?? "", state: "running" },
          { state: "done", progress: 1, stage: "Done" },
        );
        if (done.affected !== 1) return;
        for (const { name, mediaType, bytes } of files)
          await tx.insert(RunFileEntity, { runId: id, name, mediaType, bytes: Buffer.from(bytes) });
        await tx.update(JobEntity, { id: jobId }, { madeVersion: recipeVersion });
      }),
    async end({ id, claim }, state, error) {
      const stage = state === "stopped" ? "Stopped" : "Failed";
      await manager.update(RunEntity, { id, claim: claim ?? "", state: "running" }, { state, stage, error });
    },
  };
}

async function toRun({ manager }: DataSource, row: RunRow): Promise<Run> {
  const files: { name: string; bytes: string | number }[] =
    row.state === "done"
      ? await manager.query("SELECT name, LENGTH(bytes) AS bytes FROM run_files WHERE run_id = ? ORDER BY name", [
          row.id,
        ])
      : [];
  return {
    id: row.id,
    jobId: row.jobId,
    recipeVersion: row.recipeVersion,
    process: row.process,
    state: row.state,
    progress: row.progress,
    stage: row.stage,
    error: row.error,
    files: files.map(({ name, bytes }) => ({ name, bytes: Number(bytes) })),
    createdAt: row.createdAt.toISOString(),
  };
}
