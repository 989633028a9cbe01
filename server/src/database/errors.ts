// What a database's error means for whoever asked.

const LOST = new Set([
  "ECONNREFUSED",
  "ECONNRESET",
  "PROTOCOL_CONNECTION_LOST",
  "EPIPE",
  "ETIMEDOUT",
  "ER_SERVER_SHUTDOWN",
  "PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR",
  "ER_CON_COUNT_ERROR",
]);
const FULL = new Set(["ER_DISK_FULL", "ER_RECORD_FILE_FULL", "ENOSPC"]);
const DEADLOCKED = new Set(["ER_LOCK_DEADLOCK", "ER_LOCK_WAIT_TIMEOUT", "ER_CHECKREAD"]);
const MIXED = new Set(["ER_CANT_AGGREGATE_2COLLATIONS", "ER_CANT_AGGREGATE_NCOLLATIONS", "ER_TRUNCATED_WRONG_VALUE"]);

/** The code of a database's error, or of what is behind it. */
function codeOf(error: unknown): string {
  if (typeof error !== "object" || error === null) return "";
  if ("driverError" in error && error.driverError !== error) return codeOf(error.driverError);
  return "code" in error && typeof error.code === "string" ? error.code : "";
}

/** Whether an error means that the database is away, not that the request was wrong. */
export const isDatabaseAway = (error: unknown): boolean => LOST.has(codeOf(error));

/** Whether it has no room on its disk. */
export const isDatabaseFull = (error: unknown): boolean => FULL.has(codeOf(error));

/** Whether two transactions waited for each other, and this one was given up: it may simply be tried again. */
export const isDeadlock = (error: unknown): boolean => DEADLOCKED.has(codeOf(error));

/** Whether what is to be stored is there already. */
export const isThereAlready = (error: unknown): boolean => codeOf(error) === "ER_DUP_ENTRY";

/** Whether something was looked for by signs that its column cannot have. */
export const isMixedUp = (error: unknown): boolean => MIXED.has(codeOf(error));
