// What takes room, and the rules by which some of it goes: files of clients that no job has, files of runs that newer ones
// have taken the place of, decoded pixels beyond their bound, old dumps.
import { readdir, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import type { Room, RoomKind, RoomPart } from "@plain-palette/contract";
import type { DataSource } from "typeorm";
import type { PixelCache } from "../compute/index.ts";
import { inTransaction } from "../database/index.ts";
import type { Disk } from "../doors/index.ts";

/** Of each job the files of so many runs stay whatever their age; others go after so many days. */
const RUNS_KEPT = 2;
const DAYS_KEPT = 7;
const DUMPS_KEPT = 5;

export interface RoomStore {
  measure(): Promise<Room>;
  /** Lets go of what goes by the rules; what went. */
  tidy(): Promise<RoomPart[]>;
}

interface Places {
  readonly cache: PixelCache;
  readonly dumps: string;
  readonly disk: Disk;
}

const NO_JOB = "NOT EXISTS (SELECT 1 FROM recipes WHERE recipes.artwork_hash = artworks.hash)";
const OLD_RUNS = `
  SELECT id FROM (
    SELECT id, created_at, ROW_NUMBER() OVER (PARTITION BY job_id ORDER BY created_at DESC) AS place
    FROM runs WHERE state = 'done'
  ) ranked WHERE place > ${RUNS_KEPT} AND created_at < UTC_TIMESTAMP() - INTERVAL ${DAYS_KEPT} DAY`;

const NOTHING = { files: 0, bytes: 0 };
type Heap = typeof NOTHING;

export function makeRoomStore(database: DataSource, { cache, dumps, disk }: Places): RoomStore {
  const sum = async (from: string, bytes: string): Promise<Heap> => {
    const [row] = await database.query(`SELECT COUNT(*) AS files, COALESCE(SUM(${bytes}), 0) AS bytes FROM ${from}`);
    return { files: Number(row.files), bytes: Number(row.bytes) };
  };
  const oldDumps = async () => {
    const names = (await readdir(dumps).catch(() => [])).filter((name) => name.endsWith(".sql.gz")).sort();
    const all = await Promise.all(names.map(async (name) => ({ name, bytes: (await stat(join(dumps, name))).size })));
    return { all, old: all.slice(0, -DUMPS_KEPT) };
  };
  const heapOf = (files: readonly { bytes: number }[]): Heap => ({
    files: files.length,
    bytes: files.reduce((total, { bytes }) => total + bytes, 0),
  });
  const partOf = (kind: RoomKind, kept: Heap, goes: Heap = NOTHING): RoomPart => ({ kind, kept, goes });
  const parts = async (): Promise<RoomPart[]> => {
    const { all, old } = await oldDumps();
    return [
      partOf("artworks", await sum("artworks", "size"), await sum(`artworks WHERE ${NO_JOB}`, "size")),
      // Packed: what they take is less.
      partOf("versions", await sum("recipes", "LENGTH(body)")),
      partOf(
        "runs",
        await sum("run_files", "LENGTH(bytes)"),
        await sum(`run_files WHERE run_id IN (${OLD_RUNS})`, "LENGTH(bytes)"),
      ),
      partOf("typefaces", await sum("typefaces", "LENGTH(bytes)")),
      partOf("pixels", await cache.size()),
      partOf("dumps", heapOf(all), heapOf(old)),
    ];
  };
  return {
    async measure() {
      return { parts: await parts(), freeBytes: await disk.free() };
    },
    async tidy() {
      const before = await parts();
      await inTransaction(database, (tx) => tx.query(`DELETE FROM run_files WHERE run_id IN (${OLD_RUNS})`));
      await inTransaction(database, (tx) => tx.query(`DELETE FROM artworks WHERE ${NO_JOB}`));
      for (const { name } of (await oldDumps()).old) await rm(join(dumps, name), { force: true });
      return before.filter(({ goes }) => goes.files > 0);
    },
  };
}
