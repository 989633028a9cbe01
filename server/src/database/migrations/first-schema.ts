// The first schema. Tables are only ever changed by a further migration.
import type { MigrationInterface, QueryRunner } from "typeorm";

const TABLES = [
  `CREATE TABLE IF NOT EXISTS artworks (
    hash CHAR(64) CHARACTER SET ascii NOT NULL PRIMARY KEY,
    kind VARCHAR(8) NOT NULL,
    size INT UNSIGNED NOT NULL,
    width INT UNSIGNED NOT NULL,
    height INT UNSIGNED NOT NULL,
    has_alpha BOOLEAN NOT NULL,
    dpi DOUBLE NULL,
    bytes LONGBLOB NOT NULL,
    thumbnail MEDIUMBLOB NOT NULL
  )`,
  `CREATE TABLE IF NOT EXISTS jobs (
    id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
    number INT UNSIGNED NOT NULL AUTO_INCREMENT UNIQUE,
    title VARCHAR(120) NOT NULL,
    client VARCHAR(120) NOT NULL,
    step VARCHAR(16) NOT NULL,
    artwork_hash CHAR(64) CHARACTER SET ascii NOT NULL,
    file_name VARCHAR(255) NOT NULL,
    head INT UNSIGNED NOT NULL,
    updated_at DATETIME(3) NOT NULL,
    FOREIGN KEY (artwork_hash) REFERENCES artworks (hash)
  )`,
  `CREATE TABLE IF NOT EXISTS recipes (
    job_id CHAR(36) CHARACTER SET ascii NOT NULL,
    version INT UNSIGNED NOT NULL,
    parent INT UNSIGNED NULL,
    body JSON NOT NULL,
    created_at DATETIME(3) NOT NULL,
    PRIMARY KEY (job_id, version),
    KEY by_parent (job_id, parent),
    FOREIGN KEY (job_id) REFERENCES jobs (id)
  )`,
  `CREATE TABLE IF NOT EXISTS runs (
    id CHAR(36) CHARACTER SET ascii NOT NULL PRIMARY KEY,
    job_id CHAR(36) CHARACTER SET ascii NOT NULL,
    recipe_version INT UNSIGNED NOT NULL,
    state VARCHAR(8) NOT NULL,
    progress DOUBLE NOT NULL,
    stage VARCHAR(80) NOT NULL,
    error VARCHAR(500) NULL,
    stop_requested BOOLEAN NOT NULL,
    heartbeat_at DATETIME(3) NULL,
    claim CHAR(36) CHARACTER SET ascii NULL,
    created_at DATETIME(3) NOT NULL,
    KEY by_state (state, created_at),
    FOREIGN KEY (job_id, recipe_version) REFERENCES recipes (job_id, version)
  )`,
  `CREATE TABLE IF NOT EXISTS run_files (
    run_id CHAR(36) CHARACTER SET ascii NOT NULL,
    name VARCHAR(80) NOT NULL,
    media_type VARCHAR(80) NOT NULL,
    bytes LONGBLOB NOT NULL,
    PRIMARY KEY (run_id, name),
    FOREIGN KEY (run_id) REFERENCES runs (id)
  )`,
];

export class FirstSchema1764028800000 implements MigrationInterface {
  readonly name = "FirstSchema1764028800000";

  async up(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) await runner.query(table);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ["run_files", "runs", "recipes", "jobs", "artworks"])
      await runner.query(`DROP TABLE IF EXISTS ${table}`);
  }
}
