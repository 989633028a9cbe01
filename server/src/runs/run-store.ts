// Runs in the database as those see them who order, watch and stop them.
import { randomUUID } from "node:crypto";
import type { Run } from "@plain-palette/contract";
import { readRecipe } from "@plain-palette/core/recipe";
import { type DataSource, In } from "typeorm";
import { RecipeEntity, RunEntity, RunFileEntity, type RunRow } from "../database/index.ts";
import { notFound } from "../problems/index.ts";

export interface RunStore {
  /** `askedBy`: the window or program that orders it. */
  order(jobId: string, recipeVersion: number, askedBy: string): Promise<Run>;
  find(id: string): Promise<Run | null>;
  findAll(ids: readonly string[]): Promise<Run[]>;
  listOf(jobId: string): Promise<Run[]>;
  file(runId: string, name: string): Promise<{ mediaType: string; bytes: Buffer } | null>;
  files(runId: string): Promise<{ name: string; bytes: Buffer }[]>;
  requestStop(id: string): Promise<void>;
}

export function makeRunStore(database: DataSource): RunStore {
  const { manager } = database;
  return {
    async order(jobId, recipeVersion, askedBy) {
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
        askedBy: askedBy.slice(0, 100),
        createdAt: new Date(),
      });
      return toRun(database, await manager.findOneByOrFail(RunEntity, { id }));
    },
    async find(id) {
      const row = await manager.findOneBy(RunEntity, { id });
      return row && toRun(database, row);
    },
    async findAll(ids) {
      return toRuns(database, await manager.findBy(RunEntity, { id: In([...ids]) }));
    },
    async listOf(jobId) {
      return toRuns(
        database,
        await manager.find(RunEntity, { where: { jobId }, order: { createdAt: "DESC" }, take: 20 }),
      );
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
  };
}

async function toRun(database: DataSource, row: RunRow): Promise<Run> {
  const [run] = await toRuns(database, [row]);
  if (!run) throw new Error("one row is one run");
  return run;
}

async function toRuns({ manager }: DataSource, rows: readonly RunRow[]): Promise<Run[]> {
  const done = rows.filter(({ state }) => state === "done").map(({ id }) => id);
  const files: { run_id: string; name: string; bytes: string | number }[] =
    done.length === 0
      ? []
      : await manager.query(
          `SELECT run_id, name, LENGTH(bytes) AS bytes FROM run_files WHERE run_id IN (${done.map(() => "?").join(", ")}) ORDER BY name`,
          done,
        );
  return rows.map((row) => ({
    id: row.id,
    jobId: row.jobId,
    recipeVersion: row.recipeVersion,
    process: row.process,
    state: row.state,
    progress: row.progress,
    stage: row.stage,
    error: row.error,
    files: files.filter((file) => file.run_id === row.id).map(({ name, bytes }) => ({ name, bytes: Number(bytes) })),
    createdAt: row.createdAt.toISOString(),
  }));
}
