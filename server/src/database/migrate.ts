// Bringing the schema up to date: by one process at a time, after a dump of what is there, and safe to be killed at any
// point, since every statement of a migration may run again (IF EXISTS, IF NOT EXISTS, or changing only what is unchanged).
import { mkdir, rename } from "node:fs/promises";
import { join } from "node:path";
import { createConnection } from "mysql2/promise";
import type { DataSource } from "typeorm";
import { writeDump } from "../backup/index.ts";

/** A process that waits longer than this for another to be done gives up, s. */
const PATIENCE_S = 600;

export async function bringUpToDate(source: DataSource, url: string, dumpFolder: string): Promise<void> {
  // A lock of a connection: it is let go of by whatever ends the process.
  const lock = await createConnection(url);
  try {
    const [rows] = await lock.query("SELECT GET_LOCK(CONCAT(DATABASE(), ' schema'), ?) AS isOurs", [PATIENCE_S]);
    if (!JSON.stringify(rows).includes('"isOurs":1'))
      throw new Error("another process has been changing the database for too long; look at what it does");
    if (!(await source.showMigrations())) return;
    const [{ tables }] = await source.query(
      "SELECT COUNT(*) AS tables FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'jobs'",
    );
    if (Number(tables) > 0) await dumpBefore(url, dumpFolder);
    await source.runMigrations({ transaction: "none" });
  } finally {
    await lock.end();
  }
}

async function dumpBefore(url: string, folder: string): Promise<void> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const file = join(folder, `before-migration-${new Date().toISOString().replace(/[:.]/g, "-")}.sql.gz`);
  await writeDump(url, `${file}.part`);
  await rename(`${file}.part`, file);
  console.log(`what was in the database before it is changed is in ${file}`);
}
