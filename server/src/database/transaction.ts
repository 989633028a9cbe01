// Transactions, tried again where two waited for each other.
import type { DataSource, EntityManager } from "typeorm";
import { isDeadlock } from "./errors.ts";

const MOST_TRIES = 8;
/** Before it is tried again, ms: a little longer each time, and not all at once. */
const PAUSE_MS = 15;

/** All of `work` or nothing of it. It may be done several times, each from the start. */
export async function inTransaction<T>(database: DataSource, work: (tx: EntityManager) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await database.transaction(work);
    } catch (error) {
      if (!isDeadlock(error) || tries === MOST_TRIES) throw error;
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS * tries * (1 + Math.random())));
    }
  }
}
