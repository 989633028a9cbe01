// A migration that is killed between any two of its statements, and two first starts at once.
import { mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createConnection } from "mysql2/promise";
import { DataSource } from "typeorm";
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import { type MariaDb, startMariaDb } from "../../tools/database/mariadb.ts";
import { checkDump } from "../src/backup/index.ts";
import { connectDatabase } from "../src/database/index.ts";

let folder: string;
let dumps: string;
let database: MariaDb;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "plain-palette-killed-"));
  dumps = join(folder, "dumps");
  database = await startMariaDb(folder);
});
afterAll(async () => {
  await database.stop();
  rmSync(folder, { recursive: true });
});

async function ask<T>(sql: string): Promise<T[]> {
  const connection = await createConnection(database.url);
  const [rows] = await connection.query(sql).finally(() => connection.end());
  return rows as T[];
}
async function emptyDatabase(): Promise<void> {
  const { hostname, port, username, password, pathname } = new URL(database.url);
  const connection = await createConnection({ host: hostname, port: Number(port), user: username, password });
  await connection.query(`DROP DATABASE IF EXISTS ${pathname.slice(1)}`);
  await connection.query(`CREATE DATABASE ${pathname.slice(1)} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
  await connection.end();
}
beforeEach(emptyDatabase);
afterEach(() => vi.restoreAllMocks());

/** All tables as MariaDB would make them, and what a new shop has in them. */
async function schema(): Promise<string> {
  const tables = await ask<Record<string, string>>("SHOW TABLES");
  const made = await Promise.all(
    tables.map(async (row) =>
      Object.values((await ask<Record<string, string>>(`SHOW CREATE TABLE ${Object.values(row)[0]}`))[0] ?? {}),
    ),
  );
  const rows = await ask("SELECT name, width_mm FROM placements ORDER BY position");
  const done = await ask("SELECT name FROM migrations ORDER BY timestamp");
  return JSON.stringify([made.map((one) => `${one[1]}`.replace(/AUTO_INCREMENT=\d+ /, "")), rows, done], null, 1);
}

class Killed extends Error {}

/** Brings the database up to date, and dies when `most` statements that change anything are done; how many there were. */
async function migrateAndDie(most: number): Promise<number> {
  let done = 0;
  const make = DataSource.prototype.createQueryRunner;
  vi.spyOn(DataSource.prototype, "createQueryRunner").mockImplementation(function (this: DataSource, ...args) {
    const runner = make.apply(this, args);
    const query = runner.query.bind(runner);
    runner.query = async (sql: string, ...more: unknown[]) => {
      if (done >= most) throw new Killed();
      const answer = await query(sql, ...(more as []));
      if (/^\s*(CREATE|ALTER|INSERT|UPDATE|DROP)/i.test(sql)) done++;
      return answer;
    };
    return runner;
  });
  try {
    const source = await connectDatabase(database.url, dumps);
    await source.destroy();
  } catch (error) {
    if (!(error instanceof Killed)) throw error;
  }
  vi.restoreAllMocks();
  return done;
}

describe("a start that is killed while it changes the database", () => {
  it("after any statement: the next start ends with the same tables and rows", async () => {
    const all = await migrateAndDie(Number.POSITIVE_INFINITY);
    expect(all).toBeGreaterThan(30);
    const whole = await schema();
    for (let most = 1; most < all; most++) {
      await emptyDatabase();
      expect(await migrateAndDie(most)).toBe(most);
      await migrateAndDie(Number.POSITIVE_INFINITY);
      expect(await schema(), `killed after ${most}`).toBe(whole);
    }
  });

  it("and what there was is dumped before, sound", async () => {
    await migrateAndDie(20);
    for (const file of readdirSync(dumps)) rmSync(join(dumps, file));
    await migrateAndDie(Number.POSITIVE_INFINITY);
    const files = readdirSync(dumps);
    expect(files.length).toBe(1);
    await checkDump(join(dumps, files[0] ?? ""));
    // Nothing is left to change: nothing is dumped.
    await migrateAndDie(Number.POSITIVE_INFINITY);
    expect(readdirSync(dumps)).toEqual(files);
  });
});

it("four first starts at once: one changes the database, the others wait, all are up", async () => {
  const sources = await Promise.all([1, 2, 3, 4].map(() => connectDatabase(database.url, dumps)));
  for (const source of sources) {
    expect(await source.query("SELECT COUNT(*) AS n FROM placements")).toEqual([{ n: expect.anything() }]);
    await source.destroy();
  }
});
