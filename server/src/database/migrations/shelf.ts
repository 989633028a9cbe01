// Third schema: the shelf, and the shop's settings.
import type { MigrationInterface, QueryRunner } from "typeorm";

export class Shelf1764064800000 implements MigrationInterface {
  readonly name = "Shelf1764064800000";

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE IF NOT EXISTS stock (
        id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
        kind VARCHAR(8) CHARACTER SET ascii NOT NULL,
        code VARCHAR(40) COLLATE utf8mb4_bin NOT NULL,
        name VARCHAR(60) NOT NULL,
        colour JSON NOT NULL,
        detail VARCHAR(120) NOT NULL,
        version INT UNSIGNED NOT NULL,
        UNIQUE (kind, code)
      )`,
    );
    await runner.query(
      "CREATE TABLE IF NOT EXISTS settings (id TINYINT UNSIGNED NOT NULL PRIMARY KEY, body JSON NOT NULL, version INT UNSIGNED NOT NULL)",
    );
    await runner.query("INSERT IGNORE INTO settings (id, body, version) VALUES (1, '{}', 1)");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE IF EXISTS settings");
    await runner.query("DROP TABLE IF EXISTS stock");
  }
}
