// Runs as those see them who work on them: taken by whichever server process is free, given signs of life, finished once.
import { randomUUID } from "node:crypto";
import type { DataSource, EntityManager } from "typeorm";
import { inTransaction, JobEntity, RunEntity, RunFileEntity, type RunRow } from "../database/index.ts";

/** A run without a sign of life for this long was left by a process that died, seconds. */
const ABANDONED_AFTER_S = 10;

/** A run that was begun so often and never finished is not begun again. */
const MOST_ATTEMPTS = 3;

export interface FinishedFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Uint8Array;
}

export interface RunQueue {
  /**
   * Takes a run that waits or was abandoned, of whoever has the fewest under way and was served longest ago; null if there
   * is none. One that was begun too often fails instead: it may be what ends its servers.
   */
  claim(): Promise<RunRow | null>;
  /** Gives one back that was begun and is not finished, as if it had not been begun. */
  release(run: RunRow): Promise<void>;
  /** Signs of life and progress; false if the run is to stop or is no longer this claim's. */
  beat(run: RunRow, progress: number, stage: string): Promise<boolean>;
  finish(run: RunRow, files: readonly FinishedFile[]): Promise<void>;
  end(run: RunRow, state: "failed" | "stopped", error: string | null): Promise<void>;
}

export function makeRunQueue(database: DataSource): RunQueue {
  const { manager } = database;
  return {
    claim: () =>
      inTransaction(database, async (tx) => {
        for (;;) {
          const id = await nextRun(tx);
          if (id === null) return null;
          const row = await tx.findOneByOrFail(RunEntity, { id });
          if (row.attempts < MOST_ATTEMPTS) {
            const claim = randomUUID();
            await tx.query(
              `UPDATE runs SET state = 'running', claim = ?, attempts = attempts + 1,
                 heartbeat_at = UTC_TIMESTAMP(3), claimed_at = UTC_TIMESTAMP(3) WHERE id = ?`,
              [claim, id],
            );
            return { ...row, state: "running", claim };
          }
          const error = `It was begun ${row.attempts} times, and each time whatever worked on it ended. Its files are not made.`;
          await tx.update(RunEntity, { id }, { state: "failed", stage: "Failed", error });
        }
      }),
    async release({ id, claim }) {
      await manager.query(
        "UPDATE runs SET state = 'queued', claim = NULL, attempts = attempts - 1 WHERE id = ? AND claim = ? AND state = 'running'",
        [id, claim],
      );
    },
    async beat({ id, claim }, progress, stage) {
      await manager.query(
        "UPDATE runs SET progress = ?, stage = ?, heartbeat_at = UTC_TIMESTAMP(3) WHERE id = ? AND claim = ? AND state = 'running'",
        [progress, stage, id, claim],
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

/** The run that is next, locked; times are the database's, whatever clock a server has. */
async function nextRun(tx: EntityManager): Promise<string | null> {
  const rows: { id: string }[] = await tx.query(
    `SELECT run.id FROM runs run
       LEFT JOIN (SELECT asked_by, SUM(state = 'running') AS under_way, MAX(claimed_at) AS served FROM runs
                  WHERE state = 'running' OR claimed_at > UTC_TIMESTAMP(3) - INTERVAL 1 HOUR GROUP BY asked_by) asker
         ON asker.asked_by = run.asked_by
     WHERE run.state = 'queued'
        OR (run.state = 'running' AND run.heartbeat_at < UTC_TIMESTAMP(3) - INTERVAL ${ABANDONED_AFTER_S} SECOND)
     ORDER BY COALESCE(asker.under_way, 0), asker.served, run.created_at LIMIT 1 FOR UPDATE SKIP LOCKED`,
  );
  return rows[0]?.id ?? null;
}
