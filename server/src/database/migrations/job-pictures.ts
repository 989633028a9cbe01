// Fourth schema: jobs that are put away, how a job's result looks, and the demo shop's garments on the shelf.
import { randomUUID } from "node:crypto";
import type { MigrationInterface, QueryRunner } from "typeorm";

/** What Quayside Print Room, the invented shop of the demo, prints on: code, name, colour, detail. */
const FIRST_GARMENTS: readonly (readonly [string, string, string, string])[] = [
  ["G-01", "White", "#ffffff", "crew neck"],
  ["G-02", "Sailcloth", "#efe9dc", "crew neck"],
  ["G-10", "Ash", "#c9ccce", "crew neck"],
  ["G-11", "Slate", "#4b5560", "crew neck"],
  ["G-19", "Black", "#16161a", "crew neck"],
  ["G-21", "Night navy", "#1d2a44", "crew neck, hooded"],
  ["G-24", "Harbour teal", "#1f7a8c", "crew neck"],
  ["G-31", "Buoy red", "#b93227", "crew neck"],
  ["G-41", "Kelp", "#2f5d3a", "crew neck"],
  ["G-61", "Flour sack", "#d9c7a3", "apron"],
];

export class JobPictures1764151200000 implements MigrationInterface {
  readonly name = "JobPictures1764151200000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE jobs ADD COLUMN is_put_away BOOLEAN NOT NULL DEFAULT FALSE");
    await runner.query(
      `CREATE TABLE job_pictures (
        job_id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        version INT UNSIGNED NOT NULL,
        bytes MEDIUMBLOB NOT NULL,
        FOREIGN KEY (job_id) REFERENCES jobs (id)
      )`,
    );
    for (const [code, name, hex, detail] of FIRST_GARMENTS)
      await runner.query(
        "INSERT INTO stock (id, kind, code, name, colour, detail, version) VALUES (?, 'garment', ?, ?, ?, ?, 1)",
        [randomUUID(), code, name, JSON.stringify({ space: "srgb", hex }), detail],
      );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DELETE FROM stock WHERE kind = 'garment'");
    await runner.query("DROP TABLE job_pictures");
    await runner.query("ALTER TABLE jobs DROP COLUMN is_put_away");
  }
}
