import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { DataSource } from "typeorm";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type MariaDb, startMariaDb } from "../../tools/database/mariadb.ts";
import { connectDatabase } from "../src/database/index.ts";

let folder: string;
let database: MariaDb;
let source: DataSource;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "plain-palette-migrations-"));
  database = await startMariaDb(folder);
  source = await connectDatabase(database.url, join(folder, "dumps"));
});
afterAll(async () => {
  await source.destroy();
  await database.stop();
  rmSync(folder, { recursive: true });
});

const ID = "6f2b1c1e-0000-4000-8000-00000000000";
const HASH = "a".repeat(64);

describe("a shop's data from before processes", () => {
  it("comes over: jobs at their separations, runs of screens, and transfer film on the shelf", async () => {
    // That of processes itself, and all since.
    const isDone = async () =>
      (await source.query("SELECT name FROM migrations WHERE name LIKE 'Processes%'")).length > 0;
    while (await isDone()) await source.undoLastMigration();
    await source.query(
      "INSERT INTO artworks (hash, kind, size, width, height, has_alpha, bytes, thumbnail) VALUES (?, 'png', 1, 1, 1, 0, '', '')",
      [HASH],
    );
    for (const [i, step] of ["separations", "colours"].entries()) {
      await source.query(
        "INSERT INTO jobs (id, title, client, step, head, updated_at) VALUES (?, 'a', '', ?, 1, NOW())",
        [`${ID}${i}`, step],
      );
      await source.query(
        "INSERT INTO recipes (job_id, version, body, created_at, artwork_hash, file_name) VALUES (?, 1, '{}', NOW(), ?, 'a.png')",
        [`${ID}${i}`, HASH],
      );
    }
    await source.query(
      "INSERT INTO runs (id, job_id, recipe_version, state, progress, stage, stop_requested, created_at) VALUES (?, ?, 1, 'done', 1, 'Done', 0, NOW())",
      [`${ID}8`, `${ID}0`],
    );
    await source.query(
      `INSERT INTO stock (id, kind, code, name, colour, detail, version) VALUES (?, 'film', 'F-1', 'Kelp', '{"space":"srgb","hex":"#2f5d3a"}', '', 1)`,
      [`${ID}9`],
    );
    await source.runMigrations();
    expect(await source.query("SELECT step FROM jobs ORDER BY number")).toEqual([
      { step: "make" },
      { step: "colours" },
    ]);
    expect(await source.query("SELECT process FROM runs")).toEqual([{ process: "screens" }]);
    expect(await source.query("SELECT kind, film, stones FROM stock")).toEqual([
      { kind: "transfer-film", film: null, stones: null },
    ]);
  });
});
