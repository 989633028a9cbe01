// Second schema: every recipe names the client's file it is of, files know their pages, and the shop has its placements.
import { randomUUID } from "node:crypto";
import type { MigrationInterface, QueryRunner } from "typeorm";

/** Placements a shop starts with, mm: common practice, no source. */
const FIRST_PLACEMENTS: readonly (readonly [string, number, number, number])[] = [
  ["Full front, adult", 266.7, 304.8, 406.4],
  ["Oversize front", 317.5, 355.6, 457.2],
  ["Left chest", 95.25, 101.6, 101.6],
  ["Full back", 292.1, 330.2, 431.8],
  ["Youth front", 215.9, 228.6, 304.8],
  ["Front centre, stones", 152.4, 177.8, 203.2],
  ["Sleeve", 69.85, 76.2, 101.6],
  ["Nape", 63.5, 76.2, 50.8],
];

export class ArtworkRevisions1764050400000 implements MigrationInterface {
  readonly name = "ArtworkRevisions1764050400000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE artworks ADD COLUMN IF NOT EXISTS pages INT UNSIGNED NOT NULL DEFAULT 1, ADD COLUMN IF NOT EXISTS content VARCHAR(8) NOT NULL DEFAULT 'pixels'",
    );
    await runner.query("UPDATE artworks SET content = 'shapes' WHERE kind = 'svg'");
    await runner.query(
      "ALTER TABLE recipes ADD COLUMN IF NOT EXISTS artwork_hash CHAR(64) CHARACTER SET ascii NULL, ADD COLUMN IF NOT EXISTS file_name VARCHAR(255) NULL",
    );
    // Gone already if this is done again from a later point.
    if (await runner.hasColumn("jobs", "artwork_hash"))
      await runner.query(
        "UPDATE recipes JOIN jobs ON jobs.id = recipes.job_id SET recipes.artwork_hash = jobs.artwork_hash, recipes.file_name = jobs.file_name",
      );
    await runner.query(
      `ALTER TABLE recipes MODIFY artwork_hash CHAR(64) CHARACTER SET ascii NOT NULL, MODIFY file_name VARCHAR(255) NOT NULL,
       ADD CONSTRAINT recipes_ibfk_2 FOREIGN KEY IF NOT EXISTS recipes_ibfk_2 (artwork_hash) REFERENCES artworks (hash)`,
    );
    await runner.query("ALTER TABLE jobs DROP FOREIGN KEY IF EXISTS jobs_ibfk_1");
    await runner.query("ALTER TABLE jobs DROP COLUMN IF EXISTS artwork_hash, DROP COLUMN IF EXISTS file_name");
    await runner.query(
      `CREATE TABLE IF NOT EXISTS placements (
        id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        position INT UNSIGNED NOT NULL AUTO_INCREMENT UNIQUE,
        name VARCHAR(60) NOT NULL,
        width_mm DOUBLE NOT NULL,
        area_width_mm DOUBLE NOT NULL,
        area_height_mm DOUBLE NOT NULL,
        version INT UNSIGNED NOT NULL
      )`,
    );
    const [{ placements }] = await runner.query("SELECT COUNT(*) AS placements FROM placements");
    // All at once: either none is there or all are.
    if (Number(placements) === 0)
      await runner.query(
        `INSERT INTO placements (id, name, width_mm, area_width_mm, area_height_mm, version)
         VALUES ${FIRST_PLACEMENTS.map(() => "(?, ?, ?, ?, ?, 1)").join(", ")}`,
        FIRST_PLACEMENTS.flatMap((placement) => [randomUUID(), ...placement]),
      );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE IF EXISTS placements");
    await runner.query(
      "ALTER TABLE jobs ADD COLUMN IF NOT EXISTS artwork_hash CHAR(64) CHARACTER SET ascii NULL, ADD COLUMN IF NOT EXISTS file_name VARCHAR(255) NULL",
    );
    await runner.query(
      "UPDATE jobs JOIN recipes ON recipes.job_id = jobs.id AND recipes.version = jobs.head SET jobs.artwork_hash = recipes.artwork_hash, jobs.file_name = recipes.file_name",
    );
    await runner.query(
      `ALTER TABLE jobs MODIFY artwork_hash CHAR(64) CHARACTER SET ascii NOT NULL, MODIFY file_name VARCHAR(255) NOT NULL,
       ADD CONSTRAINT jobs_ibfk_1 FOREIGN KEY (artwork_hash) REFERENCES artworks (hash)`,
    );
    await runner.query("ALTER TABLE recipes DROP FOREIGN KEY IF EXISTS recipes_ibfk_2");
    await runner.query("ALTER TABLE recipes DROP COLUMN IF EXISTS artwork_hash, DROP COLUMN IF EXISTS file_name");
    await runner.query("ALTER TABLE artworks DROP COLUMN IF EXISTS pages, DROP COLUMN IF EXISTS content");
  }
}
